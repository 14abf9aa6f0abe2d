import { readFileSync } from 'node:fs';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { compileKernel, target } from '../../../kernel/build.ts';
import { analyseReference, factoriseReference, solveReference } from '../../reference/referenceCholesky.ts';
import { StoppedError } from '../errors.ts';
import { analyse, factorise, NotPositiveDefiniteError, solve } from './cholesky.ts';
import { minimumDegree } from './minimumDegree.ts';
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
        for (const order of [minimumDegree(pattern), Uint32Array.from({ length: n }, (_, i) => i)]) {
          expect([...order].sort((x, y) => x - y)).toEqual(Array.from({ length: n }, (_, i) => i));
          const factor = factorise(analyse(pattern, order), values);
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

  it('orders a grid with far less fill than its natural order', () => {
    const side = 30;
    const links = Array.from({ length: side * side }, (_, i): [number, number][] => [
      [i, i % side === side - 1 ? i : i + 1],
      [i, i + side < side * side ? i + side : i],
    ]).flat();
    const { pattern } = system(side * side, links);
    const fill = (order: Uint32Array) => analyseReference(pattern, order).factorStart[side * side];
    const natural = fill(Uint32Array.from({ length: side * side }, (_, i) => i));
    expect(fill(minimumDegree(pattern))).toBeLessThan(0.5 * natural);
  });

  it('solves a grid of several hundred fronts as its plain twin does', () => {
    const side = 40;
    const links = Array.from({ length: side * side }, (_, i): [number, number][] => [
      [i, i % side === side - 1 ? i : i + 1],
      [i, i + side < side * side ? i + side : i],
      [i, (i * 7) % (side * side)],
    ]).flat();
    const { pattern, values } = system(side * side, links);
    const order = minimumDegree(pattern);
    const b = Float64Array.from({ length: side * side }, (_, i) => Math.cos(i));
    const x = solve(factorise(analyse(pattern, order), values), b);
    const twin = solveReference(factoriseReference(analyseReference(pattern, order), values), b);
    expect(Math.max(...x.map((value, i) => Math.abs(value - twin[i])))).toBeLessThan(1e-12);
  });

  it('ships the kernel that its source makes', async () => {
    expect(readFileSync(target, 'utf8')).toBe(await compileKernel());
  });

  it('refuses a matrix that is not positive definite, and stops when told', () => {
    const { pattern, values } = system(3, [
      [0, 1],
      [1, 2],
    ]);
    const analysis = analyse(pattern, minimumDegree(pattern));
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
