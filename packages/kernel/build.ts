import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import asc from 'assemblyscript/asc';

/** The module that core imports; made by `npm run kernel`, checked by a test to be up to date. */
export const target = fileURLToPath(new URL('../core/src/linear/kernelBytes.ts', import.meta.url));

/** Compiles the kernel, plain and with fused multiply-add, and returns the text of the module with their bytes. */
export async function compileKernel(): Promise<string> {
  const plain = await compile([]);
  const fused = await compile(['--enable', 'relaxed-simd']);
  return [
    '// Made by packages/kernel/build.ts from packages/kernel/assembly: do not edit.',
    `export const plainKernel =\n  '${plain}';`,
    '',
    '/** Uses relaxed SIMD, which not every engine has. */',
    `export const fusedKernel =\n  '${fused}';`,
    '',
  ].join('\n');
}

/** The module's bytes in base64. */
async function compile(extra: readonly string[]): Promise<string> {
  const folder = mkdtempSync(join(tmpdir(), 'hem-kernel-'));
  const out = join(folder, 'kernel.wasm');
  const source = fileURLToPath(new URL('./assembly/index.ts', import.meta.url));
  const features = ['--enable', 'simd', '--enable', 'bulk-memory', ...extra];
  const memory = ['--runtime', 'stub', '--importMemory', '--maximumMemory', '65536'];
  const { error, stderr } = await asc.main([
    ...[source, '--outFile', out, '-O3', '--noAssert', '--use', 'abort='],
    ...features,
    ...memory,
  ]);
  if (error) throw new Error(stderr.toString());
  const bytes = readFileSync(out);
  rmSync(folder, { recursive: true });
  return bytes.toString('base64');
}

if (process.argv[1] === fileURLToPath(import.meta.url)) writeFileSync(target, await compileKernel());
