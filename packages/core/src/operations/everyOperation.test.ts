import { describe, expect, it } from 'vitest';
import { applyDelta, inverse, isEmpty } from '../document/delta.ts';
import { type HemDocument, openDocument, shellOf, shellUv, topologyOf } from '../document/document.ts';
import { LIMIT_PRESETS } from '../document/limits.ts';
import { upgradedDelta } from '../document/upgrade.ts';
import { HemError } from '../errors.ts';
import { findEdge } from '../mesh/connectivity.ts';
import { type Mesh, meshFromPolygons } from '../mesh/mesh.ts';
import { modelFromMesh } from '../mesh/model.ts';
import { applyKept, validateDelta } from '../persistence/validateDelta.ts';
import { after } from '../testing/acts.ts';
import { handedOver } from '../testing/handedOver.ts';
import { cube, sheet, torus } from '../testing/shapes.ts';
import { squares } from '../testing/squares.ts';
import { carryOut, OPERATIONS, type OperationName, request } from './catalogue.ts';
import { localContext } from './localContext.ts';

/** A document on which an operation has an effect, and parameters of its own with which it has. */
interface Case {
  readonly on: () => Promise<HemDocument>;
  readonly with: (document: HemDocument) => object;
}

const opened = (mesh: Mesh): HemDocument => openDocument(modelFromMesh('Model', mesh));
const edgesOf = (document: HemDocument, pairs: readonly (readonly [number, number])[]): number[] =>
  pairs.map(([a, b]) => findEdge(topologyOf(document.model).connectivity, a, b));

/** Points and faces of a mesh, to be added to. */
const listsOf = ({ positions, faceStart, cornerVertex }: Mesh) => ({
  points: Array.from({ length: positions.length / 3 }, (_, v) => [...positions.subarray(3 * v, 3 * v + 3)]),
  faces: Array.from({ length: faceStart.length - 1 }, (_, f) => [
    ...cornerVertex.subarray(faceStart[f], faceStart[f + 1]),
  ]),
});

const LID = [
  [4, 5],
  [5, 6],
  [6, 7],
  [7, 4],
] as const;
const closedCube = async () => opened(cube());
/** A cube without its lid: two shells, one of which stretches. */
const lidOff = async () => after(opened(cube()), request('cut', { edges: edgesOf(opened(cube()), LID) }));
const flatCube = async () => after(await lidOff(), request('unfold', { shells: 'all' }));
/** A face of the lid, and one of the rest. */
const [ON_LID, BELOW] = [1, 0];

/** Two cubes apart from one another, the first cut open. */
async function twoCubes(): Promise<HemDocument> {
  const { points, faces } = listsOf(cube());
  const both = meshFromPolygons(
    [...points, ...points.map(([x, y, z]) => [x + 5, y, z])],
    [...faces, ...faces.map((face) => face.map((v) => v + 8))],
  );
  const document = opened(both);
  return after(document, request('cut', { edges: edgesOf(document, LID) }));
}

/** A cube with a point of no face. */
async function withLoosePoint(): Promise<HemDocument> {
  const { points, faces } = listsOf(cube());
  return opened(meshFromPolygons([...points, [9, 9, 9]], faces));
}

/** A hill of quads, flat as it was unfolded. */
const hill = () => opened(sheet(8, 8, (i, j) => [j, i, 3 * Math.exp(-((i - 4) ** 2 + (j - 4) ** 2) / 6)]));
const flatHill = async () => after(hill(), request('unfold', { shells: 'all' }));
const at = (i: number, j: number) => 9 * i + j;
/** Edges of the hill along a row. */
const row = (document: HemDocument, i: number, from: number, to: number): number[] =>
  edgesOf(
    document,
    Array.from({ length: to - from }, (_, k) => [at(i, from + k), at(i, from + k + 1)] as const),
  );
/** A hill with a seam that goes in stairs from border to border. */
async function stairs(): Promise<HemDocument> {
  const document = hill();
  const pairs = Array.from({ length: 8 }, (_, k) => [
    [at(k, k), at(k, k + 1)] as const,
    [at(k, k + 1), at(k + 1, k + 1)] as const,
  ]).flat();
  return after(document, request('cut', { edges: edgesOf(document, pairs) }));
}
const ringed = async () => {
  const document = opened(torus(16, 8));
  const { connectivity } = topologyOf(document.model);
  const ring = Array.from({ length: 8 }, (_, j) => findEdge(connectivity, j, (j + 1) % 8));
  return after(document, request('cut', { edges: ring }));
};
const seamsOf = ({ seams }: HemDocument): number[] => [...seams.keys()].filter((e) => seams[e] === 1);

/** As in a pool. */
const context = { ...localContext, jobs: handedOver };

const CASES: Readonly<Record<OperationName, Case>> = {
  repair: { on: withLoosePoint, with: () => ({ kind: 'loose-points' }) },
  'repair-safe': { on: withLoosePoint, with: () => ({}) },
  'delete-faces': { on: flatCube, with: () => ({ faces: [BELOW] }) },
  hide: { on: flatCube, with: () => ({ faces: [BELOW] }) },
  'name-parts': { on: closedCube, with: () => ({ by: 'object', parts: [0], name: 'Box' }) },
  'stand-up': { on: closedCube, with: () => ({ up: 'z', front: 2 }) },
  cut: { on: closedCube, with: (d) => ({ edges: edgesOf(d, LID) }) },
  sew: { on: flatCube, with: (d) => ({ edges: edgesOf(d, LID.slice(0, 2)) }) },
  'open-pieces': { on: closedCube, with: () => ({ least: true }) },
  'shift-seam': { on: ringed, with: (d) => ({ edges: seamsOf(d), rows: 1 }) },
  'straighten-seams': { on: stairs, with: (d) => ({ edges: seamsOf(d) }) },
  'carry-to-copies': { on: twoCubes, with: () => ({ face: 0 }) },
  'paint-patch': { on: closedCube, with: () => ({ faces: [BELOW, ON_LID], patch: 'new' }) },
  'patch-shells': { on: lidOff, with: () => ({ shells: [ON_LID, BELOW] }) },
  'weigh-patch': {
    on: async () => after(await lidOff(), request('paint-patch', { faces: [BELOW], patch: 'new' })),
    with: () => ({ patch: 1, times: 2 }),
  },
  'name-patch': {
    on: async () => after(await lidOff(), request('paint-patch', { faces: [BELOW], patch: 'new' })),
    with: () => ({ patch: 1, name: 'Front' }),
  },
  'remove-patch': {
    on: async () => after(await lidOff(), request('paint-patch', { faces: [BELOW], patch: 'new' })),
    with: () => ({ patch: 1 }),
  },
  unfold: { on: lidOff, with: () => ({ shells: 'all' }) },
  relax: { on: flatHill, with: () => ({ shells: 'all', steps: 3 }) },
  'set-pins': { on: flatHill, with: () => ({ places: [{ vertex: 0, face: 0 }], pinned: true }) },
  'move-pin': { on: flatHill, with: () => ({ vertex: 0, face: 0, uv: [0.4, 0.3] }) },
  'set-stays': { on: flatHill, with: (d) => ({ edges: row(d, 4, 2, 6), straight: true }) },
  'set-surface': { on: flatHill, with: () => ({ faces: [27, 28], surface: 'smoothed' }) },
  'take-trial': {
    on: flatHill,
    with: (d) => {
      const uv = [...(shellUv(d, shellOf(d, 0)) as Float64Array)].map((x, i) => x * (1 + 0.1 * (i % 3)));
      return { trial: 'One', shells: [{ face: 0, uv, method: 'conformal', relaxed: true }] };
    },
  },
  'straight-strip': {
    on: async () => after(opened(sheet(2, 12, (i, j) => [j, i, Math.sin(j / 2)])), request('unfold', {})),
    with: () => ({ shells: 'all' }),
  },
  project: { on: flatHill, with: (d) => ({ faces: [...d.stale.keys()], kind: 'box' }) },
  'unfold-folds': {
    on: async () =>
      after(
        await flatHill(),
        request('move-points', { places: [{ vertex: at(4, 4), face: 36 }], by: [0.3, 0] }),
      ),
    with: () => ({ shells: 'all' }),
  },
  brush: { on: flatHill, with: () => ({ face: 27, brush: 'push', dabs: [0.5, 0.5, 0.02, 0.01, 0.2, 1] }) },
  'transform-shells': { on: flatCube, with: () => ({ shells: [ON_LID], matrix: [0, 1, -1, 0, 0.5, 0] }) },
  'align-shells': { on: flatCube, with: () => ({ shells: [ON_LID, BELOW], to: 'left' }) },
  'spread-shells': { on: flatCube, with: () => ({ shells: [ON_LID, BELOW], along: 'u', gap: 20 }) },
  'match-shells': {
    on: async () =>
      after(await flatCube(), request('transform-shells', { shells: [ON_LID], matrix: [2, 0, 0, 2, 0, 0] })),
    with: () => ({ shells: [ON_LID], like: BELOW, what: 'scale' }),
  },
  'swap-shells': { on: flatCube, with: () => ({ shells: [ON_LID, BELOW] }) },
  'fit-shells': { on: flatCube, with: () => ({ shells: [ON_LID] }) },
  'gather-shells': {
    on: async () =>
      after(await flatCube(), request('transform-shells', { shells: [ON_LID], matrix: [1, 0, 0, 1, 3, 2] })),
    with: () => ({ shells: [ON_LID] }),
  },
  'level-edges': {
    on: async () =>
      after(
        await flatCube(),
        request('transform-shells', { shells: [ON_LID], matrix: [0.6, 0.8, -0.8, 0.6, 0.5, 0] }),
      ),
    with: (document) => ({ edges: edgesOf(document, [LID[0]]), to: 'level' }),
  },
  'move-points': {
    on: flatHill,
    with: () => ({ places: [{ vertex: at(3, 3), face: 27 }], by: [0.01, 0.02], radius: 0.2 }),
  },
  'transform-points': {
    on: flatHill,
    with: () => ({
      places: [0, 1].map((k) => ({ vertex: at(3, 3 + k), face: 27 + k })),
      matrix: [0, 1, -1, 0, 1, 0],
      radius: 0.1,
    }),
  },
  'align-points': {
    on: flatHill,
    with: () => ({
      places: [0, 1, 2].map((k) => ({ vertex: at(3, 2 + k), face: 8 * 3 + 2 + k })),
      to: 'least-v',
    }),
  },
  'straighten-row': { on: flatHill, with: (document) => ({ edges: row(document, 4, 1, 7) }) },
  'lay-border': { on: flatHill, with: () => ({ shells: 'all', shape: 'circle' }) },
  'square-grid': { on: flatHill, with: () => ({ faces: [0, 1, 2, 8, 9, 10] }) },
  'sew-over': { on: flatCube, with: (document) => ({ edges: edgesOf(document, [LID[0]]) }) },
  'weld-seams': { on: flatCube, with: () => ({ within: 4096 }) },
  'give-uvs': {
    on: async () => squares([0.1, 0.1, 0.2], [0.5, 0.5, 0.1]),
    with: () => ({ like: 0 }),
  },
  'set-apart': {
    on: async () => squares([0.1, 0.1, 0.2], [0.1, 0.1, 0.2]),
    with: () => ({ shells: 'all' }),
  },
  'join-halves': {
    on: async () =>
      after(
        hill(),
        request('cut', {
          edges: edgesOf(
            hill(),
            Array.from({ length: 8 }, (_, i) => [at(i, 4), at(i + 1, 4)] as const),
          ),
        }),
        request('unfold', {}),
      ),
    with: () => ({ shells: [0] }),
  },
  pack: { on: flatCube, with: () => ({ turning: 'none' }) },
  'keep-places': { on: flatCube, with: () => ({ keep: true }) },
  'move-clear': {
    on: async () =>
      after(
        await flatCube(),
        request('transform-shells', { shells: [ON_LID], matrix: [1, 0, 0, 1, -0.4, 0] }),
      ),
    with: () => ({ shells: [ON_LID] }),
  },
  'split-off': { on: flatHill, with: () => ({ faces: [0, 1, 8, 9] }) },
  'mirror-in-place': { on: flatHill, with: () => ({ shells: [0] }) },
  'even-density': {
    on: async () =>
      after(await flatCube(), request('transform-shells', { shells: [ON_LID], matrix: [2, 0, 0, 2, 0, 0] })),
    with: () => ({ shells: 'all' }),
  },
  'turn-upright': {
    on: async () => {
      const [c, n] = [Math.cos(0.5), Math.sin(0.5)];
      return after(
        await flatHill(),
        request('transform-shells', { shells: [0], matrix: [c, n, -n, c, 0, 0] }),
      );
    },
    with: () => ({ shells: [0] }),
  },
  'set-grain': { on: flatHill, with: (d) => ({ edges: row(d, 4, 2, 6), along: true }) },
  'grain-along-shells': {
    on: async () => after(opened(sheet(2, 12, (i, j) => [j, i, Math.sin(j / 2)])), request('unfold', {})),
    with: () => ({ shells: 'all' }),
  },
  'lock-shells': { on: flatCube, with: () => ({ shells: [ON_LID], locked: true }) },
  'group-shells': { on: flatCube, with: () => ({ shells: 'all', together: true }) },
  'set-limits': { on: flatCube, with: () => ({ limits: LIMIT_PRESETS.rough }) },
  'set-tiles': {
    on: flatCube,
    with: () => ({ tiles: [{ number: 1001, width: 1024, height: 512, padding: 4 }] }),
  },
  'add-uv-set': { on: flatCube, with: () => ({ name: 'Light', from: 'copy' }) },
  'rename-uv-set': { on: flatCube, with: () => ({ set: 0, name: 'Skin' }) },
  'remove-uv-set': {
    on: async () => after(await flatCube(), request('add-uv-set', { name: 'Light' })),
    with: () => ({ set: 1 }),
  },
  'use-uv-set': {
    on: async () => after(await flatCube(), request('add-uv-set', { name: 'Light' })),
    with: () => ({ set: 0 }),
  },
};

/** Without the file, which may be large, and what hangs on it alone. */
const seen = ({ model: { source: _, ...model }, ...rest }: HemDocument) => ({ ...rest, model });

describe.each(OPERATIONS.map(({ name }) => name))('%s', (name) => {
  const { on, with: paramsFor } = CASES[name];

  it('has an effect, which is undone exactly, done again exactly, and comes out alike from its JSON', async () => {
    const start = await on();
    const before = structuredClone(seen(start));
    const params = paramsFor(start);
    const { delta, label } = await carryOut(start, { operation: name, params }, context);
    expect(delta.changes.every(isEmpty)).toBe(false);
    expect(label).toMatch(/^[A-Z]/);
    const next = applyDelta(start, delta);
    expect(seen(next)).not.toEqual(before);
    expect(seen(start)).toEqual(before);
    const back = applyDelta(next, inverse(delta));
    expect(seen(back)).toEqual(before);
    expect(seen(applyDelta(back, delta))).toEqual(seen(next));
    // As it is read back from a project or the store, either way.
    const kept = validateDelta(upgradedDelta(delta));
    expect(seen(applyKept(start, kept))).toEqual(seen(next));
    expect(seen(applyKept(next, inverse(kept)))).toEqual(before);
    const again = JSON.parse(JSON.stringify({ operation: name, params }));
    const replayed = await carryOut(await on(), again, context);
    expect(seen(applyDelta(await on(), replayed.delta))).toEqual(seen(next));
  });

  it('that is stopped at once leaves the document as it was, and is done or told in a sentence', async () => {
    const start = await on();
    const before = structuredClone(seen(start));
    const stopped = { ...context, signal: { aborted: true } };
    const request = { operation: name, params: paramsFor(start) };
    const outcome = await carryOut(start, request, stopped).catch((error: Error) => error);
    if (outcome instanceof Error) {
      expect(outcome).toBeInstanceOf(HemError);
      expect(outcome.message).toMatch(/\.$/);
    } else expect(seen(applyDelta(applyDelta(start, outcome.delta), inverse(outcome.delta)))).toEqual(before);
    expect(seen(start)).toEqual(before);
  });
});
