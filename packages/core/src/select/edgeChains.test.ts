import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { connectivityOf } from '../mesh/connectivity.ts';
import { sheet, torus } from '../testing/shapes.ts';
import { edgeChains } from './edgeChains.ts';

describe('chains of edges', () => {
  const connectivity = connectivityOf(sheet(5, 5, (i, j) => [j, i, 0]));

  it('take every marked edge once, and each but those at breaks goes on from the one before', () => {
    fc.assert(
      fc.property(fc.array(fc.nat({ max: 59 })), (list) => {
        const marked = new Set(list);
        const { edges, breaks } = edgeChains(connectivity, Uint32Array.from(marked));
        expect([...edges].sort((a, b) => a - b)).toEqual([...marked].sort((a, b) => a - b));
        const ends = (e: number) => [...connectivity.edgeVertices.subarray(2 * e, 2 * e + 2)];
        edges.forEach((e, i) => {
          if (breaks[i]) return;
          expect(ends(e).some((v) => ends(edges[i - 1]).includes(v))).toBe(true);
        });
      }),
    );
  });

  it('run a line from end to end and a ring once round without a break', () => {
    const where = ({ edgeVertices }: typeof connectivity, holds: (vertex: number) => boolean) =>
      Uint32Array.from({ length: edgeVertices.length / 2 }, (_, e) => e).filter((e) =>
        edgeVertices.slice(2 * e, 2 * e + 2).every(holds),
      );
    const line = where(connectivity, (v) => v < 6);
    // From its end, though told from its middle on.
    const told = Uint32Array.of(...line.slice(2), ...line.slice(0, 2));
    for (const edges of [line, told])
      expect(edgeChains(connectivity, edges).breaks).toEqual(Uint8Array.of(1, 0, 0, 0, 0));
    const ring = connectivityOf(torus(8, 6));
    const round = edgeChains(
      ring,
      where(ring, (v) => v % 6 === 0),
    );
    expect([...round.breaks]).toEqual([1, 0, 0, 0, 0, 0, 0, 0]);
  });
});
