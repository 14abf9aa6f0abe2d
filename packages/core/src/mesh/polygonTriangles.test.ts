import earcut, { deviation } from 'earcut';
import { describe, expect, it } from 'vitest';
import { polygonTriangles } from './polygonTriangles.ts';

const round = (n: number, radius: (k: number) => number, [x, y] = [0, 0], way = 1): number[] =>
  Array.from({ length: n }, (_, k) => {
    const a = (way * 2 * Math.PI * k) / n;
    return [x + radius(k) * Math.cos(a), y + radius(k) * Math.sin(a)];
  }).flat();

/** Twice the signed area (shoelace formula). */
const shoelace = (p: readonly number[]): number => {
  let sum = 0;
  for (let i = 0; i < p.length; i += 2) {
    const j = (i + 2) % p.length;
    sum += p[i] * p[j + 1] - p[j] * p[i + 1];
  }
  return sum;
};

const areas = (p: readonly number[], triangles: readonly number[]): number[] =>
  Array.from({ length: triangles.length / 3 }, (_, t) => {
    const [a, b, c] = [0, 1, 2].map((k) => 2 * triangles[3 * t + k]);
    return shoelace([p[a], p[a + 1], p[b], p[b + 1], p[c], p[c + 1]]);
  });

/** A plate with round holes, each reached by a bridge that is passed there and back. */
function plate(holes: number, sides: number): number[] {
  const outline: number[] = [];
  for (let h = 0; h < holes; h++) {
    const x = 3 * h;
    // The hole runs the other way round, from the bridge to the bridge.
    const hole = round(sides, () => 1, [x, 0], -1);
    const turn = hole.slice(2 * Math.floor(sides / 4)).concat(hole.slice(0, 2 * Math.floor(sides / 4)));
    outline.push(x, -2, turn[0], turn[1], ...turn.slice(2), turn[0], turn[1], x, -2);
  }
  return [-2, -2, ...outline, 3 * holes, -2, 3 * holes, 2, -2, 2];
}

const mirrored = (p: readonly number[]): number[] => p.map((x, i) => (i & 1 ? x : -x));

const CASES: [string, number[]][] = [
  ['a regular polygon', round(3000, () => 1)],
  ['a star', round(3001, (k) => 1 + (k % 2) * 0.4 + 0.1 * Math.sin(k))],
  ['a gear far from the origin', round(2000, (k) => 5 + (k % 4 > 1 ? 1 : 0), [1e5, -3e5])],
  ['a plate with thirty holes', plate(30, 24)],
  [
    'a square with points along its sides',
    [...Array(400)].flatMap((_, i) => {
      const t = (i % 100) / 100;
      return [
        [t, 0],
        [1, t],
        [1 - t, 1],
        [0, 1 - t],
      ][Math.floor(i / 100)];
    }),
  ],
];

describe('large polygons', () => {
  it.each(CASES)('%s is covered once, every corner with its own part, either way round', (_, ccw) => {
    for (const outline of [ccw, mirrored(ccw)]) {
      const size = outline.length / 2;
      const triangles = polygonTriangles(outline);
      expect(triangles).toHaveLength(3 * (size - 2));
      const list = areas(outline, triangles);
      expect(Math.min(...list)).toBeGreaterThan(-1e-9 * Math.abs(shoelace(outline)));
      expect(list.reduce((a, b) => a + b, 0) / Math.abs(shoelace(outline))).toBeCloseTo(1, 8);
      // By the library's own measure of how far a triangulation is from the polygon.
      expect(deviation(outline, null, 2, triangles)).toBeLessThan(1e-8);
      expect(new Set(triangles).size).toBe(size);
      // Each side of the outline belongs to one triangle, in its direction where the outline is anticlockwise.
      const sides = new Set<number>();
      for (let i = 0; i < triangles.length; i++)
        sides.add(triangles[i] * size + triangles[i % 3 === 2 ? i - 2 : i + 1]);
      const turned = shoelace(outline) < 0;
      for (let k = 0; k < size; k++) {
        const next = (k + 1) % size;
        expect(sides.has(turned ? next * size + k : k * size + next)).toBe(true);
      }
    }
  });

  it('are split as small ones are where both can be', () => {
    const outline = round(101, (k) => 1 + (k % 2) * 0.3);
    expect(areas(outline, polygonTriangles(outline)).length).toBe(areas(outline, earcut(outline)).length);
  });

  it('that go over themselves get a fan, and take no longer for it', () => {
    const again = Array.from(
      { length: 30_000 },
      (_, k) =>
        [
          [0, 0],
          [1, 0],
          [0, 1],
        ][k % 3],
    ).flat();
    expect(polygonTriangles(again)).toHaveLength(3 * 29_998);
    const crossing = round(4001, (k) => (k % 2 ? 1 : -1));
    expect(polygonTriangles(crossing)).toHaveLength(3 * 3999);
    const flat = Array.from({ length: 5000 }, (_, k) => [k, 0]).flat();
    expect(polygonTriangles(flat).slice(0, 6)).toEqual([0, 1, 2, 0, 2, 3]);
  });
});
