import { describe, expect, it } from 'vitest';
import { connectivityOf } from '../mesh/connectivity.ts';
import { type Mesh, meshFromPolygons } from '../mesh/mesh.ts';
import { unattended } from '../progress.ts';
import { rayCaster, rayTree } from './rays.ts';
import { spread } from './spread.ts';
import { edgeVisibility, type View, vertexVisibility } from './visibility.ts';

/** A ball about a place: rings × sectors, with poles along z. */
function ball(radius: number, [x, y, z]: readonly number[] = [0, 0, 0], rings = 16, sectors = 24): Mesh {
  const vertices: number[][] = [[x, y, z - radius]];
  for (let i = 1; i < rings; i++)
    for (let j = 0; j < sectors; j++) {
      const [a, b] = [(Math.PI * i) / rings, (2 * Math.PI * j) / sectors];
      vertices.push([
        x + radius * Math.sin(a) * Math.cos(b),
        y + radius * Math.sin(a) * Math.sin(b),
        z - radius * Math.cos(a),
      ]);
    }
  vertices.push([x, y, z + radius]);
  const last = vertices.length - 1;
  const id = (i: number, j: number) => 1 + (i - 1) * sectors + (j % sectors);
  const faces: number[][] = [];
  for (let j = 0; j < sectors; j++) {
    faces.push([0, id(1, j + 1), id(1, j)], [last, id(rings - 1, j), id(rings - 1, j + 1)]);
    for (let i = 1; i + 1 < rings; i++) faces.push([id(i, j), id(i, j + 1), id(i + 1, j + 1), id(i + 1, j)]);
  }
  return meshFromPolygons(vertices, faces);
}

function seen(mesh: Mesh, view: View, upAxis = 0, others: readonly Mesh[] = [], turns = 0): Float32Array {
  const points: number[] = [];
  for (const { positions, faceStart, cornerVertex } of [mesh, ...others])
    for (let f = 0; f + 1 < faceStart.length; f++)
      for (let c = faceStart[f] + 2; c < faceStart[f + 1]; c++)
        for (const k of [faceStart[f], c - 1, c])
          points.push(...positions.subarray(3 * cornerVertex[k], 3 * cornerVertex[k] + 3));
  const cast = rayCaster(rayTree(Float32Array.from(points)));
  return vertexVisibility(mesh, connectivityOf(mesh), cast, 2, view, { upAxis, front: turns }, unattended);
}

describe('how much is seen', () => {
  const round = ball(1);
  const front = round.positions.length / 3 - 1;

  it('of a ball from the front falls from 1 to 1 ∕ 17 behind', () => {
    // A direction at angle θ to the front is looked from ((1 + cos θ) / 2)² as often; over the half-sphere of a normal, weighed by slant,
    // that is 17 ∕ 48 in front and 1 ∕ 48 behind, times 2 π (worked out by hand).
    const visibility = seen(round, 'from the front');
    expect(visibility[front]).toBeGreaterThan(0.9);
    expect(visibility[0]).toBeGreaterThan(0.02);
    expect(visibility[0]).toBeLessThan(0.12);
    expect(Math.abs(visibility[0] / visibility[front] - 1 / 17)).toBeLessThan(0.03);
  });

  it('of a ball mostly from the front falls to 7 ∕ 11 behind', () => {
    // Directions count 3 ∕ 4 + cos θ ∕ 4: over the half-sphere of a normal 3 ∕ 8 ± 1 ∕ 12 (worked out by hand; from below less, on both sides).
    const visibility = seen(round, 'mostly from the front');
    expect(visibility[front]).toBeGreaterThan(0.85);
    expect(Math.abs(visibility[0] / visibility[front] - 7 / 11)).toBeLessThan(0.05);
  });

  it('all round is the same from every side but below, whichever axis points up', () => {
    for (const [upAxis, up, k] of [
      [0, 1, 1],
      [1, 2, 2],
    ] as const) {
      const visibility = seen(round, 'all round', upAxis);
      const at = (least: number, most: number) =>
        visibility.filter(
          (_, v) => round.positions[3 * v + k] >= least && round.positions[3 * v + k] <= most,
        );
      expect(up).toBe(k);
      expect(Math.min(...at(0.3, 1))).toBeGreaterThan(0.8);
      expect(Math.max(...at(-1, -0.98))).toBeLessThan(0.75);
    }
  });

  it('is nothing inside of something closed, and half at the foot of a wall', () => {
    expect(Math.max(...seen(ball(0.4), 'all round', 0, [ball(1)]))).toBe(0);
    const floor = ball(1, [0, 0, 0]);
    const wall = meshFromPolygons(
      [
        [1.02, -9, -9],
        [1.02, 9, -9],
        [1.02, 9, 9],
        [1.02, -9, 9],
      ],
      [[0, 1, 2, 3]],
    );
    const free = seen(floor, 'all round');
    const beside = seen(floor, 'all round', 0, [wall]);
    const east = [...free.keys()].reduce(
      (best, v) => (floor.positions[3 * v] > floor.positions[3 * best] ? v : best),
      0,
    );
    expect(beside[east]).toBeLessThan(0.35 * free[east]);
    const top = [...free.keys()].reduce(
      (best, v) => (floor.positions[3 * v + 1] > floor.positions[3 * best + 1] ? v : best),
      0,
    );
    expect(beside[top] / free[top]).toBeCloseTo(0.6, 0);
  });

  it('from the front is most where the front has been turned to', () => {
    const side = (k: number, sign: number) =>
      [...round.positions.keys()]
        .filter((i) => i % 3 === k && sign * round.positions[i] > 0.95)
        .map((i) => Math.floor(i / 3));
    // From +z to the left, about y: +x, −z, −x; and about z from −y: +x, +y, −x.
    const fronts = [
      [0, [2, 0, 2, 0], [1, 1, -1, -1]],
      [1, [1, 0, 1, 0], [-1, 1, 1, -1]],
    ] as const;
    for (const [upAxis, axes, signs] of fronts)
      for (let turns = 0; turns < 4; turns++) {
        const found = seen(round, 'from the front', upAxis, [], turns);
        const mean = (list: readonly number[]) => list.reduce((sum, v) => sum + found[v], 0) / list.length;
        expect(mean(side(axes[turns], signs[turns]))).toBeGreaterThan(0.8);
        expect(mean(side(axes[turns], -signs[turns]))).toBeLessThan(0.2);
      }
  });

  it('of an edge is the mean of its ends', () => {
    const connectivity = connectivityOf(round);
    const vertices = Float32Array.from({ length: front + 1 }, (_, v) => (v % 7) / 7);
    const edges = edgeVisibility(connectivity, vertices);
    expect(edges[5]).toBeCloseTo(
      (vertices[connectivity.edgeVertices[10]] + vertices[connectivity.edgeVertices[11]]) / 2,
      6,
    );
  });

  it('is carried on to where it is not known, and stops', () => {
    const connectivity = connectivityOf(round);
    const known = new Float32Array(front + 1).fill(-1);
    known[0] = 0.25;
    expect(spread(known, connectivity, 0).every((x) => x === 0.25)).toBe(true);
    expect(spread(new Float32Array(front + 1).fill(-1), connectivity, 0).every((x) => x === 1)).toBe(true);
    const stopped = { signal: { aborted: true }, report: () => undefined };
    const cast = rayCaster(rayTree(new Float32Array(9)));
    expect(() =>
      vertexVisibility(round, connectivity, cast, 2, 'all round', { upAxis: 0, front: 0 }, stopped),
    ).toThrow(/topped/);
  });
});
