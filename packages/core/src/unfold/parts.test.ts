import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { distance } from '../mesh/distance.ts';
import { tutteEmbedding } from '../relax/tutte.ts';
import { borders } from '../surface/borders.ts';
import { restTriangles } from '../surface/restTriangles.ts';
import type { Shell } from '../surface/shell.ts';
import { sheet, sphericalCap, wholeShell } from '../testing/shapes.ts';
import { farthestPair } from './farthestPair.ts';
import { lscm, type Pins } from './lscm.ts';
import { turnUpright } from './upright.ts';

describe('rest triangles', () => {
  it('keep lengths and areas', () => {
    const cap = sphericalCap(5, 12, 1.3);
    const { local, area, totalArea } = restTriangles(cap.positions, cap.triangles);
    for (let t = 0; t < area.length; t++) {
      const [a, b, c] = cap.triangles.subarray(3 * t, 3 * t + 3);
      expect(local[3 * t]).toBeCloseTo(distance(cap.positions, a, b), 12);
      expect(Math.hypot(local[3 * t + 1], local[3 * t + 2])).toBeCloseTo(distance(cap.positions, a, c), 12);
    }
    expect(area.reduce((x, y) => x + y)).toBeCloseTo(totalArea, 12);
  });

  it('give every triangle some height, at any scale and however thin', () => {
    const coordinate = fc.constantFrom(0, 1, 1, 2, 1e-9);
    fc.assert(
      fc.property(
        fc.array(coordinate, { minLength: 9, maxLength: 9 }),
        fc.constantFrom(1e-8, 1, 1e8),
        (list, size) => {
          const { local, area } = restTriangles(
            Float64Array.from(list, (x) => x * size),
            Uint32Array.from([0, 1, 2]),
          );
          expect(area[0]).toBeGreaterThan(0);
          expect(local.every(Number.isFinite)).toBe(true);
        },
      ),
    );
  });
});

describe('farthest pair', () => {
  it('finds the ends of a long sheet', () => {
    const strip = wholeShell(sheet(1, 20, (i, j) => [j, i, 0]));
    const [loop] = borders(strip.triangles, 42).loops;
    expect(distance(strip.positions, ...farthestPair(strip.positions, loop))).toBeCloseTo(
      Math.hypot(20, 1),
      9,
    );
  });

  it('gives two different vertices, even where all lie in one place', () => {
    const point = new Float64Array(9);
    const [a, b] = farthestPair(point, Uint32Array.of(0, 1, 2));
    expect(a).not.toBe(b);
  });
});

describe('borders', () => {
  it('follow the triangles beside them, longest first', () => {
    const ring = wholeShell(sheet(3, 12, (i, j) => [j, i, 0]));
    const welded = ring.triangles.map((v) => (v % 13 === 12 ? v - 12 : v));
    const { loops, nonManifold } = borders(welded, 52);
    expect(loops.map(({ length }) => length)).toEqual([12, 12]);
    expect(nonManifold).toBe(false);
    const [flat] = borders(wholeShell(sheet(2, 3, (i, j) => [j, i, 0])).triangles, 12).loops;
    // Anticlockwise round a sheet seen from outside.
    expect([...flat].slice(0, 3)).toEqual([0, 1, 2]);
  });

  it('say when three triangles share an edge', () => {
    expect(borders(Uint32Array.from([0, 1, 2, 1, 0, 3, 0, 1, 4]), 5).nonManifold).toBe(true);
    expect(borders(Uint32Array.from([0, 1, 2, 0, 1, 3]), 4).nonManifold).toBe(true);
  });
});

describe('Tutte embedding', () => {
  it('puts the border on a circle of the right area, and every inner vertex amid its neighbours', () => {
    const cap = sphericalCap(6, 18, 2.2);
    const uv = tutteEmbedding(cap, Math.PI * 4);
    for (const v of borders(cap.triangles, uv.length / 2).loops[0]) {
      expect(Math.hypot(uv[2 * v], uv[2 * v + 1])).toBeCloseTo(2, 9);
    }
    const sum = [0, 0];
    for (let j = 1; j <= 18; j++) {
      sum[0] += uv[2 * j] / 18;
      sum[1] += uv[2 * j + 1] / 18;
    }
    expect(uv[0]).toBeCloseTo(sum[0], 9);
    expect(uv[1]).toBeCloseTo(sum[1], 9);
  });
});

const flatten = (shell: Shell, pins: Pins) =>
  lscm(shell, restTriangles(shell.positions, shell.triangles), pins);

describe('least-squares conformal map', () => {
  const bump = wholeShell(sheet(6, 6, (i, j) => [j, i, Math.sin(i) * Math.cos(j)]));
  const pins = { vertices: [0, 48], uv: [0, 0, 6, 6] };

  it('follows its pins through any similarity', () => {
    const plain = flatten(bump, pins);
    fc.assert(
      fc.property(
        fc.double({ min: -3, max: 3, noNaN: true }),
        fc.double({ min: 0.1, max: 10, noNaN: true }),
        (angle, scale) => {
          const [c, s] = [scale * Math.cos(angle), scale * Math.sin(angle)];
          const turned = flatten(bump, { vertices: pins.vertices, uv: [0, 0, 6 * (c - s), 6 * (c + s)] });
          for (let i = 0; i < plain.length; i += 2) {
            expect(turned[i]).toBeCloseTo(c * plain[i] - s * plain[i + 1], 6);
            expect(turned[i + 1]).toBeCloseTo(s * plain[i] + c * plain[i + 1], 6);
          }
        },
      ),
      { numRuns: 20 },
    );
  });

  it('is the same however the vertices are numbered', () => {
    const count = bump.positions.length / 3;
    const rename = (v: number) => (v * 5) % count;
    const positions = new Float64Array(3 * count);
    for (let v = 0; v < count; v++) positions.set(bump.positions.subarray(3 * v, 3 * v + 3), 3 * rename(v));
    const renamed = { ...bump, positions, triangles: bump.triangles.map(rename) };
    const [plain, other] = [
      flatten(bump, pins),
      flatten(renamed, { ...pins, vertices: pins.vertices.map(rename) }),
    ];
    for (let v = 0; v < count; v++) {
      expect(other[2 * rename(v)]).toBeCloseTo(plain[2 * v], 8);
      expect(other[2 * rename(v) + 1]).toBeCloseTo(plain[2 * v + 1], 8);
    }
  });

  it('returns the pins alone when every vertex is pinned', () => {
    const one = wholeShell(sheet(1, 1, (i, j) => [j, i, 0]));
    expect([...flatten(one, { vertices: [0, 1, 2, 3], uv: [0, 0, 2, 0, 0, 2, 2, 2] })]).toEqual([
      0, 0, 2, 0, 0, 2, 2, 2,
    ]);
  });
});

describe('upright', () => {
  it('turns up to up from any angle, and a floor to look away from the viewer', () => {
    const wall = wholeShell(sheet(2, 2, (i, j) => [j, i, 0]));
    const floor = wholeShell(sheet(2, 2, (i, j) => [j, 0, -i]));
    for (const [shell, axis, sign] of [
      [wall, 1, 1],
      [floor, 2, -1],
    ] as const) {
      for (let angle = 0.1; angle < 6; angle += 0.7) {
        const [c, s] = [Math.cos(angle), Math.sin(angle)];
        const flat = Float64Array.from({ length: 18 }, (_, i) => {
          const [j, k] = [(i >> 1) % 3, Math.floor((i >> 1) / 3)];
          return i & 1 ? s * j + c * k : c * j - s * k;
        });
        const uv = turnUpright(shell, flat);
        for (let v = 0; v < 9; v++) {
          expect(uv[2 * v + 1] - uv[1]).toBeCloseTo(
            sign * (shell.positions[3 * v + axis] - shell.positions[axis]),
            9,
          );
        }
      }
    }
  });
});
