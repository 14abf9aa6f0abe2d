import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { overlappingTriangles } from '../measure/overlap.ts';
import { applyPlacement } from '../operations/arrange/placement.ts';
import { unattended } from '../progress.ts';
import { FIRST_TILE } from '../surface/tiles.ts';
import { boxOf } from '../surface/uvBox.ts';
import { packShells, TooMuchPaddingError } from './packShells.ts';

const TILE = { ...FIRST_TILE, width: 1024, height: 1024 };

const triangle = fc
  .array(fc.double({ min: 0, max: 5, noNaN: true }), { minLength: 6, maxLength: 6 })
  .map((values) => Float64Array.from(values))
  .filter((t) => Math.abs((t[2] - t[0]) * (t[5] - t[1]) - (t[3] - t[1]) * (t[4] - t[0])) > 0.05);

/** Least distance between two triangles that do not overlap. */
function distance(a: Float64Array, b: Float64Array): number {
  let least = Infinity;
  for (const [p, q] of [
    [a, b],
    [b, a],
  ]) {
    for (let i = 0; i < 6; i += 2) {
      for (let k = 0; k < 6; k += 2) {
        const [u0, v0, u1, v1] = [q[k], q[k + 1], q[(k + 2) % 6], q[(k + 3) % 6]];
        const [du, dv] = [u1 - u0, v1 - v0];
        const along = ((p[i] - u0) * du + (p[i + 1] - v0) * dv) / (du * du + dv * dv || 1);
        const t = Math.max(0, Math.min(1, along));
        least = Math.min(least, Math.hypot(p[i] - u0 - t * du, p[i + 1] - v0 - t * dv));
      }
    }
  }
  return least;
}

describe('packing', () => {
  it('overlaps nothing, stays in the tile and keeps the padding, for any shells', () => {
    fc.assert(
      fc.property(
        fc.array(triangle, { minLength: 1, maxLength: 8 }),
        fc.constantFrom(0, 4, 32),
        fc.constantFrom(1, 2, 0.5),
        (shells, padding, aspect) => {
          const placements = packShells(
            shells,
            { tile: { ...TILE, width: 1024 * aspect, padding }, turning: 'quarter' },
            unattended,
          );
          const result = shells.map((shell, i) => applyPlacement(shell, placements[i]));
          const gap = padding / 1024;
          for (const uv of result) {
            const [left, low, right, high] = boxOf(uv);
            expect(Math.min(left, low)).toBeGreaterThanOrEqual(gap - 1e-9);
            expect(right).toBeLessThanOrEqual(aspect - gap + 1e-9);
            expect(high).toBeLessThanOrEqual(1 - gap + 1e-9);
          }
          expect(overlappingTriangles(Float64Array.from(result.flatMap((uv) => [...uv]))).length).toBe(0);
          for (let i = 0; i < result.length; i++) {
            for (let j = 0; j < i; j++) expect(distance(result[i], result[j])).toBeGreaterThan(gap - 1e-9);
          }
        },
      ),
      { numRuns: 25 },
    );
  });

  it('keeps a shell with an all but upright side in the tile', () => {
    // So narrow that its slope is beyond every number.
    const shell = Float64Array.from([0, 0, 1e-310, 1, 1, 0.5]);
    const [placement] = packShells([shell], { tile: { ...TILE, padding: 0 }, turning: 'none' }, unattended);
    const uv = applyPlacement(shell, placement);
    expect(Math.min(...uv)).toBeGreaterThanOrEqual(-1e-9);
    expect(Math.max(...uv)).toBeLessThanOrEqual(1 + 1e-9);
  });

  it('fills the tile with four equal squares', () => {
    const square = Float64Array.from([0, 0, 1, 0, 1, 1, 0, 0, 1, 1, 0, 1]);
    const [{ scale }] = packShells(
      [square, square, square, square],
      { tile: { ...TILE, padding: 0 }, turning: 'none' },
      unattended,
    );
    expect(scale).toBeGreaterThan(0.49);
  });

  it('goes into the tile it is told, no larger than is allowed', () => {
    const square = Float64Array.from([0, 0, 1, 0, 1, 1, 0, 0, 1, 1, 0, 1]);
    const tile = { ...TILE, number: 1013, padding: 16 };
    for (const shells of [[square], [square, square]]) {
      const placements = packShells(shells, { tile, turning: 'none', most: 0.3 }, unattended);
      for (const placement of placements) {
        expect(placement.scale).toBeCloseTo(0.3, 9);
        const [left, low, right, high] = boxOf(applyPlacement(square, placement));
        expect(Math.min(left - 2, low - 1, 3 - right, 2 - high)).toBeGreaterThan(16 / 1024 - 1e-9);
      }
    }
  });

  it('turns a shell that is larger so', () => {
    const upright = Float64Array.from([0, 0, 1, 0, 1, 2, 0, 0, 1, 2, 0, 2]);
    const tile = { ...TILE, width: 2048, padding: 0 };
    const [placement] = packShells([upright], { tile, turning: 'quarter' }, unattended);
    expect(placement.scale).toBeCloseTo(1, 9);
    expect(boxOf(applyPlacement(upright, placement)).map((x) => Number(x.toFixed(9)))).toEqual([0, 0, 2, 1]);
    const [kept] = packShells([upright], { tile, turning: 'none' }, unattended);
    expect(kept.scale).toBeCloseTo(0.5, 9);
  });

  it('says when the padding alone fills the tile', () => {
    const many = Array.from({ length: 40 }, () => Float64Array.from([0, 0, 1, 0, 0, 1]));
    expect(() =>
      packShells(
        many,
        { tile: { ...TILE, width: 64, height: 64, padding: 32 }, turning: 'none' },
        unattended,
      ),
    ).toThrow(TooMuchPaddingError);
  });
});

describe('overlap', () => {
  it('finds a pair once, whatever cells it spans, and none that only touch', () => {
    const big = [0, 0, 4, 0, 0, 4];
    const inside = [1, 1, 1.5, 1, 1, 1.5];
    const neighbour = [4, 0, 4, 4, 0, 4];
    const uv = Float64Array.from([...big, ...inside, ...neighbour]);
    expect([...overlappingTriangles(uv)]).toEqual([0, 1]);
  });
});
