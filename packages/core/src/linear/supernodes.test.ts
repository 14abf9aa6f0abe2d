import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { minimumDegree } from './minimumDegree.ts';
import { gatherPattern, multiply, type Pattern } from './sparse.ts';
import { doubled, supernodes } from './supernodes.ts';

const graph = fc
  .integer({ min: 1, max: 30 })
  .chain((n) =>
    fc.array(fc.tuple(fc.nat(n - 1), fc.nat(n - 1)), { maxLength: 90 }).map((links) => patternOf(n, links)),
  );

function patternOf(n: number, links: readonly (readonly [number, number])[]): Pattern {
  return gatherPattern(
    n,
    Uint32Array.from(links, ([a]) => a),
    Uint32Array.from(links, ([, b]) => b),
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

describe('supernodes', () => {
  it('hold every entry that elimination makes, in a tree of runs of columns', () => {
    fc.assert(
      fc.property(graph, (pattern) => {
        const { order, count, first, rowStart, rows, parent, size } = supernodes(
          pattern,
          minimumDegree(pattern),
        );
        expect([...order].sort((a, b) => a - b)).toEqual(Array.from({ length: size }, (_, i) => i));
        const filled = eliminated(pattern, order);
        for (let s = 0; s < count; s++) {
          const below = new Set(rows.subarray(rowStart[s], rowStart[s + 1]));
          for (let j = first[s]; j < first[s + 1]; j++) {
            for (let i = first[s + 1]; i < size; i++) if (filled[i][j]) expect(below).toContain(i);
          }
          if (parent[s] < 0) {
            expect(below.size).toBe(0);
            continue;
          }
          expect(parent[s]).toBeGreaterThan(s);
          // A parent's front holds all that its children pass on.
          const up = parent[s];
          const front = new Set(rows.subarray(rowStart[up], rowStart[up + 1]));
          for (const i of below) expect((i >= first[up] && i < first[up + 1]) || front.has(i)).toBe(true);
        }
      }),
    );
  });

  it('are twice as wide for blocks of two', () => {
    const nodes = supernodes(
      patternOf(4, [
        [0, 1],
        [1, 2],
        [2, 3],
      ]),
      Uint32Array.of(0, 1, 2, 3),
    );
    const blocks = doubled(nodes);
    expect(blocks.size).toBe(8);
    expect([...blocks.first]).toEqual([...nodes.first].map((x) => 2 * x));
    expect([...blocks.order]).toEqual([...nodes.order].flatMap((v) => [2 * v, 2 * v + 1]));
    expect(blocks.rows).toHaveLength(2 * nodes.rows.length);
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
