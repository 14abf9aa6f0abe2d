import { spawnSync } from 'node:child_process';
import { existsSync, readdirSync, statSync } from 'node:fs';
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import { root } from './bootstrap.mjs';

/** Runs the command from its bundle, which is made when there is none and when its code has changed. */
const bundle = join(root, 'packages/cli/dist/hem.js');

function newest(folder) {
  let time = 0;
  for (const entry of readdirSync(folder, { withFileTypes: true })) {
    const path = join(folder, entry.name);
    time = Math.max(time, entry.isDirectory() ? newest(path) : statSync(path).mtimeMs);
  }
  return time;
}

const sources = ['packages/core/src', 'packages/cli/src'].map((folder) => newest(join(root, folder)));
if (!existsSync(bundle) || statSync(bundle).mtimeMs < Math.max(...sources)) {
  const vite = join(root, 'node_modules/.bin/vite');
  const call = ['build', '--config', 'packages/cli/vite.config.ts', '--logLevel', 'error'];
  const { status } = spawnSync(vite, call, { cwd: root, stdio: ['ignore', 'ignore', 'inherit'] });
  if (status !== 0) process.exit(status ?? 1);
}
await import(pathToFileURL(bundle).href);
