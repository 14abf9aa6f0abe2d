import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { shellsOverlap } from '../measure/overlap.ts';
import { FIRST_TILE, frameOf } from '../surface/tiles.ts';
import { boxOf } from '../surface/uvBox.ts';
import { freePlaces, shrunkPlaces } from './freePlaces.ts';

/** A tile with a gap of `GAP`. */
const GAP = 0.004;
const TILE = { ...FIRST_TILE, width: 1000, height: 1000, padding: 4 };
/** Lower left corners of the boxes of shells. */
const cornersOf = (shells: readonly Float64Array[]) =>
  shells.map((shell) => [boxOf(shell)[0], boxOf(shell)[1]] as const);
const lowest = (occupied: Float64Array, shells: readonly Float64Array[], tiles = [TILE]) =>
  freePlaces(occupied, shells, tiles, cornersOf(shells), 'lowest');

/** Two triangles that make up a box. */
const box = (u: number, v: number, w: number, h: number): Float64Array =>
  Float64Array.of(u, v, u + w, v, u + w, v + h, u, v, u + w, v + h, u, v + h);

/** A shell moved to a place, scaled. */
function movedTo(flat: Float64Array, [u, v]: readonly [number, number], scale = 1): Float64Array {
  const [minU, minV] = boxOf(flat);
  return flat.map((x, i) => scale * (x - (i % 2 === 0 ? minU : minV)) + (i % 2 === 0 ? u : v));
}

describe('free places', () => {
  it('are found in the arms of another shape, where its box has none', () => {
    // An L along two sides of the tile; a box that fits into its angle and nowhere else.
    const l = Float64Array.of(...box(0, 0, 1, 0.3), ...box(0, 0, 0.3, 1));
    const [place] = lowest(l, [box(5, 5, 0.68, 0.68)]);
    expect(place?.[0]).toBeGreaterThan(0.3);
    expect(place?.[1]).toBeGreaterThan(0.3);
    expect(lowest(l, [box(0, 0, 0.72, 0.72)])).toEqual([undefined]);
    // And an L goes round a box in the corner.
    const [round] = lowest(box(0.5, 0.5, 0.5, 0.5), [movedTo(l, [0, 0], 0.95)]);
    expect(round).toBeDefined();
  });

  it('are the nearest to what is wanted, or else the lowest', () => {
    const shell = box(0, 0, 0.2, 0.2);
    const [low] = lowest(new Float64Array(0), [shell]);
    expect(Math.max(...(low ?? [1]))).toBeLessThan(0.01);
    const [near] = freePlaces(box(0.4, 0.4, 0.3, 0.3), [shell], [TILE], [[0.68, 0.45]], 'nearest');
    expect(near?.[0]).toBeGreaterThan(0.7);
    expect(near?.[0]).toBeLessThan(0.72);
    expect(near?.[1]).toBeCloseTo(0.45, 2);
    // One that reached out of the tile comes in by the shortest way.
    const [back] = freePlaces(new Float64Array(0), [shell], [TILE], [[0.95, 0.6]], 'nearest');
    expect(back?.[0]).toBeCloseTo(0.8 - GAP, 2);
    expect(back?.[1]).toBeCloseTo(0.6, 2);
  });

  it('are clear of all that lies there and of one another, and in the tile', () => {
    const side = fc.double({ min: 0.02, max: 0.4, noNaN: true });
    const at = fc.double({ min: 0, max: 0.6, noNaN: true });
    fc.assert(
      fc.property(
        fc.array(fc.tuple(at, at, side, side), { minLength: 1, maxLength: 4 }),
        fc.array(fc.tuple(side, side), { minLength: 1, maxLength: 6 }),
        (there, sizes) => {
          const occupied = Float64Array.from(there.flatMap(([u, v, w, h]) => [...box(u, v, w, h)]));
          const shells = sizes.map(([w, h]) => box(3, -2, w, h));
          const places = lowest(occupied, shells);
          const laid = shells.flatMap((shell, i) => {
            const place = places[i];
            return place ? [movedTo(shell, place)] : [];
          });
          for (const [i, shell] of laid.entries()) {
            expect(shellsOverlap(shell, occupied)).toBe(false);
            for (const other of laid.slice(0, i)) expect(shellsOverlap(shell, other)).toBe(false);
            expect(Math.min(...shell)).toBeGreaterThanOrEqual(0);
            expect(Math.max(...shell)).toBeLessThanOrEqual(1);
          }
        },
      ),
      { numRuns: 60 },
    );
  });

  it('are found in the tile that is nearest, and in another where it has no room', () => {
    const wide = { ...TILE, width: 2000 };
    const tiles = [1001, 1002, 1012].map((number) => ({ ...wide, number }));
    const shell = box(2.4, 0.3, 0.9, 0.9);
    const [here] = lowest(new Float64Array(0), [shell], tiles);
    expect(here?.[0]).toBeCloseTo(2 + GAP, 2);
    // The second tile is taken: of the others the one above is nearer.
    const taken = box(...([2, 0, 2, 1] as const));
    const [there] = freePlaces(taken, [shell], tiles, [[3, 0.6]], 'nearest');
    const [left, low, right, high] = frameOf(tiles[2]);
    expect(there?.[0]).toBeGreaterThan(left);
    expect(there?.[0]).toBeLessThan(right);
    expect(there?.[1]).toBeGreaterThan(low);
    expect((there?.[1] ?? 9) + 0.9).toBeLessThan(high);
    // A shell that is wider than a square tile goes in.
    expect(lowest(new Float64Array(0), [box(0, 0, 1.9, 0.5)], [wide])[0]).toBeDefined();
  });

  it('are found at a smaller scale, the same for all, where there is no room', () => {
    const half = box(0, 0, 0.5, 1);
    const shells = [box(0, 0, 0.6, 0.6), box(0, 0, 0.5, 0.4)];
    const found = shrunkPlaces(half, shells, [TILE]);
    expect(found?.scale).toBeLessThan(0.84);
    expect(found?.scale).toBeGreaterThan(0.7);
    const laid = shells.map((shell, i) => movedTo(shell, found?.places[i] as [number, number], found?.scale));
    expect(shellsOverlap(laid[0], laid[1])).toBe(false);
    for (const shell of laid) expect(shellsOverlap(shell, half)).toBe(false);
    expect(shrunkPlaces(box(0, 0, 1, 1), shells, [TILE])).toBeUndefined();
    expect(shrunkPlaces(new Float64Array(0), [box(0, 0, 0.5, 0.5)], [TILE])?.scale).toBe(1);
  });
});
