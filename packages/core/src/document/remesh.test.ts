import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  type MeshEdit,
  withFlipped,
  withInserted,
  withJoined,
  withoutFaces,
  withoutLoosePoints,
  withSplitVertices,
  withTriangulated,
} from '../mesh/edit.ts';
import { faceCount, type Mesh, vertexCount } from '../mesh/mesh.ts';
import { modelFromMesh } from '../mesh/model.ts';
import { torus } from '../testing/shapes.ts';
import { applyArrayDelta, arrayDelta, reverseArrayDelta, reversed, runsOf } from './arrayDelta.ts';
import { applyDelta, byteSize, inverse, modelChange } from './delta.ts';
import { type HemDocument, openDocument } from './document.ts';
import { setStateOf } from './fields.ts';
import { remeshed } from './remesh.ts';

/** A torus with something in every field. */
function document(): HemDocument {
  const mesh = torus(8, 6);
  const faces = faceCount(mesh);
  const corners = mesh.cornerVertex.length;
  const model = {
    ...modelFromMesh('Torus', mesh),
    faceObject: Uint32Array.from({ length: faces }, (_, f) => f % 3),
    objects: ['a', 'b', 'c'],
    faceSmoothing: Int32Array.from({ length: faces }, (_, f) => (f % 4) - 1),
    uvSets: [
      { name: 'UV', uv: Float64Array.from({ length: 2 * corners }, (_, i) => (i % 7 ? i / 50 : NaN)) },
    ],
  };
  const opened = openDocument(model, { keepUvs: false });
  return {
    ...opened,
    uvSets: [
      { id: 0, name: 'UV', uv: Float64Array.from({ length: 2 * corners }, (_, i) => Math.sin(i)) },
      {
        id: 7,
        name: 'Light',
        uv: Float64Array.from({ length: 2 * corners }, (_, i) => Math.cos(i)),
        away: {
          ...setStateOf(opened),
          seams: opened.seams.map((_, e) => (e % 4 === 0 ? 1 : 0)),
          pins: opened.pins.map((_, c) => (c % 5 === 0 ? 1 : 0)),
          locked: opened.locked.map((_, f) => (f % 3 === 0 ? 1 : 0)),
        },
      },
    ],
    setsMade: 8,
    seams: opened.seams.map((_, e) => (e % 5 === 0 ? 1 : 0)),
    hidden: opened.hidden.map((_, f) => (f % 7 === 0 ? 1 : 0)),
    stale: opened.stale.map((_, f) => (f % 6 === 0 ? 1 : 0)),
    relaxed: opened.relaxed.map((_, f) => (f % 2 === 0 ? 1 : 0)),
  };
}

function there(start: HemDocument, edit: MeshEdit) {
  const change = remeshed(start, edit);
  const delta = { changes: [change], notes: [] };
  const after = applyDelta(start, delta);
  return { change, after, back: applyDelta(after, inverse(delta)), delta };
}

const EDITS: [string, (mesh: Mesh) => MeshEdit][] = [
  ['taking faces out', (mesh) => withoutFaces(mesh, [3, 4, 17, 40])],
  [
    'taking all but one out',
    (mesh) =>
      withoutFaces(
        mesh,
        Array.from({ length: faceCount(mesh) - 1 }, (_, f) => f),
      ),
  ],
  ['turning faces over', (mesh) => withFlipped(mesh, [0, 5, 6, 47])],
  ['splitting faces', (mesh) => withTriangulated(mesh, [1, 2, 30])],
  [
    'joining points',
    (mesh) =>
      withJoined(
        mesh,
        Uint32Array.from({ length: vertexCount(mesh) }, (_, v) => (v === 20 ? 21 : v)),
      ),
  ],
  ['putting points into sides', (mesh) => withInserted(mesh, new Map([[8, [{ vertex: 40, along: 0.3 }]]]))],
  [
    'parting corners',
    (mesh) =>
      withSplitVertices(
        mesh,
        Uint32Array.from(mesh.cornerVertex, (_, c) => c % 2),
      ),
  ],
];

describe('another mesh', () => {
  it.each(EDITS)('%s: goes, comes back bit by bit, and goes again', (_, edit) => {
    const start = document();
    const { after, back, delta, change } = there(start, edit(start.model.mesh));
    expect(after.model.mesh).toEqual(edit(start.model.mesh).mesh);
    expect(after.model.altered).toBe(true);
    expect(back).toEqual(start);
    expect('altered' in back.model).toBe(false);
    expect(applyDelta(back, delta)).toEqual(after);
    // Through a copy, as storage makes one.
    expect(applyDelta(start, structuredClone(delta))).toEqual(after);
    expect(change.kind).toBe('remesh');
  });

  it('keeps what each face and corner had, and marks turned faces stale', () => {
    const start = document();
    const { after } = there(start, withoutFaces(start.model.mesh, [0, 10]));
    const kept = Array.from({ length: 48 }, (_, f) => f).filter((f) => f !== 0 && f !== 10);
    expect([...after.hidden]).toEqual(kept.map((f) => start.hidden[f]));
    expect([...after.model.faceObject]).toEqual(kept.map((f) => start.model.faceObject[f]));
    const turned = there(start, withFlipped(start.model.mesh, [1])).after;
    expect(turned.stale[1]).toBe(1);
    expect(start.stale[1]).toBe(0);
  });

  it('takes far less room than the model, twice', () => {
    const mesh = torus(120, 80);
    const start = openDocument(modelFromMesh('Large', mesh));
    const { change } = there(start, withoutFaces(mesh, [5_000, 5_001, 9_000]));
    expect(byteSize(change)).toBeLessThan(0.02 * byteSize([start.model.mesh, start.uvSets]));
  });

  it('forgets loose points one by one', () => {
    const start = document();
    const { positions, ...rest } = start.model.mesh;
    const more = Float64Array.from([9, 9, 9, ...positions, 8, 8, 8]);
    const mesh = { ...rest, positions: more, cornerVertex: rest.cornerVertex.map((v) => v + 1) };
    const loose = { ...start, model: { ...start.model, mesh } };
    const { after, back } = there(loose, withoutLoosePoints(mesh));
    expect(vertexCount(after.model.mesh)).toBe(positions.length / 3);
    expect(back).toEqual(loose);
  });
});

describe('other names', () => {
  it('are kept as what differs, and taken back exactly', () => {
    const start = document();
    const faceObject = start.model.faceObject.map((o, f) => (f === 7 ? 0 : o));
    const change = modelChange(start.model, { objects: ['x', 'b', 'c'], faceObject, altered: true });
    expect(change.perFace.faceObject?.at).toEqual(Uint32Array.of(7));
    expect(Object.keys(change.after)).toEqual(['objects', 'altered']);
    const delta = { changes: [change], notes: [] };
    const after = applyDelta(start, delta);
    expect(after.model).toMatchObject({ objects: ['x', 'b', 'c'], altered: true });
    expect(after.model.mesh).toBe(start.model.mesh);
    expect(applyDelta(after, inverse(delta))).toEqual(start);
    // JSON knows no undefined: what had no value before has none after undo all the same.
    const read = JSON.parse(JSON.stringify({ ...change, perFace: {} }));
    const undone = applyDelta(after, inverse({ changes: [read], notes: [] }));
    expect('altered' in undone.model).toBe(false);
  });
});

describe('deltas', () => {
  it('lead from any array to any other and back, along any runs', () => {
    const lists = fc.tuple(
      fc.array(fc.double(), { maxLength: 30 }),
      fc.array(fc.tuple(fc.nat(40), fc.double()), { maxLength: 30 }),
    );
    fc.assert(
      fc.property(lists, ([old, next]) => {
        const before = Float64Array.from(old);
        const after = Float64Array.from(next, ([, value]) => value);
        const runs = runsOf(
          next.map(([source]) => source),
          before.length,
        );
        const delta = arrayDelta(before, after, runs, 1);
        expect(applyArrayDelta(before, delta, runs, 1)).toEqual(after);
        expect(applyArrayDelta(after, reverseArrayDelta(delta), reversed(runs), 1)).toEqual(before);
      }),
    );
  });

  it('keep rising runs together and count the rest as put in', () => {
    expect([...runsOf([0, 1, 2, 5, 6, 3, 9], 8).kept]).toEqual([0, 0, 3, 5, 3, 2]);
    expect([...runsOf([], 4).kept]).toEqual([]);
  });
});
