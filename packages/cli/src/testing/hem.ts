import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { afterAll } from 'vitest';
import { hem as callHem, program } from '../program.ts';

export const main = fileURLToPath(new URL('../main.ts', import.meta.url));
/** Where the files of a test lie. */
export const folder = mkdtempSync(join(tmpdir(), 'hem-'));
afterAll(() => rmSync(folder, { recursive: true }));

/** Calls the command as whoever types it does, in this process: starting one takes longer than most calls. */
export async function hem(...words: string[]): Promise<{ code: number; out: string; err: string }> {
  let [out, err] = ['', ''];
  const code = await callHem(words, {
    out: (text) => {
      out += text;
    },
    err: (text) => {
      err += text;
    },
  });
  return { code, out, err };
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
