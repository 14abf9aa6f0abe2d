import { spawnSync } from 'node:child_process';
import { readFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { compileKernel, target } from '../../../kernel/build.ts';
import { analyseReference, factoriseReference, solveReference } from '../../reference/referenceCholesky.ts';
import { StoppedError } from '../errors.ts';
import { analyse, factorise, NotPositiveDefiniteError, release, solve } from './cholesky.ts';
import { gatherPattern, multiply } from './sparse.ts';

/** A graph Laplacian plus the identity, on `links` between `size` rows. */
function system(size: number, links: readonly (readonly [number, number])[]) {
  const rows = Uint32Array.from(links, ([a]) => a);
  const columns = Uint32Array.from(links, ([, b]) => b);
  const { pattern, slot } = gatherPattern(size, rows, columns);
  const values = new Float64Array(pattern.row.length);
  for (let i = 0; i < size; i++) values[pattern.columnStart[i]] = 1;
  links.forEach(([a, b], i) => {
    if (a === b) return;
    values[slot[i]] -= 1;
    values[pattern.columnStart[a]] += 1;
    values[pattern.columnStart[b]] += 1;
  });
  return { pattern, values };
}

describe('sparse Cholesky', () => {
  it('solves random Laplacians to a small backward error under any order', () => {
    const graph = fc.integer({ min: 1, max: 40 }).chain((n) =>
      fc.record({
        n: fc.constant(n),
        links: fc.array(fc.tuple(fc.nat(n - 1), fc.nat(n - 1)), { maxLength: 150 }),
      }),
    );
    fc.assert(
      fc.property(graph, ({ n, links }) => {
        const { pattern, values } = system(n, links);
        const b = Float64Array.from({ length: n }, (_, i) => Math.sin(i + 1));
        for (const ordering of ['minimum-degree', 'nested-dissection'] as const) {
          const analysis = analyse(pattern, { ordering });
          const { order } = analysis;
          const factor = factorise(analysis, values);
          const x = solve(factor, b);
          const twin = solveReference(factoriseReference(analyseReference(pattern, order), values), b);
          x.forEach((value, i) => {
            expect(value).toBeCloseTo(twin[i], 10);
          });
          // Values twice as large, in the same memory: answers half as large.
          const again = factorise(
            factor.analysis,
            values.map((value) => 2 * value),
            undefined,
            factor,
          );
          solve(again, b).forEach((value, i) => {
            expect(value).toBeCloseTo(twin[i] / 2, 10);
          });
          multiply(pattern, values, x).forEach((y, i) => {
            expect(Math.abs(y - b[i])).toBeLessThan(1e-12 * 300);
          });
        }
      }),
    );
  });

  it('solves for two right-hand sides as for each alone', () => {
    const { pattern, values } = system(
      60,
      Array.from({ length: 150 }, (_, i) => [(i * 7) % 60, (i * 11 + 5) % 60] as const),
    );
    const factor = factorise(analyse(pattern), values);
    const b = Float64Array.from({ length: 120 }, (_, i) => Math.sin(i * i));
    const both = solve(factor, b);
    expect(both.subarray(0, 60)).toEqual(solve(factor, b.slice(0, 60)));
    expect(both.subarray(60)).toEqual(solve(factor, b.slice(60)));
  });

  it('may be released twice, and is not to be solved with afterwards', () => {
    const { pattern, values } = system(3, [[0, 1] as const]);
    const analysis = analyse(pattern);
    const factor = factorise(analysis, values);
    release(factor);
    release(factor);
    const [one, other] = [factorise(analysis, values), factorise(analysis, values)];
    expect(one.kernel).not.toBe(other.kernel);
    expect(() => solve(factor, new Float64Array(3))).toThrow('released');
  });

  it('solves a grid of several hundred fronts as its plain twin does', () => {
    const side = 40;
    const links = Array.from({ length: side * side }, (_, i): [number, number][] => [
      [i, i % side === side - 1 ? i : i + 1],
      [i, i + side < side * side ? i + side : i],
      [i, (i * 7) % (side * side)],
    ]).flat();
    const { pattern, values } = system(side * side, links);
    const analysis = analyse(pattern);
    const b = Float64Array.from({ length: side * side }, (_, i) => Math.cos(i));
    const x = solve(factorise(analysis, values), b);
    const twin = solveReference(factoriseReference(analyseReference(pattern, analysis.order), values), b);
    expect(Math.max(...x.map((value, i) => Math.abs(value - twin[i])))).toBeLessThan(1e-12);
  });

  it('solves alike with fused multiply-add, where the engine has it', () => {
    // Node 20 keeps relaxed SIMD behind a flag; browsers have it.
    const script = fileURLToPath(new URL('../../reference/fusedKernel.ts', import.meta.url));
    const flags = ['--experimental-wasm-relaxed-simd', '--import', 'tsx'];
    const out = spawnSync(process.execPath, [...flags, script], { encoding: 'utf8' });
    expect(out.stderr).toBe('');
    const { fused, error, complexError } = JSON.parse(out.stdout);
    expect(fused).toBe(true);
    expect(error).toBeLessThan(1e-12);
    expect(complexError).toBeLessThan(1e-12);
  });

  it('ships the kernel that its source makes', async () => {
    expect(readFileSync(target, 'utf8')).toBe(await compileKernel());
  });

  it('refuses a matrix that is not positive definite, and stops when told', () => {
    const { pattern, values } = system(3, [
      [0, 1],
      [1, 2],
    ]);
    const analysis = analyse(pattern);
    expect(() =>
      factorise(
        analysis,
        values.map((x) => -x),
      ),
    ).toThrow(NotPositiveDefiniteError);
    expect(() => factorise(analysis, values.fill(NaN))).toThrow(NotPositiveDefiniteError);
    expect(() => factorise(analysis, values, { aborted: true })).toThrow(StoppedError);
  });
});
