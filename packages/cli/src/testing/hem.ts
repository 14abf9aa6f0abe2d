import { execFile } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { afterAll } from 'vitest';
import { program } from '../program.ts';

export const main = fileURLToPath(new URL('../main.ts', import.meta.url));
/** Where the files of a test lie. */
export const folder = mkdtempSync(join(tmpdir(), 'hem-'));
afterAll(() => rmSync(folder, { recursive: true }));

/** Calls the command as a process of its own. */
export function hem(...words: string[]): Promise<{ code: number; out: string; err: string }> {
  return new Promise((resolve) => {
    execFile(process.execPath, ['--import', 'tsx', main, ...words], (error, out, err) => {
      resolve({ code: Number(error?.code ?? 0), out, err });
    });
  });
}

/** Carries out a call in this process and returns what it prints. */
export async function run(words: readonly string[]): Promise<object> {
  let result: object = {};
  const quiet = program((printed) => {
    result = printed;
  });
  for (const command of [quiet, ...quiet.commands]) command.configureOutput({ writeErr: () => undefined });
  await quiet.parseAsync([...words], { from: 'user' });
  return result;
}

/** Writes a file, and tells its path. */
export function file(name: string, content: string): string {
  const path = join(folder, name);
  writeFileSync(path, content);
  return path;
}
