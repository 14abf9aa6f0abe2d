import { describe, expect, it } from 'vitest';
import { applyDelta, inverse } from '../document/delta.ts';
import { openDocument, topologyOf } from '../document/document.ts';
import { StoppedError } from '../errors.ts';
import { readModel } from '../formats/readModel.ts';
import { connectivityOf } from '../mesh/connectivity.ts';
import { type Mesh, meshFromPolygons } from '../mesh/mesh.ts';
import { type Model, modelFromMesh } from '../mesh/model.ts';
import { triangulate } from '../mesh/triangulate.ts';
import { carryOut } from '../operations/catalogue.ts';
import { localContext } from '../operations/localContext.ts';
import { unattended } from '../progress.ts';
import { cube, sheet, torus } from '../testing/shapes.ts';
import type { Finding } from './check.ts';
import { DEFAULT_OPTIONS } from './check.ts';
import { CHECKS, checkOf, examine } from './examine.ts';

const patient = (mesh: Mesh, more: Partial<Model> = {}) => ({
  model: { ...modelFromMesh('model', mesh), ...more },
  mesh,
  connectivity: connectivityOf(mesh),
  triangulation: triangulate(mesh),
});

const findingOf = (kind: string, mesh: Mesh, more?: Partial<Model>): Finding | undefined =>
  checkOf(kind)?.find(patient(mesh, more), DEFAULT_OPTIONS, unattended);

/** Points and faces of several meshes side by side, unjoined. */
function together(...meshes: Mesh[]): Mesh {
  const vertices: number[][] = [];
  const faces: number[][] = [];
  for (const { positions, faceStart, cornerVertex } of meshes) {
    const first = vertices.length;
    for (let i = 0; i < positions.length; i += 3) vertices.push([...positions.subarray(i, i + 3)]);
    for (let f = 0; f + 1 < faceStart.length; f++)
      faces.push(Array.from(cornerVertex.subarray(faceStart[f], faceStart[f + 1]), (v) => v + first));
  }
  return meshFromPolygons(vertices, faces);
}

const turned = (mesh: Mesh, ...faces: number[]): Mesh => {
  const cornerVertex = mesh.cornerVertex.slice();
  for (const f of faces) cornerVertex.subarray(mesh.faceStart[f], mesh.faceStart[f + 1]).reverse();
  return { ...mesh, cornerVertex };
};
const moved = (mesh: Mesh, x: number, scale = 1): Mesh => ({
  ...mesh,
  positions: mesh.positions.map((p, i) => scale * p + (i % 3 === 0 ? x : 0)),
});

const flat = sheet(3, 4, (i, j) => [j, i, 0]);
/** Two halves of a sheet that meet along a line, each with points of its own there. */
const halves = together(
  sheet(3, 2, (i, j) => [j, i, 0]),
  sheet(3, 2, (i, j) => [j + 2 + 1e-4, i, 0]),
);
const outline = [
  [0, 0, 0],
  [6, 0, 0],
  [6, 6, 0],
  [0, 6, 0],
];
const bridged = meshFromPolygons(
  [...outline, [2, 2, 0], [2, 4, 0], [4, 4, 0], [4, 2, 0]],
  [[0, 1, 2, 3, 0, 4, 5, 6, 7, 4]],
);
const concave = meshFromPolygons([...outline, [3, 2, 0]], [[0, 1, 2, 4, 3]]);
const warped = meshFromPolygons(
  [
    [0, 0, 0],
    [1, 0, 0.6],
    [1, 1, 0],
    [0, 1, 0.6],
  ],
  [[0, 1, 2, 3]],
);
const fin = meshFromPolygons(
  [
    [0, 0, 0],
    [0, 0, 1],
    [1, 0, 0],
    [-1, 1, 0],
    [-1, -1, 0],
  ],
  [
    [0, 1, 2],
    [1, 0, 3],
    [0, 1, 4],
  ],
);
const knot = meshFromPolygons(
  [
    [0, 0, 0],
    [1, 0, 0],
    [1, 1, 0],
    [-1, 0, 0],
    [-1, -1, 0],
  ],
  [
    [0, 1, 2],
    [0, 3, 4],
  ],
);
const doubled = meshFromPolygons(outline, [
  [0, 1, 2, 3],
  [1, 2, 3, 0],
]);
const stuttering = meshFromPolygons(outline, [
  [0, 1, 1, 2, 3],
  [0, 0, 1],
]);
const sliver = meshFromPolygons(
  [...outline, [3, 1e-6, 0]],
  [
    [0, 1, 2, 3],
    [0, 4, 1],
  ],
);
const loose: Mesh = { ...flat, positions: Float64Array.of(...flat.positions, 9, 9, 9) };
const step = together(
  sheet(1, 1, (i, j) => [2 * j, i, 0]),
  sheet(1, 2, (i, j) => [j, i - 1, 0]),
);
const boxInBox = together(moved(cube(), 0, 4), cube());
/** A cylinder open at both ends, no way to see but a little of its inside. */
const pipe = sheet(12, 24, (i, j) => [
  Math.cos((-2 * Math.PI * j) / 24),
  4 * i,
  Math.sin((-2 * Math.PI * j) / 24),
]);
/** A plate with a thin bow over it, from one small square to another. */
const tunnelled = ((): Mesh => {
  const plate = sheet(60, 60, (i, j) => [j, i, 0]);
  const corners = (f: number) => [...plate.cornerVertex.subarray(4 * f, 4 * f + 4)];
  const [from, to] = [30 * 60 + 18, 30 * 60 + 22];
  const [a, [t0, t1, t2, t3]] = [corners(from), corners(to)];
  const b = [t1, t0, t3, t2];
  const bow = [0, 1, 2, 3].map((k) => [a[k], a[(k + 1) % 4], b[(k + 1) % 4], b[k]]);
  const kept = Array.from({ length: 3600 }, (_, f) => f).filter((f) => f !== from && f !== to);
  const points = Array.from({ length: plate.positions.length / 3 }, (_, v) => [
    ...plate.positions.subarray(3 * v, 3 * v + 3),
  ]);
  return meshFromPolygons(points, [...kept.map(corners), ...bow]);
})();
const transform = (x: number, y: number, z: number) =>
  ({ objectTransforms: [Float64Array.of(x, 0, 0, 0, 0, y, 0, 0, 0, 0, z, 0, 0, 0, 0, 1)] }) as const;

describe('checks', () => {
  it.each<[kind: string, ill: Mesh, count: number, well: Mesh]>([
    ['cracks', halves, 4, flat],
    ['non-manifold-edges', fin, 1, flat],
    ['bow-ties', knot, 1, fin],
    ['duplicate-faces', doubled, 1, cube()],
    ['repeated-corners', stuttering, 2, bridged],
    ['thin-faces', sliver, 1, flat],
    ['loose-points', loose, 1, flat],
    ['bridged-polygons', bridged, 1, concave],
    ['concave-polygons', concave, 1, flat],
    ['warped-polygons', warped, 1, flat],
    ['many-corners', concave, 1, flat],
    ['mixed-winding', turned(flat, 5, 7), 2, flat],
    ['inside-out', turned(cube(), 0, 1, 2, 3, 4, 5), 6, cube()],
    ['facing-inward', turned(pipe, ...Array.from({ length: 288 }, (_, f) => f)), 288, pipe],
    ['coincident-faces', together(flat, flat), 12, flat],
    ['t-junctions', step, 1, flat],
    ['hidden-faces', boxInBox, 6, torus(12, 8)],
    ['crumbs', together(flat, moved(cube(), 9, 0.003)), 1, together(flat, moved(cube(), 9, 0.1))],
    ['small-tunnels', tunnelled, 1, torus(12, 8)],
    ['extreme-coordinates', moved(flat, 1e6), 1, flat],
  ])('%s: found where they are, and only there', (kind, ill, count, well) => {
    const finding = findingOf(kind, ill);
    expect(finding?.count).toBe(count);
    expect(
      Math.max(...[finding?.faces, finding?.edges, finding?.vertices].map((l) => l?.length ?? 0)),
    ).toBeGreaterThan(0);
    expect(findingOf(kind, well)).toBeUndefined();
  });

  it('mirrored and uneven transforms are told apart', () => {
    expect(findingOf('mirrored-transform', flat, transform(-1, 1, 1))?.count).toBe(12);
    expect(findingOf('mirrored-transform', flat, transform(-1, -1, 3))).toBeUndefined();
    expect(findingOf('uneven-scale', flat, transform(1, 1, 3))?.count).toBe(12);
    expect(findingOf('uneven-scale', flat, transform(-2, 2, 2))).toBeUndefined();
  });

  it('points without a place are found in every format, and the rest of the model opens', async () => {
    const obj = 'v 0 0 0\nv nan 0 0\nv 1 1 0\nv 0 1 -inf\nv 1 0 0\nf 1 2 3\nf 1 5 3\nf 1 3 4\n';
    const model = await readModel(new TextEncoder().encode(obj), 'x.obj');
    expect([...model.mesh.positions.subarray(3, 6)].every(Number.isFinite)).toBe(true);
    expect([...(findingOf('lost-points', model.mesh, model)?.faces ?? [])]).toEqual([0, 2]);
    const ply =
      'ply\nformat ascii 1.0\nelement vertex 3\nproperty float x\nproperty float y\nproperty float z\nelement face 1\nproperty list uchar int vertex_indices\nend_header\n0 0 0\nnan 0 0\n1 1 0\n3 0 1 2\n';
    const card = await readModel(new TextEncoder().encode(ply), 'x.ply');
    expect(findingOf('lost-points', card.mesh, card)?.count).toBe(1);
    const document = openDocument(model);
    const request = { operation: 'repair', params: { kind: 'lost-points' } };
    const after = applyDelta(document, (await carryOut(document, request, localContext)).delta);
    expect([...(after.model.faceLost ?? [])]).toEqual([0]);
  });

  it('a pipe rolled from a sheet has a crack where its ends meet', () => {
    expect(findingOf('cracks', pipe)?.count).toBe(13);
  });

  it('a sound model has nothing wrong with it', () => {
    for (const mesh of [cube(), flat, torus(16, 12)]) {
      expect(examine(patient(mesh), unattended).map(({ check }) => check.kind)).toEqual([]);
    }
  });

  it('open pieces seen from both sides are left as they are', () => {
    expect(findingOf('facing-inward', flat)).toBeUndefined();
    expect(
      findingOf('facing-inward', turned(flat, ...Array.from({ length: 12 }, (_, f) => f))),
    ).toBeUndefined();
  });

  it('a Möbius band has no winding to agree on, and is left as it is', () => {
    const n = 12;
    const vertices = Array.from({ length: 2 * n }, (_, i) => {
      const a = (2 * Math.PI * (i >> 1)) / n;
      const w = (i & 1) - 0.5;
      const r = 2 + w * Math.cos(a / 2);
      return [r * Math.cos(a), r * Math.sin(a), w * Math.sin(a / 2)];
    });
    const faces = Array.from({ length: n }, (_, k) => {
      const [a, b] = [2 * k, 2 * k + 1];
      return k + 1 < n ? [a, a + 2, b + 2, b] : [a, 1, 0, b];
    });
    expect(findingOf('mixed-winding', meshFromPolygons(vertices, faces))).toBeUndefined();
  });

  it('the tolerance of cracks is a part of the edges’ length', () => {
    const wide = (tolerance: number) =>
      checkOf('cracks')?.find(patient(halves), { tolerance }, unattended)?.count;
    expect(wide(1e-5)).toBeUndefined();
    expect(wide(1e-3)).toBe(4);
    const far = moved(halves, 3, 1e6);
    expect(checkOf('cracks')?.find(patient(far), { tolerance: 1e-3 }, unattended)?.count).toBe(4);
  });

  it('stops', () => {
    expect(() => examine(patient(boxInBox), { ...unattended, signal: { aborted: true } })).toThrow(
      StoppedError,
    );
  });
});

describe('repairs', () => {
  const ills: [kind: string, mesh: Mesh][] = [
    ['cracks', halves],
    ['non-manifold-edges', fin],
    ['bow-ties', knot],
    ['duplicate-faces', doubled],
    ['repeated-corners', stuttering],
    ['loose-points', loose],
    ['bridged-polygons', bridged],
    ['concave-polygons', concave],
    ['warped-polygons', warped],
    ['many-corners', concave],
    ['mixed-winding', turned(flat, 5, 7)],
    ['inside-out', turned(cube(), 0, 1, 2, 3, 4, 5)],
    ['facing-inward', turned(pipe, ...Array.from({ length: 288 }, (_, f) => f))],
    ['coincident-faces', together(flat, flat)],
    ['hidden-faces', boxInBox],
    ['crumbs', together(flat, moved(cube(), 9, 0.003))],
    ['t-junctions', step],
  ];

  it.each(ills)('%s: gone afterwards, and back after undo', async (kind, mesh) => {
    const document = openDocument(modelFromMesh('model', mesh));
    const { delta } = await carryOut(document, { operation: 'repair', params: { kind } }, localContext);
    const after = applyDelta(document, delta);
    const { connectivity, triangulation } = topologyOf(after.model);
    const again = { model: after.model, mesh: after.model.mesh, connectivity, triangulation };
    expect(checkOf(kind)?.find(again, DEFAULT_OPTIONS, unattended)).toBeUndefined();
    expect(after.seams.length).toBe(connectivity.isInterior.length);
    expect(applyDelta(after, inverse(delta))).toEqual(document);
  });

  it('of faces can be done in part, on those that were found', async () => {
    const document = openDocument(modelFromMesh('model', turned(flat, 5, 7)));
    const request = { operation: 'repair', params: { kind: 'mixed-winding', faces: [5] } };
    const { delta } = await carryOut(document, request, localContext);
    expect([...(findingOf('mixed-winding', applyDelta(document, delta).model.mesh)?.faces ?? [])]).toEqual([
      7,
    ]);
  });

  it('cover every check that offers one', () => {
    const tried = new Set([
      ...ills.map(([kind]) => kind),
      'lost-points',
      'mirrored-transform',
      'uneven-scale',
    ]);
    expect(CHECKS.filter(({ repair, kind }) => repair && !tried.has(kind))).toEqual([]);
  });

  it('of points in the middle of edges leave sides that can be joined, with UVs in between', async () => {
    const uv = Float64Array.from({ length: 2 * step.cornerVertex.length }, (_, i) => {
      const v = 3 * step.cornerVertex[i >> 1];
      return step.positions[v + (i & 1)] / 4;
    });
    let document = openDocument({ ...modelFromMesh('step', step), uvSets: [{ name: 'UV', uv }] });
    for (const kind of ['t-junctions', 'cracks']) {
      const { delta } = await carryOut(document, { operation: 'repair', params: { kind } }, localContext);
      const before = document;
      document = applyDelta(document, delta);
      expect(applyDelta(document, inverse(delta))).toEqual(before);
    }
    const { mesh } = document.model;
    expect([...mesh.faceStart]).toEqual([0, 5, 9, 13]);
    expect(topologyOf(document.model).connectivity.isInterior.filter((j) => j === 1)).toHaveLength(3);
    expect(document.seams.includes(1)).toBe(false);
    mesh.cornerVertex.forEach((v, c) => {
      expect(document.uvSets[0].uv[2 * c]).toBeCloseTo(mesh.positions[3 * v] / 4, 12);
    });
  });

  it('keep the area of a polygon with a hole', async () => {
    const document = openDocument(modelFromMesh('model', bridged));
    const params = { kind: 'bridged-polygons' };
    const { delta } = await carryOut(document, { operation: 'repair', params }, localContext);
    const { mesh } = applyDelta(document, delta).model;
    let area = 0;
    for (let c = 0; c < mesh.cornerVertex.length; c += 3) {
      const [a, b, d] = mesh.cornerVertex.subarray(c, c + 3);
      const p = mesh.positions;
      const twice =
        (p[3 * b] - p[3 * a]) * (p[3 * d + 1] - p[3 * a + 1]) -
        (p[3 * d] - p[3 * a]) * (p[3 * b + 1] - p[3 * a + 1]);
      expect(twice).toBeGreaterThan(0);
      area += twice / 2;
    }
    expect(area).toBeCloseTo(32, 9);
  });

  it('do all that is safe and nothing else, and say what', async () => {
    const ill = together(
      turned(halves, 1),
      moved(turned(cube(), 0, 1, 2, 3, 4, 5), 9),
      moved(warped, 20),
      moved(boxInBox, 40),
    );
    const document = openDocument(modelFromMesh('model', ill));
    const { delta } = await carryOut(document, { operation: 'repair-safe', params: {} }, localContext);
    expect(delta.notes).toEqual([
      'Join them: 4 open crack points.',
      'Turn them over: 1 face that faces the other way than its neighbours.',
      'Turn the pieces inside in: 6 faces of pieces that are inside out.',
    ]);
    const after = applyDelta(document, delta);
    const left = examine({ ...patient(after.model.mesh), model: after.model }, unattended);
    expect(left.map(({ check }) => check.kind).sort()).toEqual(['hidden-faces', 'warped-polygons']);
    expect(applyDelta(after, inverse(delta))).toEqual(document);
  });

  it('take names, UVs, seams and what is hidden along', async () => {
    const ill = together(flat, turned(flat, 3), moved(cube(), 30));
    const object = Uint32Array.from({ length: 30 }, (_, f) => (f < 12 ? 0 : f < 24 ? 1 : 2));
    const uv = Float64Array.from({ length: 2 * ill.cornerVertex.length }, (_, i) => {
      const v = 3 * ill.cornerVertex[i >> 1];
      return ill.positions[v + (i & 1)] / 40;
    });
    const model = {
      ...modelFromMesh('model', moved(ill, 0)),
      objects: ['a', 'b', 'c'],
      faceObject: object,
      uvSets: [{ name: 'UV', uv }],
    };
    let document = openDocument(model);
    const { connectivity } = topologyOf(model);
    const seam = connectivity.cornerEdge[model.mesh.faceStart[25]];
    for (const step of [
      { operation: 'cut', params: { edges: [seam] } },
      { operation: 'hide', params: { by: 'object', parts: [2] } },
      { operation: 'delete-faces', params: { faces: [0, 1, 13] } },
      { operation: 'repair-safe', params: {} },
    ]) {
      const { delta } = await carryOut(document, step, localContext);
      const back = document;
      document = applyDelta(document, delta);
      expect(applyDelta(document, inverse(delta))).toEqual(back);
    }
    expect(document.model.faceObject.length).toBe(27);
    expect([...document.hidden]).toEqual(Array.from({ length: 27 }, (_, f) => (f < 21 ? 0 : 1)));
    const now = topologyOf(document.model).connectivity;
    const ends = connectivity.edgeVertices.subarray(2 * seam, 2 * seam + 2);
    const places = [...ends].map((v) => [...model.mesh.positions.subarray(3 * v, 3 * v + 3)].join());
    const cut = Array.from(document.seams.keys()).filter((e) => document.seams[e]);
    expect(
      cut.map((e) =>
        [...now.edgeVertices.subarray(2 * e, 2 * e + 2)]
          .map((v) => [...document.model.mesh.positions.subarray(3 * v, 3 * v + 3)].join())
          .sort(),
      ),
    ).toContainEqual([...places].sort());
    document.model.mesh.cornerVertex.forEach((v, c) => {
      expect(document.uvSets[0].uv[2 * c]).toBe(document.model.mesh.positions[3 * v] / 40);
    });
  });

  it('leave alone what they cannot repair', async () => {
    const document = openDocument(modelFromMesh('model', flat));
    const refused = (operation: string, params: object) =>
      carryOut(document, { operation, params }, localContext);
    await expect(refused('repair', { kind: 'cracks' })).rejects.toThrow('There are no open crack points.');
    await expect(refused('repair', { kind: 'thin-faces' })).rejects.toThrow('repair:');
    await expect(refused('repair', { kind: 'cracks', faces: [0] })).rejects.toThrow('all together');
    await expect(refused('repair', { kind: 'mixed-winding', faces: [77] })).rejects.toThrow('no face 77');
    const all = Array.from({ length: 12 }, (_, f) => f);
    await expect(refused('delete-faces', { faces: all })).rejects.toThrow('Nothing would be left');
    await expect(refused('delete-faces', { faces: [99] })).rejects.toThrow('no face 99');
    expect((await refused('repair-safe', {})).delta.changes).toEqual([]);
  });
});
