import { describe, expect, it } from 'vitest';
import { type HemDocument, openDocument, shellsOf, topologyOf } from '../../document/document.ts';
import { modelFromMesh } from '../../mesh/model.ts';
import { request } from '../../operations/catalogue.ts';
import { groundOf } from '../../questions/ground.ts';
import { after } from '../../testing/acts.ts';
import { sheet } from '../../testing/shapes.ts';
import { TARGETS, targetOf } from './index.ts';
import { pointAt } from './points.ts';

/** A sheet of 6 × 6 quads, cut from one side to the other along its middle row. */
async function halves(): Promise<HemDocument> {
  const document = openDocument(
    modelFromMesh(
      'Sheet',
      sheet(6, 6, (i, j) => [j, i, 0]),
    ),
  );
  const { edgeVertices } = topologyOf(document.model).connectivity;
  const edges = [...document.seams.keys()].filter((e) =>
    [edgeVertices[2 * e], edgeVertices[2 * e + 1]].every((v) => Math.floor(v / 7) === 3),
  );
  return after(document, request('cut', { edges }), request('unfold', {}));
}

const all = (length: number) => new Uint8Array(length).fill(1);
const sorted = (list: readonly number[]) => [...list].sort((a, b) => a - b);

describe.each([...TARGETS])('%s', (id) => {
  const target = targetOf(id);

  it('are all found in a box round everything, none in none, and none of what is hidden', async () => {
    const document = await halves();
    const ground = groundOf(document);
    const { mesh } = ground;
    const [vertices, corners] = [mesh.positions.length / 3, mesh.cornerVertex.length];
    // Two shells of 7 × 4 points; of edges those of the seam are one.
    const counts = { points: 56, edges: 84, faces: 36, shells: 2 };
    expect(new Set(target.onModel(ground, all(vertices))).size).toBe(counts[id]);
    expect(new Set(target.inFlat(ground, all(corners))).size).toBe(counts[id]);
    expect(target.onModel(ground, new Uint8Array(vertices))).toEqual([]);
    expect(target.inFlat(ground, new Uint8Array(corners))).toEqual([]);
    const gone = { ...ground, hidden: all(36) };
    expect(target.onModel(gone, all(vertices))).toEqual([]);
    expect(target.inFlat(gone, all(corners))).toEqual([]);
    for (const item of target.onModel(ground, all(vertices))) {
      expect(item).toBeLessThan(target.count(ground));
      expect(target.verticesOf(ground, item).length).toBeGreaterThan(0);
    }
  });

  it('grow to what is beside them, and shrink by as much where nothing ends there', async () => {
    const ground = groundOf(await halves());
    const everything = target.onModel(ground, all(ground.mesh.positions.length / 3));
    const [first] = everything;
    const grown = target.grow(ground, [first]);
    expect(grown).toContain(first);
    expect(grown.length).toBeGreaterThan(1);
    const more = target.grow(ground, grown);
    for (const item of grown) expect(more).toContain(item);
    for (const item of target.shrink(ground, more)) expect(more).toContain(item);
    expect(sorted(target.grow(ground, everything))).toEqual(sorted(everything));
  });

  it('lead to what is beside them and back again, by keys', async () => {
    const ground = groundOf(await halves());
    const part = ({ points: 'point', edges: 'edge', faces: 'face', shells: 'face' } as const)[id];
    const everything = target.onModel(ground, all(ground.mesh.positions.length / 3));
    const shellAt = (face: number) => ground.shells.faceShell[face];
    const itemOf = (spot: { point: number; edge: number; face: number }) =>
      id === 'shells' ? shellAt(spot.face) : spot[part];
    for (const item of everything.slice(0, 12)) {
      const beside = target.neighbours(ground, item).map(itemOf);
      expect(beside.length).toBeGreaterThan(0);
      expect(beside).not.toContain(item);
      for (const other of beside) expect(target.neighbours(ground, other).map(itemOf)).toContain(item);
    }
  });

  it('are covered by a brush as far as it reaches', async () => {
    const ground = groundOf(await halves());
    const faces = [0, 1, 6, 7];
    const some = target.underBrush(ground, faces, (v) => v === 0 || v === 1);
    const more = target.underBrush(ground, faces, () => true);
    expect(some.length).toBeGreaterThan(0);
    for (const item of some) expect(more).toContain(item);
  });
});

describe('points', () => {
  it('are one on each side of a seam, and keep their names where nothing is cut', async () => {
    const document = await halves();
    const { mesh, connectivity, shells } = groundOf(document);
    const onSeam = [...mesh.cornerVertex.keys()].filter((c) => mesh.cornerVertex[c] === 3 * 7 + 2);
    expect(new Set(onSeam.map((c) => pointAt(shells, c))).size).toBe(2);
    const before = shellsOf({ ...document, seams: new Uint8Array(document.seams.length) });
    const inside = [...mesh.cornerVertex.keys()].filter((c) => mesh.cornerVertex[c] === 7 + 2);
    expect(new Set(inside.map((c) => pointAt(shells, c)))).toEqual(new Set([pointAt(before, inside[0])]));
    // Grown across the seam they are not: it is the end of the shell.
    const point = pointAt(shells, onSeam[0]);
    const grown = targetOf('points').grow(groundOf(document), [point]);
    const shellOf = (c: number) => shells.faceShell[connectivity.cornerFace[c]];
    expect(new Set(grown.map(shellOf))).toEqual(new Set([shellOf(point)]));
    expect(grown).toHaveLength(4);
  });
});
