import { spawn } from 'node:child_process';
import {
  linkSync,
  mkdirSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  rmSync,
  statSync,
  symlinkSync,
  writeFileSync,
} from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { afterAll, describe, expect, it } from 'vitest';
import { refuseSameFile } from './files.ts';
import { replaceFile, writeFailure } from './replaceFile.ts';

const folder = mkdtempSync(join(tmpdir(), 'hem-replace-'));
afterAll(() => rmSync(folder, { recursive: true }));
const here = (name: string) => join(folder, name);

const OLD = 'old '.repeat(1000);
const NEW = 'new '.repeat(1000);

/** Writes in a process that gets a signal just before one of the steps of writing. */
const CHILD = here('child.mjs');
writeFileSync(
  CHILD,
  `import fs from 'node:fs/promises';
import { syncBuiltinESMExports } from 'node:module';
const [module, out, step, signal] = process.argv.slice(2);
let count = 0;
const before = (work) => async (...words) => {
  if (++count === Number(step)) {
    process.kill(process.pid, signal);
    await new Promise((resolve) => setTimeout(resolve, 50));
  }
  return work(...words);
};
const { open, rename } = fs;
fs.open = before(async (...words) => {
  const file = await open(...words);
  for (const name of ['writeFile', 'sync', 'close']) file[name] = before(file[name].bind(file));
  return file;
});
fs.rename = before(rename);
syncBuiltinESMExports();
const { replaceFile } = await import(module);
await replaceFile(out, ${JSON.stringify(NEW)});
process.exitCode = count;
`,
);

function child(out: string, step: number, signal: string): Promise<number | null> {
  const module = fileURLToPath(new URL('./replaceFile.ts', import.meta.url));
  const words = ['--import', 'tsx', CHILD, module, out, String(step), signal];
  return new Promise((resolve) => {
    spawn(process.execPath, words, { stdio: 'ignore' }).on('exit', (code) => resolve(code));
  });
}

describe('a file that takes the place of another', () => {
  it('is there whole, or the old one is, whenever the command is ended', async () => {
    const out = here('model.obj');
    writeFileSync(out, OLD);
    const steps = (await child(out, 0, 'SIGKILL')) as number;
    expect(steps).toBe(8);
    expect(readFileSync(out, 'utf8')).toBe(NEW);
    for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP', 'SIGKILL']) {
      const ended = await Promise.all(
        Array.from({ length: steps }, async (_, i) => {
          const own = here(`${signal}-${i}.obj`);
          writeFileSync(own, OLD);
          const code = await child(own, i + 1, signal);
          return { code, content: readFileSync(own, 'utf8') };
        }),
      );
      for (const { code, content } of ended) {
        expect(code).toBe(null);
        expect([OLD, NEW]).toContain(content);
      }
      // Up to the renaming it is the old one: five steps come before.
      expect(ended.filter(({ content }) => content === OLD).length).toBeGreaterThanOrEqual(5);
      if (signal !== 'SIGKILL')
        expect(readdirSync(folder).filter((name) => name.endsWith('.part'))).toEqual([]);
    }
  });

  it('keeps the mode of the old one, and goes where a link leads', async () => {
    const real = here('real.obj');
    writeFileSync(real, OLD, { mode: 0o640 });
    symlinkSync(real, here('link.obj'));
    await replaceFile(here('link.obj'), NEW);
    expect(readFileSync(real, 'utf8')).toBe(NEW);
    expect(statSync(real).mode & 0o777).toBe(0o640);
  });

  it('is told why it cannot be written', async () => {
    symlinkSync('/dev/full', here('full.obj'));
    await expect(replaceFile(here('full.obj'), NEW)).rejects.toThrow(/there is no room left for it/);
    await expect(replaceFile(here('nowhere/x.obj'), NEW)).rejects.toThrow(/its folder does not exist/);
    mkdirSync(here('folder.obj'));
    await expect(replaceFile(here('folder.obj'), NEW)).rejects.toThrow(/it is a folder/);
    expect(writeFailure('x', Object.assign(new Error(), { code: 'EDQUOT' })).message).toMatch(/no room/);
    expect(writeFailure('x', Object.assign(new Error(), { code: 'EROFS' })).message).toMatch(/permissions/);
  });

  it('is not the model itself, by whatever name', async () => {
    const model = here('own.obj');
    writeFileSync(model, OLD);
    symlinkSync(model, here('soft.obj'));
    linkSync(model, here('hard.obj'));
    for (const name of [
      'own.obj',
      'soft.obj',
      'hard.obj',
      '../'.concat(folder.split('/').at(-1) as string, '/own.obj'),
    ])
      await expect(refuseSameFile(model, here(name))).rejects.toThrow(/is the model itself/);
    await refuseSameFile(model, here('other.obj'));
    await refuseSameFile(here('none.obj'), here('none.obj'));
  });
});
