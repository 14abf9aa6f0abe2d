import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { analyseReference } from '../../reference/referenceCholesky.ts';
import { StoppedError } from '../errors.ts';
import { type Analysis, analyse, WORDS } from './cholesky.ts';
import { gatherPattern, multiply, type Pattern } from './sparse.ts';

const graph = fc
  .integer({ min: 1, max: 30 })
  .chain((n) =>
    fc
      .array(fc.tuple(fc.nat(n - 1), fc.nat(n - 1)), { maxLength: 90 })
      .map((connectivity) => patternOf(n, connectivity)),
  );

function patternOf(n: number, connectivity: readonly (readonly [number, number])[]): Pattern {
  return gatherPattern(
    n,
    Uint32Array.from(connectivity, ([a]) => a),
    Uint32Array.from(connectivity, ([, b]) => b),
  ).pattern;
}

/** The structure of the factor by elimination on a dense matrix of booleans. */
function eliminated(pattern: Pattern, order: Uint32Array): boolean[][] {
  const n = pattern.size;
  const position = new Uint32Array(n);
  order.forEach((v, k) => {
    position[v] = k;
  });
  const filled = Array.from({ length: n }, () => new Array<boolean>(n).fill(false));
  for (let j = 0; j < n; j++) {
    for (let k = pattern.columnStart[j]; k < pattern.columnStart[j + 1]; k++) {
      const [a, b] = [position[j], position[pattern.row[k]]];
      filled[Math.max(a, b)][Math.min(a, b)] = true;
    }
  }
  for (let k = 0; k < n; k++) {
    for (let i = k + 1; i < n; i++) {
      if (!filled[i][k]) continue;
      for (let j = k + 1; j <= i; j++) if (filled[j][k]) filled[i][j] = true;
    }
  }
  return filled;
}

/** The supernodes of an analysis, in words of the pattern. */
const supernodes = ({ count, table, rows, block }: Analysis) =>
  Array.from({ length: count }, (_, s) => {
    const [, below, , firstRow, children, first, own] = table.subarray(WORDS * s, WORDS * (s + 1));
    const list = rows.subarray(firstRow, firstRow + below);
    return { first: first / block, end: (first + own) / block, children, rows: list.map((i) => i / block) };
  });

const fill = (pattern: Pattern, order: Uint32Array) =>
  analyseReference(pattern, order).factorStart[pattern.size];

const grid = (side: number) =>
  patternOf(
    side * side,
    Array.from({ length: side * side }, (_, i): [number, number][] => [
      [i, i % side === side - 1 ? i : i + 1],
      [i, i + side < side * side ? i + side : i],
    ]).flat(),
  );

describe('analysis', () => {
  it('holds every entry that elimination makes, in a tree of runs of columns', () => {
    const orderings = fc.constantFrom('minimum-degree' as const, 'nested-dissection' as const);
    fc.assert(
      fc.property(graph, orderings, fc.constantFrom(1 as const, 2 as const), (pattern, ordering, block) => {
        const analysis = analyse(pattern, { ordering, block });
        const { order } = analysis;
        expect([...order].sort((a, b) => a - b)).toEqual(Array.from({ length: pattern.size }, (_, i) => i));
        const filled = eliminated(pattern, order);
        // Update blocks wait in a stack: each supernode takes up the last ones, its children.
        const waiting: number[][] = [];
        for (const { first, end, children, rows } of supernodes(analysis)) {
          expect([...rows]).toEqual([...rows].sort((a, b) => a - b));
          const below = new Set(Array.from(rows, Math.floor));
          for (let j = first; j < end; j++) {
            for (let i = end; i < pattern.size; i++) if (filled[i][j]) expect(below).toContain(i);
          }
          for (const passed of waiting.splice(waiting.length - children)) {
            for (const i of passed) expect((i >= first && i < end) || below.has(i)).toBe(true);
          }
          waiting.push([...below]);
        }
        expect(waiting.flat()).toEqual([]);
      }),
    );
  });

  it('orders a grid with far less fill than its natural order, and a large one by dissection', () => {
    const small = grid(30);
    const natural = Uint32Array.from({ length: small.size }, (_, i) => i);
    expect(fill(small, analyse(small).order)).toBeLessThan(0.5 * fill(small, natural));
    const large = grid(150);
    const byDissection = fill(large, analyse(large, { ordering: 'nested-dissection' }).order);
    // George 1973: 31/4 n log₂ n entries at most, to leading order, for an n × n grid counted by its points.
    expect(byDissection).toBeLessThan((31 / 4) * large.size * Math.log2(Math.sqrt(large.size)));
  });

  it('takes a graph in many pieces, and one that cannot be split', () => {
    const pieces = patternOf(
      9000,
      Array.from({ length: 3000 }, (_, i) => [3 * i, 3 * i + 1] as const),
    );
    expect(new Set(analyse(pieces).order).size).toBe(9000);
    const star = patternOf(
      7000,
      Array.from({ length: 6999 }, (_, i) => [3, i < 3 ? i : i + 1] as const),
    );
    expect(new Set(analyse(star).order).size).toBe(7000);
    expect(fill(star, analyse(star).order)).toBe(7000 + 6999);
  });

  it('stops when told', () => {
    expect(() => analyse(grid(10), { signal: { aborted: true } })).toThrow(StoppedError);
    let asked = 0;
    const signal = {
      get aborted() {
        return ++asked > 3;
      },
    };
    expect(() => analyse(grid(120), { signal })).toThrow(StoppedError);
  });
});

describe('patterns', () => {
  it('gather repeats and mirrored entries into one place, rows ascending, the diagonal first', () => {
    fc.assert(
      fc.property(graph, ({ size, columnStart, row }) => {
        for (let j = 0; j < size; j++) {
          expect(row[columnStart[j]]).toBe(j);
          for (let k = columnStart[j] + 1; k < columnStart[j + 1]; k++)
            expect(row[k]).toBeGreaterThan(row[k - 1]);
        }
      }),
    );
    const { pattern, slot } = gatherPattern(3, Uint32Array.of(0, 2, 2), Uint32Array.of(2, 0, 2));
    expect([...pattern.row]).toEqual([0, 2, 1, 2]);
    expect([...slot]).toEqual([1, 1, 3]);
  });

  it('multiply as the full symmetric matrix does', () => {
    const { pattern } = gatherPattern(2, Uint32Array.of(1), Uint32Array.of(0));
    expect([...multiply(pattern, Float64Array.of(2, 3, 5), Float64Array.of(1, 10))]).toEqual([32, 53]);
  });
});
