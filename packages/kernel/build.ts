import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import asc from 'assemblyscript/asc';

/** The module that core imports; made by `npm run kernel`, checked by a test to be up to date. */
export const target = fileURLToPath(new URL('../core/src/linear/kernelBytes.ts', import.meta.url));

/** Compiles the kernel and returns the text of the module with its bytes. */
export async function compileKernel(): Promise<string> {
  const folder = mkdtempSync(join(tmpdir(), 'hem-kernel-'));
  const out = join(folder, 'kernel.wasm');
  const source = fileURLToPath(new URL('./assembly/cholesky.ts', import.meta.url));
  const { error, stderr } = await asc.main([
    source,
    '--outFile',
    out,
    ...[
      '-O3',
      '--noAssert',
      '--runtime',
      'stub',
      '--importMemory',
      '--enable',
      'simd',
      '--enable',
      'bulk-memory',
    ],
    ...['--maximumMemory', '65536', '--use', 'abort='],
  ]);
  if (error) throw new Error(stderr.toString());
  const bytes = readFileSync(out);
  rmSync(folder, { recursive: true });
  return [
    '// Made by packages/kernel/build.ts from packages/kernel/assembly: do not edit.',
    `export const kernelBase64 =\n  '${bytes.toString('base64')}';`,
    '',
  ].join('\n');
}

if (process.argv[1] === fileURLToPath(import.meta.url)) writeFileSync(target, await compileKernel());
