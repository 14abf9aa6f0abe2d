import { describe, expect, it } from 'vitest';
import { outlineOf, visibleWires } from './modelEdges.ts';

/** Two quads side by side: edge 0 between them, 1 to 3 round the first, 4 to 6 round the second. */
const edgeFaces = Uint32Array.of(0, 1, 0, 0, 0, 0, 0, 0, 1, 1, 1, 1, 1, 1);
const edgePositions = Float32Array.from({ length: 42 }, (_, i) => Math.floor(i / 6));

describe('edges of the model', () => {
  it('outline chosen faces, and show all edges of what has no outline', () => {
    expect(outlineOf({ edgeFaces }, new Set())).toEqual([]);
    expect(outlineOf({ edgeFaces }, new Set([0]))).toEqual([0, 1, 2, 3]);
    expect(outlineOf({ edgeFaces }, new Set([0, 1]))).toEqual([1, 2, 3, 4, 5, 6]);
    // A closed piece: every edge between two of its faces.
    expect(outlineOf({ edgeFaces: Uint32Array.of(0, 1, 1, 0) }, new Set([0, 1]))).toEqual([0, 1]);
  });

  it('are drawn where a face at them is shown', () => {
    expect(visibleWires({ edgePositions, edgeFaces }, new Uint8Array(2))).toBe(edgePositions);
    const half = visibleWires({ edgePositions, edgeFaces }, Uint8Array.of(0, 1));
    expect([...new Set(half)]).toEqual([0, 1, 2, 3]);
    expect(visibleWires({ edgePositions, edgeFaces }, Uint8Array.of(1, 1))).toHaveLength(0);
  });
});
