import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { bestTurn, transformUv } from '../surface/similarity.ts';
import { FIRST_TILE, isOutside } from '../surface/tiles.ts';
import { boxesMeet, type UvBox } from '../surface/uvBox.ts';
import { TIDY_GAP, tidyTile } from './tidyTile.ts';

const coordinate = fc.double({ min: -5, max: 5, noNaN: true });
const box = fc
  .tuple(
    coordinate,
    coordinate,
    fc.double({ min: 0.01, max: 3, noNaN: true }),
    fc.double({ min: 0.01, max: 3, noNaN: true }),
  )
  .map(([u, v, width, height]): UvBox => [u, v, u + width, v + height]);

const moved = (b: UvBox, [mu, mv]: readonly [number, number]): UvBox => [
  b[0] + mu,
  b[1] + mv,
  b[2] + mu,
  b[3] + mv,
];

describe('a tidy tile', () => {
  it('holds all boxes, alike in scale, a gap from one another and from its edge', () => {
    fc.assert(
      fc.property(fc.array(box, { minLength: 1, maxLength: 60 }), (boxes) => {
        const { scale, moves } = tidyTile(boxes);
        const lying = boxes.map((b, i) => moved(b.map((x) => scale * x) as unknown as UvBox, moves[i]));
        const half = 0.49 * TIDY_GAP;
        const grown = lying.map((b): UvBox => [b[0] - half, b[1] - half, b[2] + half, b[3] + half]);
        grown.forEach((one, i) => {
          expect(isOutside([FIRST_TILE], one)).toBe(false);
          for (const other of grown.slice(i + 1)) expect(boxesMeet(one, other)).toBe(false);
        });
      }),
    );
  });

  it('does not depend on the unit of the boxes, and is filled well by a few of them among many crumbs', () => {
    const crumbs = Array.from({ length: 1300 }, (): UvBox => [0, 0, 0.002, 0.002]);
    const boxes = [...[0.2, 0.25, 0.3, 0.35].map((w): UvBox => [0, 0, w, 0.15]), ...crumbs];
    const used = [1e-4, 1, 1e4].map((unit) => {
      const scaled = boxes.map((box) => box.map((x) => unit * x) as unknown as UvBox);
      const { scale } = tidyTile(scaled);
      return scaled.reduce((sum, [, , w, h]) => sum + w * h, 0) * scale * scale;
    });
    expect(used[1]).toBeGreaterThan(0.4);
    for (const part of used) expect(part).toBeCloseTo(used[1], 6);
  });

  it('is filled well by many boxes, and not at all by none', () => {
    const boxes = Array.from({ length: 200 }, (_, i): UvBox => [0, 0, 1 + (i % 7) / 3, 1 + (i % 5) / 2]);
    const { scale } = tidyTile(boxes);
    const area = boxes.reduce((sum, [, , w, h]) => sum + w * h, 0);
    expect(area * scale * scale).toBeGreaterThan(0.75);
    expect(tidyTile([]).moves).toEqual([]);
  });
});

describe('boxes', () => {
  it('calls boxes that only touch apart', () => {
    expect(boxesMeet([0, 0, 1, 1], [1, 0, 2, 1])).toBe(false);
    expect(boxesMeet([0, 0, 1, 1], [0.999, 0, 2, 1])).toBe(true);
  });
});

describe('similarity', () => {
  const points = fc
    .array(coordinate, { minLength: 6, maxLength: 30 })
    .map((list) => Float64Array.from(list.slice(0, list.length & ~1)));

  it('finds the turn and move that made one set from another', () => {
    fc.assert(
      fc.property(
        points,
        fc.double({ min: -3, max: 3, noNaN: true }),
        coordinate,
        coordinate,
        (from, angle, mu, mv) => {
          fc.pre(spread(from) > 1e-3);
          const [c, s] = [Math.cos(angle), Math.sin(angle)];
          const to = transformUv(from, [c, s, -s, c, mu, mv]);
          const back = transformUv(from, bestTurn(from, to, 1));
          back.forEach((x, i) => {
            expect(x).toBeCloseTo(to[i], 6);
          });
        },
      ),
    );
  });

  it('heeds only points that have a counterpart', () => {
    const from = Float64Array.from([0, 0, 1, 0, 0, 1, 9, 9]);
    const to = Float64Array.from([5, 5, 5, 6, 4, 5, NaN, NaN]);
    const [a, b, , , e, f] = bestTurn(from, to, 1);
    expect([a, b, e, f].map((x) => Math.round(x * 1e9) / 1e9)).toEqual([0, 1, 5, 5]);
  });

  it('scales as told, about the middle', () => {
    const square = Float64Array.from([0, 0, 1, 0, 1, 1, 0, 1]);
    expect([...transformUv(square, bestTurn(square, square, 2))]).toEqual([
      -0.5, -0.5, 1.5, -0.5, 1.5, 1.5, -0.5, 1.5,
    ]);
  });

  it('gives a mere move where there is nothing to turn by', () => {
    const point = Float64Array.from([1, 1]);
    expect([...bestTurn(point, Float64Array.from([3, 4]), 1)]).toEqual([1, 0, -0, 1, 2, 3]);
  });
});

function spread(points: Float64Array): number {
  let most = 0;
  for (let i = 2; i < points.length; i += 2)
    most = Math.max(most, Math.hypot(points[i] - points[0], points[i + 1] - points[1]));
  return most;
}
