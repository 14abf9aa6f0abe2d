import { describe, expect, it } from 'vitest';
import { type HemDocument, openDocument, shellsOf, topologyOf } from '../document/document.ts';
import { emptyHistory } from '../document/history.ts';
import { LIMIT_PRESETS } from '../document/limits.ts';
import { localJobs } from '../jobs/index.ts';
import { meshFromPolygons } from '../mesh/mesh.ts';
import { modelFromMesh } from '../mesh/model.ts';
import { type OperationName, request } from '../operations/catalogue.ts';
import { unattended } from '../progress.ts';
import { answerQuestion } from '../questions/index.ts';
import { memoryPersistence } from '../session/persistence.ts';
import { openSession } from '../session/session.ts';
import { after } from '../testing/acts.ts';
import { dirtyScan } from '../testing/sculpts.ts';
import { sheet } from '../testing/shapes.ts';
import { isOffDensity } from './densities.ts';
import { INSPECTIONS } from './inspect.ts';
import type { Remedy } from './inspection.ts';
import { seamsThatShow } from './seamsThatShow.ts';

type Point = readonly [number, number];

/** Quads of 2 × 1 in the plane z = 0 each by itself, standing along y, with UVs of their four corners. */
function quads(...uvs: readonly (readonly Point[])[]): HemDocument {
  const points = uvs.flatMap((_, i) => [
    [3 * i, 0, 0],
    [3 * i + 1, 0, 0],
    [3 * i + 1, 2, 0],
    [3 * i, 2, 0],
  ]);
  const mesh = meshFromPolygons(
    points,
    uvs.map((_, i) => [4 * i, 4 * i + 1, 4 * i + 2, 4 * i + 3]),
  );
  const uv = Float64Array.from(uvs.flat(2));
  return openDocument({ ...modelFromMesh('Quads', mesh), uvSets: [{ name: 'UV', uv }] });
}

/** A quad at a place of the tile, upright, as wide as told. */
const quad = (u: number, v: number, width = 0.1): Point[] => [
  [u, v],
  [u + width, v],
  [u + width, v + 2 * width],
  [u, v + 2 * width],
];

/** A band of quads that goes round in the flat by so many turns, so that its end comes to lie on its beginning. */
function band(turns: number, count = 40): HemDocument {
  const at = (i: number, r: number): Point => {
    const angle = (2 * Math.PI * turns * i) / count;
    return [0.3 + r * Math.cos(angle), 0.3 + r * Math.sin(angle)];
  };
  const points: number[][] = [];
  for (let i = 0; i <= count; i++) points.push([0, i, 0], [1, i, 0]);
  const faces = Array.from({ length: count }, (_, i) => [2 * i, 2 * i + 1, 2 * i + 3, 2 * i + 2]);
  const uv = Float64Array.from(
    Array.from({ length: count }, (_, i) => [at(i, 0.1), at(i, 0.2), at(i + 1, 0.2), at(i + 1, 0.1)]).flat(2),
  );
  return openDocument({
    ...modelFromMesh('Band', meshFromPolygons(points, faces)),
    uvSets: [{ name: 'UV', uv }],
  });
}

/** A sheet of 4 × 4 quads that lies as it is, but for one vertex. */
function sheetWith(vertex: number, place: Point): HemDocument {
  const points: number[][] = [];
  for (let i = 0; i <= 4; i++) for (let j = 0; j <= 4; j++) points.push([j, i, 0]);
  const faces: number[][] = [];
  for (let i = 0; i < 4; i++)
    for (let j = 0; j < 4; j++) faces.push([5 * i + j, 5 * i + j + 1, 5 * i + j + 6, 5 * i + j + 5]);
  const mesh = meshFromPolygons(points, faces);
  const uv = Float64Array.from(
    [...mesh.cornerVertex].flatMap((v) =>
      v === vertex ? place : [0.1 + 0.1 * points[v][0], 0.1 + 0.1 * points[v][1]],
    ),
  );
  return openDocument({ ...modelFromMesh('Sheet', mesh), uvSets: [{ name: 'UV', uv }] });
}

/** A ball of quads from its top down, so many half turns, which lies flat only with stretch. */
const dome = (reach: number, rings = 12, sectors = 24): HemDocument => {
  const points = [[0, 0, 1]];
  for (let r = 1; r <= rings; r++)
    for (let s = 0; s < sectors; s++) {
      const [down, round] = [(reach * Math.PI * r) / rings, (2 * Math.PI * s) / sectors];
      points.push([Math.sin(down) * Math.cos(round), Math.sin(down) * Math.sin(round), Math.cos(down)]);
    }
  const at = (r: number, s: number) => (r === 0 ? 0 : 1 + (r - 1) * sectors + (s % sectors));
  const faces = Array.from({ length: rings * sectors }, (_, i) => {
    const [r, s] = [Math.floor(i / sectors), i % sectors];
    const ring = [at(r + 1, s), at(r + 1, s + 1)];
    return r === 0 ? [0, ...ring] : [at(r, s), ...ring, at(r, s + 1)];
  });
  return openDocument(modelFromMesh('Dome', meshFromPolygons(points, faces)));
};

const findingsOf = async (document: HemDocument) =>
  (await answerQuestion(document, 'inspection', {}, { ...unattended, jobs: localJobs })).findings;

/** A flat ring that goes on for a turn and a quarter, rising. */
const ramp = () =>
  openDocument(
    modelFromMesh(
      'Ramp',
      sheet(3, 40, (i, j) => {
        const a = (2.5 * Math.PI * j) / 40;
        return [(2 + i / 3) * Math.cos(a), 0.1 * a, -(2 + i / 3) * Math.sin(a)];
      }),
    ),
  );
const good = [quad(0.1, 0.1), quad(0.4, 0.1), quad(0.7, 0.1)];
/** Something wrong of each kind, and where. */
const CASES: Readonly<
  Record<
    string,
    {
      readonly document: () => HemDocument | Promise<HemDocument>;
      readonly count: number;
      readonly faces?: number[];
      readonly shells?: number[];
    }
  >
> = {
  'not-unfolded': {
    document: async () => {
      const flat = quads(...good, quad(0.4, 0.5));
      const uv = flat.uvSets[0].uv.map((x, i) => (i >= 24 ? NaN : x));
      return { ...flat, uvSets: [{ ...flat.uvSets[0], uv }] };
    },
    count: 1,
    shells: [3],
  },
  'out-of-date': {
    document: () => {
      const { connectivity } = topologyOf(sheetWith(0, [0.1, 0.1]).model);
      const middle = [...connectivity.isInterior.keys()].filter((e) => {
        const [a, b] = connectivity.edgeVertices.subarray(2 * e, 2 * e + 2);
        return a % 5 === 2 && b % 5 === 2;
      });
      // It was laid out by the app, and not by hand: what is unfolded finds places.
      return after({ ...sheetWith(0, [0.1, 0.1]), placed: 0 }, request('cut', { edges: middle }));
    },
    count: 2,
    shells: [0, 1],
  },
  flipped: { document: () => sheetWith(12, [0.1 + 0.1 * 3.4, 0.1 + 0.1 * 2]), count: 2, faces: [6, 10] },
  collapsed: {
    document: () =>
      quads(...good, [
        [0.1, 0.6],
        [0.3, 0.6],
        [0.3, 0.6],
        [0.1, 0.6],
      ]),
    count: 1,
    faces: [3],
  },
  folded: { document: () => sheetWith(12, [0.1 + 0.1 * 2.6, 0.1 + 0.1 * 2.6]), count: 1, faces: [10] },
  mirrored: {
    document: () =>
      quads(
        ...good,
        quad(0.4, 0.5).map(([u, v]): Point => [0.9 - u, v]),
      ),
    count: 1,
    shells: [3],
  },
  'overlap-within': { document: () => after(ramp(), request('unfold', {})), count: 0, shells: [0] },
  'overlap-between': { document: () => quads(...good, quad(0.15, 0.15)), count: 1, shells: [0, 3] },
  outside: { document: () => quads(...good, quad(0.95, 0.5)), count: 1, shells: [3] },
  near: { document: () => quads(...good, quad(0.201, 0.1)), count: 1, shells: [0, 3] },
  density: { document: () => quads(...good, quad(0.2, 0.5, 0.2)), count: 1, shells: [3] },
  'upside-down': {
    document: () =>
      quads(
        ...good,
        quad(0.5, 0.5).map(([u, v]): Point => [1.2 - u, 1.2 - v]),
      ),
    count: 1,
    shells: [3],
  },
  'too-small': { document: () => quads(...good, quad(0.2, 0.5, 0.0005)), count: 1, shells: [3] },
  stretched: { document: () => after(dome(0.65), request('unfold', {})), count: 1, shells: [0] },
  stacked: { document: () => quads(...good, quad(0.1, 0.1)), count: 1, shells: [0, 3] },
};

describe('findings in the flat', () => {
  it('are none where nothing is wrong', async () => {
    expect(await findingsOf(quads(...good))).toEqual([]);
    // It is bent in the flat and straight on the model, and so stretched.
    expect((await findingsOf(band(0.9))).map(({ kind }) => kind)).toEqual(['stretched']);
    const bare = openDocument(modelFromMesh('Bare', sheetWith(0, [0, 0]).model.mesh));
    const [missing, ...others] = await findingsOf(bare);
    expect(missing).toMatchObject({ kind: 'not-unfolded', count: 1, remedy: undefined });
    expect(others).toEqual([]);
  });

  it('tell shells that share a box and lie beside one another as near, not as stacked', async () => {
    const half: readonly Point[] = [
      [0.5, 0.5],
      [0.6, 0.5],
      [0.6, 0.6],
      [0.5501, 0.5499],
    ];
    const other = half.map(([u, v]): Point => [v, u]).toReversed();
    const kinds = (await findingsOf(quads(...good, half, other))).map(({ kind }) => kind);
    expect(kinds).toContain('near');
    for (const kind of ['stacked', 'overlap-between']) expect(kinds).not.toContain(kind);
  });

  it('have a case each', () => {
    expect(Object.keys(CASES).sort()).toEqual(INSPECTIONS.map(({ kind }) => kind).sort());
  });

  it.each(Object.entries(CASES))(
    'of kind %s are found where they are, and their remedy helps',
    async (kind, wanted) => {
      const document = await wanted.document();
      const finding = (await findingsOf(document)).find((each) => each.kind === kind);
      expect(finding).toBeDefined();
      if (!finding?.remedy || !('request' in finding.remedy)) throw new Error('no finding, or no remedy');
      if (wanted.count > 0) expect(finding.count).toBe(wanted.count);
      if (wanted.faces) expect([...finding.faces].sort((a, b) => a - b)).toEqual(wanted.faces);
      if (wanted.shells) expect([...finding.shells].sort((a, b) => a - b)).toEqual(wanted.shells);
      const helped = await findingsOf(await after(document, finding.remedy.request));
      expect(helped.filter((each) => each.kind === kind)).toEqual([]);
      // Nothing graver comes in its place.
      expect(helped.filter(({ severity }) => severity === 'spoils')).toEqual([]);
    },
  );

  it('split off no more of a shell than one side, and leave the rest where it was', async () => {
    // Relaxed before, and laid on itself by hand.
    const bent = band(1.25);
    const document = { ...bent, relaxed: bent.relaxed.map(() => 1) };
    const onItself = async (of: HemDocument) =>
      (await findingsOf(of)).filter(({ kind }) => kind === 'overlap-within');
    const [finding] = await onItself(document);
    const { faces } = (finding.remedy as Remedy).request.params as { faces: number[] };
    expect(faces.length).toBeLessThanOrEqual(12);
    const parted = await after(document, request('split-off', { faces }));
    expect(shellsOf(parted).shellCount).toBe(2);
    expect(await onItself(parted)).toEqual([]);
    const split = new Set(faces);
    for (let c = 0; c < document.model.mesh.cornerVertex.length; c++)
      if (!split.has(c >> 2)) expect(parted.uvSets[0].uv[2 * c]).toBe(document.uvSets[0].uv[2 * c]);
  });

  it('ask for a cut where relaxing has not helped', async () => {
    const relaxed = await after(dome(0.9), request('unfold', {}), request('relax', { steps: 200 }));
    const stretched = (await findingsOf(relaxed)).find(({ kind }) => kind === 'stretched');
    expect(stretched?.remedy).toEqual({ label: 'Look for a cut', cutsOf: 0 });
  });

  it('have what is small by itself sewn to the neighbour with the longest common border', async () => {
    // A plate with a crumb in its corner: the border with the narrow column above it is shorter than that with the rest.
    const [x, y] = [
      [0, 0.1, 50, 100],
      [0, 0.15, 50, 100],
    ];
    const plate = openDocument(
      modelFromMesh(
        'Plate',
        sheet(3, 3, (i, j) => [x[j], y[i], 0]),
      ),
    );
    const { edgeVertices } = topologyOf(plate.model).connectivity;
    const edges = [...plate.seams.keys()].filter((e) => {
      const [a, b] = [edgeVertices[2 * e], edgeVertices[2 * e + 1]];
      const isUp = a % 4 === 1 && b % 4 === 1;
      return isUp || (a >> 2 === 1 && b >> 2 === 1 && Math.min(a % 4, b % 4) === 0);
    });
    const document = await after(plate, request('cut', { edges }), request('unfold', {}));
    expect(shellsOf(document).shellCount).toBe(3);
    const small = (await findingsOf(document)).find(({ kind }) => kind === 'too-small');
    if (!small?.remedy) throw new Error('no finding, or no remedy');
    const { request: sewing } = small.remedy as Remedy;
    expect(small.count).toBe(1);
    expect(sewing.operation).toBe('sew');
    const sewn = await after(document, sewing, request('unfold', {}));
    expect(shellsOf(sewn).shellCount).toBe(2);
    const [sewnEdge, ...more] = (sewing.params as { edges: number[] }).edges;
    expect(more).toEqual([]);
    expect([...edgeVertices.subarray(2 * sewnEdge, 2 * sewnEdge + 2)].sort()).toEqual([1, 5]);
    expect((await findingsOf(sewn)).map(({ kind }) => kind)).not.toContain('too-small');
  });

  it.each(['plane', 'cylinder', 'sphere', 'box'])(
    'are made fewer by every remedy on a dirty scan under a projection (%s)',
    async (kind) => {
      const scan = openDocument(modelFromMesh('Scan', dirtyScan(12)));
      const faces = [...scan.stale.keys()];
      const laid = await after(scan, { operation: 'project', params: { faces, kind, each: 'shells' } });
      for (const finding of await findingsOf(laid)) {
        if (!finding.remedy || !('request' in finding.remedy)) continue;
        const { operation, params } = finding.remedy.request;
        const session = openSession({
          document: laid,
          history: emptyHistory,
          persistence: memoryPersistence(),
          jobs: localJobs,
        });
        await session.perform(operation as OperationName, params as never);
        const left = (await findingsOf(session.document)).find((each) => each.kind === finding.kind);
        expect(left?.count ?? 0, finding.kind).toBeLessThan(finding.count);
      }
    },
  );

  it('are told of no scale where there is no surface, or none in the flat', () => {
    const known = {
      area: Float64Array.of(5, 1, 0, 1),
      density: Float64Array.of(0.1, 0.2, Infinity, 0),
    };
    const isOff = isOffDensity(known, LIMIT_PRESETS.usual);
    expect([0, 1, 2, 3].map(isOffDensity(known, { ...LIMIT_PRESETS.usual, density: 3 }))).not.toContain(true);
    expect([0, 1, 2, 3].map(isOff)).toEqual([false, true, false, false]);
  });

  it('tell where seams show', () => {
    const visibility = Float32Array.from({ length: 90 }, (_, e) => e / 90);
    expect(seamsThatShow([0, 1, 2], visibility, () => 1)).toBeUndefined();
    const found = seamsThatShow([0, 1, 88, 89], visibility, (e) => (e === 89 ? 2 : 1));
    expect(found).toMatchObject({ count: 60, edges: [88, 89] });
    expect(seamsThatShow([], visibility, () => 1)).toBeUndefined();
  });
});
