import { describe, expect, it } from 'vitest';
import { connectivityOf } from '../mesh/connectivity.ts';
import { faceCount, type Mesh, meshFromPolygons } from '../mesh/mesh.ts';
import { seamsFromUv } from '../surface/shells.ts';
import { cube, sheet } from '../testing/shapes.ts';
import { projectBox } from './box.ts';
import { projectCylindrical } from './cylindrical.ts';
import { bestFitFrame, frameAbout, frameFacing } from './frame.ts';
import { projectPlanar } from './planar.ts';
import { projectSpherical } from './spherical.ts';

const all = (mesh: Mesh) => Array.from({ length: faceCount(mesh) }, (_, f) => f);

/** Twice the signed area of a face in the flat. */
function flatArea({ faceStart }: Mesh, uv: Float64Array, f: number): number {
  let sum = 0;
  for (let c = faceStart[f]; c < faceStart[f + 1]; c++) {
    const d = c + 1 < faceStart[f + 1] ? c + 1 : faceStart[f];
    sum += uv[2 * c] * uv[2 * d + 1] - uv[2 * d] * uv[2 * c + 1];
  }
  return sum;
}

/** An open pipe about +y, radius 1, height 2; facet middles at multiples of the step from +z. */
const pipe = (sides: number): Mesh =>
  meshFromPolygons(
    Array.from({ length: 2 * sides }, (_, i) => {
      const a = (2 * Math.PI * ((i >> 1) + 0.5)) / sides;
      return [Math.sin(a), 2 * (i & 1) - 1, Math.cos(a)];
    }),
    Array.from({ length: sides }, (_, i) => {
      const [a, b] = [2 * i, 2 * ((i + 1) % sides)];
      return [a, b, b + 1, a + 1];
    }),
  );

const front = frameFacing([0, 0, 0], [0, 0, 1]);

describe('planar projection', () => {
  it('keeps what it faces, collapses side faces and mirrors the back (common practice)', () => {
    const mesh = cube();
    const uv = projectPlanar(mesh, all(mesh), front);
    const areas = all(mesh).map((f) => flatArea(mesh, uv, f) / 2);
    expect(areas.map((a) => Math.round(a * 1e9) / 1e9 + 0)).toEqual([-4, 4, 0, 0, 0, 0]);
  });

  it('leaves faces alone that it was not given', () => {
    const mesh = cube();
    const uv = projectPlanar(mesh, [1], front);
    expect(uv.filter(Number.isNaN)).toHaveLength(2 * 4 * 5);
  });

  it('fits a tilted sheet without stretch, upright', () => {
    const tilted = sheet(3, 4, (i, j) => [j, 0.8 * i, -0.6 * i]);
    const frame = bestFitFrame(tilted, all(tilted));
    const uv = projectPlanar(tilted, all(tilted), frame);
    for (const f of all(tilted)) expect(flatArea(tilted, uv, f) / 2).toBeCloseTo(1, 12);
    const [low, high] = [tilted.cornerVertex.indexOf(0), tilted.cornerVertex.indexOf(15)];
    expect(uv[2 * high + 1] - uv[2 * low + 1]).toBeCloseTo(3, 12);
    expect(uv[2 * high] - uv[2 * low]).toBeCloseTo(0, 12);
  });

  it('has a frame for every direction', () => {
    for (const toward of [
      [0, 1, 0],
      [0, -1, 0],
      [1, 0, 0],
      [3, 4, 5],
    ]) {
      const { right, up, toward: w } = frameFacing([0, 0, 0], toward);
      const dot = (a: readonly number[], b: readonly number[]) => a.reduce((s, x, k) => s + x * b[k], 0);
      for (const a of [right, up, w]) expect(dot(a, a)).toBeCloseTo(1, 12);
      expect(dot(right, up)).toBeCloseTo(0, 12);
      expect(right[0] * (up[1] * w[2] - up[2] * w[1])).not.toBeNaN();
      expect(dot(frameAbout([0, 0, 0], toward).up, w)).toBeCloseTo(1, 12);
    }
  });
});

describe('cylindrical projection', () => {
  it('unrolls a pipe into circumference × length, in one seam at the back (common practice)', () => {
    const mesh = pipe(24);
    const { uv, outside } = projectCylindrical(mesh, all(mesh), front);
    expect(outside).toEqual([]);
    const us = uv.filter((_, i) => !(i & 1));
    expect(Math.max(...us) - Math.min(...us)).toBeCloseTo(2 * Math.PI, 9);
    for (const f of all(mesh)) expect(flatArea(mesh, uv, f) / 2).toBeCloseTo((2 * Math.PI * 2) / 24, 9);
    const seams = seamsFromUv(connectivityOf(mesh), uv);
    expect(seams.reduce((a, b) => a + b, 0)).toBe(1);
  });

  it('does not smear faces that cross the wrap line across the tile', () => {
    const mesh = pipe(7); // the last facet lies across the back
    const { uv } = projectCylindrical(mesh, all(mesh), frameFacing([0, 0, 0], [0, 0, -1]));
    for (const f of all(mesh)) {
      const us = Array.from({ length: 4 }, (_, k) => uv[2 * (mesh.faceStart[f] + k)]);
      expect(Math.max(...us) - Math.min(...us)).toBeCloseTo((2 * Math.PI) / 7, 9);
    }
  });

  it('leaves half a pipe unmapped when it covers 180° (common practice)', () => {
    const mesh = pipe(24);
    const { outside, uv } = projectCylindrical(mesh, all(mesh), front, Math.PI);
    // Facets stand at multiples of 15°: those at ±90° lie on the edge of the sweep and are kept.
    expect(outside).toHaveLength(24 - 13);
    expect(uv.filter(Number.isNaN)).toHaveLength(2 * 4 * outside.length);
  });
});

describe('spherical projection', () => {
  it('has longitude and latitude at true scale (Snyder 1987, equidistant cylindrical)', () => {
    const ball = sheet(8, 16, (i, j) => {
      const [lat, lon] = [((i - 4) * Math.PI) / 9, ((j - 8) * Math.PI) / 8];
      return [2 * Math.cos(lat) * Math.sin(lon), 2 * Math.sin(lat), 2 * Math.cos(lat) * Math.cos(lon)];
    });
    const { uv } = projectSpherical(ball, all(ball), front);
    ball.cornerVertex.forEach((v, c) => {
      const [i, j] = [Math.floor(v / 17), v % 17];
      expect(uv[2 * c]).toBeCloseTo((2 * (j - 8) * Math.PI) / 8, 9);
      expect(uv[2 * c + 1]).toBeCloseTo((2 * (i - 4) * Math.PI) / 9, 9);
    });
  });

  it('gives a pole the longitude of each face there', () => {
    const tip = meshFromPolygons(
      [
        [0, 1, 0],
        [0.1, 0.9, 0.1],
        [0.2, 0.9, 0],
      ],
      [[0, 1, 2]],
    );
    const { uv } = projectSpherical(tip, [0], front);
    expect(uv[0]).toBeGreaterThan(Math.min(uv[2], uv[4]) - 1e-9);
    expect(uv[0]).toBeLessThan(Math.max(uv[2], uv[4]) + 1e-9);
  });
});

describe('box projection', () => {
  it('lays every side of a cube out whole and unmirrored', () => {
    const mesh = cube();
    const uv = projectBox(mesh, all(mesh), front);
    for (const f of all(mesh)) expect(flatArea(mesh, uv, f) / 2).toBeCloseTo(4, 12);
  });
});
