import { describe, expect, it } from 'vitest';
import { chainsOf, distancesAlong, meanLength } from './chains.ts';

// A square 0–1–2–3 with a tail 3–4, edges in no order.
const edgeVertices = Uint32Array.of(2, 3, 0, 1, 3, 4, 1, 2, 0, 3);

describe('chains of seams', () => {
  it('take every edge once and go on from end to end', () => {
    const { edges, breaks } = chainsOf({ edgeVertices }, [0, 1, 2, 3, 4]);
    expect([...edges].sort()).toEqual([0, 1, 2, 3, 4]);
    expect(breaks[0]).toBe(1);
    for (let i = 1; i < edges.length; i++) {
      const shared = [0, 1].some((a) =>
        [0, 1].some((b) => edgeVertices[2 * edges[i] + a] === edgeVertices[2 * edges[i - 1] + b]),
      );
      expect(shared || breaks[i] === 1).toBe(true);
    }
    // From the tail's end, on round the square: one chain and no more than one break for what is left.
    expect(breaks.reduce((a, b) => a + b, 0)).toBeLessThan(3);
    expect(chainsOf({ edgeVertices }, []).edges).toHaveLength(0);
  });

  it('measure on over short lines, turned round where that joins them', () => {
    const positions = Float32Array.of(1, 0, 0, 0, 0, 0, 3, 0, 0, 1, 0, 0, 3, 0, 0, 3, 4, 0, 9, 9, 0, 9, 8, 0);
    const distances = distancesAlong(positions, (line) => line === 3);
    expect([...distances]).toEqual([0, 1, 1, 3, 3, 7, 0, 1]);
    expect([...positions.subarray(0, 12)]).toEqual([0, 0, 0, 1, 0, 0, 1, 0, 0, 3, 0, 0]);
    expect(meanLength(positions)).toBe(2);
  });
});
