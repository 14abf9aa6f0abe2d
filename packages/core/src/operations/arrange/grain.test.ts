import { describe, expect, it } from 'vitest';
import {
  current,
  type HemDocument,
  openDocument,
  shellOf,
  shellsOf,
  shellUv,
  topologyOf,
} from '../../document/document.ts';
import { grainInFlat } from '../../document/grain.ts';
import { findEdge } from '../../mesh/connectivity.ts';
import { type Mesh, meshFromPolygons } from '../../mesh/mesh.ts';
import { modelFromMesh } from '../../mesh/model.ts';
import { after } from '../../testing/acts.ts';
import { sheet } from '../../testing/shapes.ts';
import { carryOut, request } from '../catalogue.ts';
import { localContext } from '../localContext.ts';

const opened = (mesh: Mesh): HemDocument => openDocument(modelFromMesh('Model', mesh));

/** A tube of triangles along a curve, cut lengthwise where it begins: its rings at `middle(t)`, t from 0 to 1, across two directions. */
function tube(rings: number, sectors: number, ring: (t: number, angle: number) => readonly number[]): Mesh {
  const points: (readonly number[])[] = [];
  for (let i = 0; i <= rings; i++)
    for (let j = 0; j < sectors; j++)
      points.push(ring(i / rings, (2 * Math.PI * (j + (i % 2) / 2)) / sectors));
  const faces: number[][] = [];
  for (let i = 0; i < rings; i++)
    for (let j = 0; j < sectors; j++) {
      const [a, b] = [i * sectors + j, i * sectors + ((j + 1) % sectors)];
      // Rings stand half a step apart: no row of edges leads along the tube.
      if (i % 2 === 0) faces.push([a, b, a + sectors], [b, b + sectors, a + sectors]);
      else faces.push([a, b, b + sectors], [a, b + sectors, a + sectors]);
    }
  return meshFromPolygons(points, faces);
}
const straightTube = (length: number, tilt: number) =>
  tube(24, 12, (t, angle) => {
    const [x, y, z] = [Math.cos(angle), length * t, Math.sin(angle)];
    return [x * Math.cos(tilt) - y * Math.sin(tilt), x * Math.sin(tilt) + y * Math.cos(tilt), z];
  });
const cutLengthwise = (mesh: Mesh, rings: number, sectors: number) => {
  const document = opened(mesh);
  const { connectivity } = topologyOf(document.model);
  const edges = Array.from({ length: rings }, (_, i) =>
    findEdge(connectivity, i * sectors, (i + 1) * sectors),
  );
  return after(document, request('cut', { edges }), request('unfold', {}));
};
/** Degrees by which the grain of the first shell is off from straight up on the texture, and from the longer side of its map. */
function offUp(document: HemDocument): number {
  const shell = shellOf(document, 0);
  const grain = grainInFlat(document, 0, shell, shellUv(document, shell) as Float64Array);
  if (!grain?.isLine) throw new Error('no grain line');
  return Math.abs(90 - (Math.atan2(grain.along[1], grain.along[0]) * 180) / Math.PI);
}
const sizeOf = (document: HemDocument) => {
  const uv = shellUv(document, shellOf(document, 0)) as Float64Array;
  const [u, v] = [0, 1].map((k) => [...uv].filter((_, i) => i % 2 === k));
  return [Math.max(...u) - Math.min(...u), Math.max(...v) - Math.min(...v)];
};

describe('grain along shells', () => {
  it.each([
    ['leaning', 1],
    ['lying', Math.PI / 2],
  ])('runs from end to end of a %s pipe without rows, which comes to lie upright', async (_, tilt) => {
    const start = await cutLengthwise(straightTube(12, tilt), 24, 12);
    const document = await after(start, request('grain-along-shells', { shells: 'all' }));
    expect(offUp(document)).toBeLessThan(1e-6);
    // Upright: a rectangle of length × circumference (job.md, common practice), so that its box tells how it is turned.
    const [width, height] = sizeOf(document);
    // The cut goes to and fro by half a face, which is as much wider.
    expect(height / width).toBeCloseTo(12 / (12.5 * 2 * Math.sin(Math.PI / 12)), 1);
  });

  it('follows a limb that is bent back on itself', async () => {
    const bent = tube(40, 10, (t, angle) => {
      const a = 1.5 * Math.PI * t;
      const r = 4 + 0.6 * Math.cos(angle);
      return [r * Math.cos(a), 0.6 * Math.sin(angle), r * Math.sin(a)];
    });
    const start = await cutLengthwise(bent, 40, 10);
    const document = await after(start, request('grain-along-shells', { shells: 'all' }));
    expect(offUp(document)).toBeLessThan(1e-6);
    const { connectivity } = topologyOf(document.model);
    const marked = [...document.grain.keys()].filter((e) => document.grain[e]);
    const rings = new Set(
      marked.flatMap((e) => [0, 1].map((k) => Math.floor(connectivity.edgeVertices[2 * e + k] / 10))),
    );
    // From end to end, but for what counts as the ends.
    expect(rings.size).toBeGreaterThan(33);
  });

  it('of planks runs along them: across grids without a turn, and replaces a line across', async () => {
    const plank = opened(sheet(3, 12, (i, j) => [j, 0, i]));
    const { connectivity } = topologyOf(plank.model);
    const across = [findEdge(connectivity, 6, 19)];
    const start = await after(
      plank,
      request('unfold', {}),
      request('set-grain', { edges: across, along: true }),
    );
    const [wide, high] = sizeOf(start);
    expect(wide).toBeGreaterThan(high);
    const document = await after(start, request('grain-along-shells', { shells: 'all' }));
    expect(document.grain[across[0]]).toBe(0);
    const [width, height] = sizeOf(document);
    expect(height / width).toBeCloseTo(4, 6);
    // One straight row of edges.
    const rows = [...document.grain.keys()]
      .filter((e) => document.grain[e])
      .map((e) => Math.floor(connectivity.edgeVertices[2 * e] / 13));
    expect(new Set(rows).size).toBe(1);
    expect(rows.length).toBeGreaterThanOrEqual(11);
  });

  it('is not guessed where a shell is as wide as long', async () => {
    const square = await after(opened(sheet(6, 6, (i, j) => [j, 0, i])), request('unfold', {}));
    await expect(carryOut(square, request('grain-along-shells', {}), localContext)).rejects.toThrow(
      '1 shell is about as wide as it is long: no grain was set there. Choose edges',
    );
  });

  it('is carried to copies with the UVs, and they come to lie alike', async () => {
    const one = sheet(2, 8, (i, j) => [j, 0.02 * j * j * i, i]);
    const { faceStart, cornerVertex, positions } = one;
    const points = Array.from({ length: positions.length / 3 }, (_, v) => [
      ...positions.subarray(3 * v, 3 * v + 3),
    ]);
    const faces = Array.from({ length: faceStart.length - 1 }, (_, f) => [
      ...cornerVertex.subarray(faceStart[f], faceStart[f + 1]),
    ]);
    const n = points.length;
    const both = opened(
      meshFromPolygons(
        [...points, ...points.map(([x, y, z]) => [z + 20, y, x])],
        // Swapping x and z mirrors it: faces go round the other way.
        [...faces, ...faces.map((face) => face.map((v) => v + n).reverse())],
      ),
    );
    const start = await after(both, request('unfold', {}), request('grain-along-shells', { shells: [0] }));
    const { connectivity } = topologyOf(start.model);
    const marked = [...start.grain.keys()].filter((e) => start.grain[e]);
    expect(marked.length).toBeGreaterThan(0);
    for (const act of [
      request('give-uvs', { like: 0, where: 'own' }),
      request('carry-to-copies', { face: 0 }),
    ]) {
      const document = await after(start, act);
      for (const e of marked) {
        const [a, b] = connectivity.edgeVertices.subarray(2 * e, 2 * e + 2);
        expect(document.grain[findEdge(connectivity, a + n, b + n)]).toBe(1);
      }
      expect(document.grain.reduce((sum, x) => sum + x, 0)).toBe(2 * marked.length);
    }
  });

  it('keeps its direction on copies whose points are numbered the other way', async () => {
    const { faceStart, cornerVertex, positions } = sheet(2, 8, (i, j) => [j, 0.02 * j * j * i, i]);
    const n = positions.length / 3;
    const points = Array.from({ length: n }, (_, v) => [...positions.subarray(3 * v, 3 * v + 3)]);
    const faces = Array.from({ length: faceStart.length - 1 }, (_, f) => [
      ...cornerVertex.subarray(faceStart[f], faceStart[f + 1]),
    ]);
    const image = (v: number): number => 2 * n - 1 - v;
    const both = opened(
      meshFromPolygons(
        [...points, ...points.map(([x, y, z]) => [x + 20, y, z]).reverse()],
        [...faces, ...faces.map((face) => face.map(image))],
      ),
    );
    const { connectivity } = topologyOf(both.model);
    // A row of the first, from its end to its beginning.
    const line = Array.from({ length: 9 }, (_, j) => 9 + 8 - j);
    const edges = line.slice(1).map((v, i) => findEdge(connectivity, line[i], v));
    const start = await after(
      both,
      request('unfold', {}),
      request('set-grain', { edges, from: line.slice(0, -1), along: true }),
    );
    expect(edges.map((e) => start.grain[e])).toEqual(edges.map(() => 3));
    for (const act of [
      request('give-uvs', { like: 0, where: 'own' }),
      request('carry-to-copies', { face: 0 }),
    ]) {
      const document = await after(start, act);
      const copied = line.slice(1).map((v, i) => findEdge(connectivity, image(line[i]), image(v)));
      expect(copied.map((e) => document.grain[e])).toEqual(edges.map(() => 2));
    }
  });

  it('turns shells as soon as they are laid out', async () => {
    const start = opened(sheet(3, 12, (i, j) => [j, 0, i]));
    const document = await after(
      start,
      request('grain-along-shells', { shells: 'all' }),
      request('unfold', {}),
    );
    const [width, height] = sizeOf(document);
    expect(height / width).toBeCloseTo(4, 6);
    expect(current(document).uv.some(Number.isNaN)).toBe(false);
    expect(shellsOf(document).shellCount).toBe(1);
  });
});
