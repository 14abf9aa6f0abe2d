import polygonClipping from 'polygon-clipping';
import { describe, expect, it } from 'vitest';
import { packBetter } from '../src/pack/packBetter.ts';
import { packClusters } from '../src/pack/packClusters.ts';
import { packFirst } from '../src/pack/packFirst.ts';
import type { PackOptions, PackShell } from '../src/pack/packShell.ts';
import { type Placement, placedUv } from '../src/pack/placement.ts';
import { unattended } from '../src/progress.ts';

/**
 * Sides of the squares of the simple perfect squared square of lowest order, which tile a square of side 112: A. J. W. Duijvestijn, “Simple perfect squared
 * square of lowest order”, Journal of Combinatorial Theory B 25, 1978.
 */
const SQUARED = [50, 42, 37, 35, 33, 29, 27, 25, 24, 19, 18, 17, 16, 15, 11, 9, 8, 7, 6, 4, 2];

const QUARTERS = [0, Math.PI / 2, Math.PI, 1.5 * Math.PI];

/** A shell of one polygon without bays, anticlockwise. */
const convex = (...corners: readonly (readonly [number, number])[]): PackShell => ({
  triangles: Uint32Array.from(corners.slice(2).flatMap((_, i) => [0, i + 1, i + 2])),
  uv: Float64Array.from(corners.flat()),
  turning: QUARTERS,
});

const rectangle = (width: number, height: number): PackShell =>
  convex([0, 0], [width, 0], [width, height], [0, height]);

/** An L of squares of side 1: two of them fill a rectangle of 4 × 2. */
const ell: PackShell = {
  triangles: Uint32Array.of(0, 1, 2, 0, 2, 3, 0, 3, 5, 3, 4, 5),
  uv: Float64Array.of(0, 0, 3, 0, 3, 1, 1, 1, 1, 2, 0, 2),
  turning: QUARTERS,
};

/** Sets of shells that tile a square of a side exactly: at no larger scale than 1 ∕ side do they fit a tile, at that one they do. */
const TILINGS: readonly (readonly [
  name: string,
  side: number,
  least: number,
  shells: readonly PackShell[],
])[] = [
  ['strips', 5, 0.99, Array.from({ length: 5 }, () => rectangle(5, 1))],
  ['nine squares', 3, 0.99, Array.from({ length: 9 }, () => rectangle(1, 1))],
  ['bricks', 4, 0.99, Array.from({ length: 8 }, () => rectangle(2, 1))],
  ['a squared square', 112, 0.93, SQUARED.map((side) => rectangle(side, side))],
  ['halves of squares', 4, 0.99, Array.from({ length: 8 }, () => convex([0, 0], [2, 0], [0, 2]))],
  ['Ls', 4, 0.99, Array.from({ length: 4 }, () => ell)],
];

const options: PackOptions = { frame: [0, 0, 1, 1], gap: 0, texel: 1 / 8192 };

/** Area of the union of all triangles where they are laid, by a library that knows nothing of packing. */
function unionArea(shells: readonly PackShell[], placements: readonly Placement[]): number {
  const polygons = shells.flatMap(({ triangles, uv }, i) => {
    const laid = placedUv(uv, placements[i]);
    return Array.from(
      { length: triangles.length / 3 },
      (_, t): polygonClipping.Polygon => [
        [0, 1, 2].map((k) => {
          const v = triangles[3 * t + k];
          return [laid[2 * v], laid[2 * v + 1]];
        }),
      ],
    );
  });
  const [first, ...others] = polygons;
  return polygonClipping
    .union(first, ...others)
    .flat()
    .reduce((sum, ring) => sum + ringArea(ring), 0);
}

/** Shoelace formula; holes run the other way round. */
const ringArea = (ring: polygonClipping.Ring): number =>
  ring.slice(1).reduce((sum, [u, v], i) => sum + (ring[i][0] * v - u * ring[i][1]) / 2, 0);

const areaOf = (shells: readonly PackShell[], scale: number): number =>
  shells.reduce((sum, { triangles, uv }) => {
    for (let i = 0; i < triangles.length; i += 3) {
      const [a, b, c] = [0, 1, 2].map((k) => [uv[2 * triangles[i + k]], uv[2 * triangles[i + k] + 1]]);
      sum += Math.abs((b[0] - a[0]) * (c[1] - a[1]) - (c[0] - a[0]) * (b[1] - a[1])) / 2;
    }
    return sum;
  }, 0) *
  scale ** 2;

describe('shells that tile a square', () => {
  it.each(TILINGS)(
    '%s come near to filling it, never past it, and share no area',
    (_, side, least, shells) => {
      const start = packFirst(shells, options, unattended);
      if (!start) throw new Error('They do not fit.');
      const { placements } = packBetter(shells, start, { ...options, seed: 1, rounds: 300 }, unattended);
      for (const layout of [start, placements]) {
        const [{ scale }] = layout;
        expect(scale * side).toBeLessThan(1 + 1e-9);
        expect(unionArea(shells, layout)).toBeCloseTo(areaOf(shells, scale), 6);
      }
      expect(placements[0].scale * side).toBeGreaterThan(least);
    },
  );

  it('share none in clusters either', () => {
    const shells = SQUARED.map((side, i) => ({ ...rectangle(side, side), near: i % 3 }));
    const layout = packClusters(shells, options, unattended, packFirst) as Placement[];
    expect(unionArea(shells, layout)).toBeCloseTo(areaOf(shells, layout[0].scale), 6);
  });
});
