import { describe, expect, it } from 'vitest';
import { type HemDocument, openDocument, shellOf, shellsOf, topologyOf } from '../document/document.ts';
import { overlappingFaces } from '../document/overlappingFaces.ts';
import { StoppedError } from '../errors.ts';
import { localJobs } from '../jobs/index.ts';
import { type Mesh, meshFromPolygons } from '../mesh/mesh.ts';
import { modelFromMesh } from '../mesh/model.ts';
import { request } from '../operations/catalogue.ts';
import { unattended } from '../progress.ts';
import { answerQuestion } from '../questions/index.ts';
import { edgesByRule } from '../seams/fromRules.ts';
import { meshOfShell } from '../surface/cutShell.ts';
import { shellsAtEdges } from '../surface/shells.ts';
import { shellTopology } from '../surface/shellTopology.ts';
import { after } from '../testing/acts.ts';
import { glove, head, spikyBall } from '../testing/sculpts.ts';
import { cube, sheet, torus } from '../testing/shapes.ts';
import { predict } from './predict.ts';
import { PRESETS } from './presets.ts';
import { proposeSeams } from './proposeSeams.ts';

const context = { ...unattended, jobs: localJobs };
const documentOf = (mesh: Mesh): HemDocument => openDocument(modelFromMesh('model', mesh));

async function proposed(mesh: Mesh, asked: object = {}) {
  const document = documentOf(mesh);
  const told = await answerQuestion(document, 'proposal', asked as never, context);
  const cut = told.edges.length > 0 ? await after(document, request('cut', { edges: told.edges })) : document;
  return { document, told, cut };
}

/** A round post with a cap at either end. */
function cappedTube(rings: number, sectors: number, length: number): Mesh {
  const vertices: number[][] = [];
  const faces: number[][] = [];
  for (let i = 0; i <= rings; i++)
    for (let j = 0; j < sectors; j++) {
      const a = (2 * Math.PI * j) / sectors;
      vertices.push([Math.cos(a), (length * i) / rings, -Math.sin(a)]);
    }
  for (let i = 0; i < rings; i++)
    for (let j = 0; j < sectors; j++) {
      const k = (j + 1) % sectors;
      faces.push([i * sectors + j, i * sectors + k, (i + 1) * sectors + k, (i + 1) * sectors + j]);
    }
  faces.push(
    Array.from({ length: sectors }, (_, j) => sectors - 1 - j),
    Array.from({ length: sectors }, (_, j) => rings * sectors + j),
  );
  return meshFromPolygons(vertices, faces);
}

/** Two meshes as one, side by side. */
function isInterior(a: Mesh, b: Mesh): Mesh {
  const points = [a, b].flatMap(({ positions }, k) =>
    Array.from({ length: positions.length / 3 }, (_, v) => [
      positions[3 * v] + 10 * k,
      positions[3 * v + 1],
      positions[3 * v + 2],
    ]),
  );
  const faces = [a, b].flatMap(({ faceStart, cornerVertex }, k) =>
    Array.from({ length: faceStart.length - 1 }, (_, f) =>
      Array.from(
        cornerVertex.subarray(faceStart[f], faceStart[f + 1]),
        (v) => v + (k * a.positions.length) / 3,
      ),
    ),
  );
  return meshFromPolygons(points, faces);
}

describe('a proposal', () => {
  it('opens a cube by seven edges (common practice), in one shell without stretch', async () => {
    const { told, cut } = await proposed(cube(), { symmetric: 'none', stretch: 1.005 });
    expect(told.edges).toHaveLength(7);
    expect(shellsOf(cut).shellCount).toBe(1);
    expect(told.shells[0].l2).toBeCloseTo(1, 6);
    // What is asked for is what is used: a corner may stay whole where a little stretch is allowed.
    const lax = await proposed(cube(), { symmetric: 'none', stretch: 1.2 });
    expect(lax.told.edges.length).toBeLessThan(7);
  });

  it('opens a capped tube without stretch: most of a ring at each cap and one way between (common practice: two rings and one cut)', async () => {
    const { told, cut } = await proposed(cappedTube(12, 16, 6), { symmetric: 'none', stretch: 1.005 });
    for (const { l2, liesOnItself } of told.shells) {
      expect(l2).toBeLessThan(1.006);
      expect(liesOnItself).toBe(false);
    }
    expect(shellsOf(cut).shellCount).toBeLessThanOrEqual(3);
    // Two rings of 16 and a way of 12, or less where caps hang on by as many edges as half a percent of stretch allows.
    expect(told.edges.length).toBeLessThanOrEqual(16 + 16 + 12);
    expect(told.edges.length).toBeGreaterThanOrEqual(11 + 11 + 12);
  });

  it.each([
    ['a torus', torus(24, 12)],
    ['a sculpted head', meshOfShell(head(14))],
    ['a spiky ball', meshOfShell(spikyBall(14))],
  ])(
    'leaves of %s only discs that lie flat, clear of themselves and little stretched',
    async (_, mesh) => {
      const { told, cut } = await proposed(mesh);
      expect(told.edges.length).toBeGreaterThan(0);
      for (let s = 0; s < shellsOf(cut).shellCount; s++)
        expect(shellTopology(shellOf(cut, s)).kind).toBe('disk');
      const flat = await after(cut, request('unfold', {}), request('relax', { steps: 60 }));
      expect(overlappingFaces(flat).overlaps).toHaveLength(0);
      for (const { l2 } of told.shells) expect(l2).toBeLessThan(PRESETS.clean.most + 0.03);
      // What is told is what comes out.
      const worst = Math.max(...told.shells.map(({ l2 }) => l2 ?? Infinity));
      expect(predict(shellOf(cut, 0), unattended).l2).toBeLessThanOrEqual(worst + 1e-9);
    },
    60_000,
  );

  it('does not hang on the last digits of the vertices', async () => {
    // Of a ball, alike on all sides, a few edges may run elsewhere; without an order of what is equal it would be most.
    for (const [shell, elsewhere] of [
      [head(36), 0],
      [spikyBall(28), 8],
    ] as const) {
      const mesh = meshOfShell(shell);
      const shaken = mesh.positions.map((x, i) => x * (1 + 1e-14 * Math.sin(7919 * i)));
      const [one, other] = [await proposed(mesh), await proposed({ ...mesh, positions: shaken })];
      const same = new Set(one.told.edges);
      expect(other.told.edges.filter((e) => !same.has(e)).length).toBeLessThanOrEqual(elsewhere);
      expect(other.told.shells.length).toBe(one.told.shells.length);
    }
  });

  it('draws less seam to what is laid smallest than to what is farthest', async () => {
    // By distance alone the same heads want 6.1 √area, and the ball 10.9 (measured).
    for (const [shell, most] of [
      [head(20), 3.6],
      [spikyBall(24), 9.4],
    ] as const) {
      const { length, shells } = (await proposed(meshOfShell(shell))).told;
      expect(length / Math.sqrt(shells.reduce((sum, { area }) => sum + area, 0))).toBeLessThan(most);
    }
  });

  it('cuts out patches as they are, unless it is told not to', async () => {
    const bare = documentOf(meshOfShell(head(14)));
    const painted = await after(
      bare,
      request('paint-patch', { faces: Array.from({ length: 80 }, (_, f) => f), patch: 'new' }),
    );
    const borders = edgesByRule(painted, topologyOf(painted.model).connectivity, 'patch', 0);
    expect(borders.length).toBeGreaterThan(10);
    const edges = async (patches: boolean) =>
      new Set((await answerQuestion(painted, 'proposal', { patches }, context)).edges);
    const [respecting, not] = [await edges(true), await edges(false)];
    expect(borders.every((e) => respecting.has(e))).toBe(true);
    expect(borders.every((e) => not.has(e))).toBe(false);
  });

  it('wants less seam where more stretch is allowed', async () => {
    const mesh = meshOfShell(head(14));
    const [strict, lax] = [await proposed(mesh), await proposed(mesh, { stretch: 1.4 })];
    expect(lax.told.length).toBeLessThan(strict.told.length);
  });

  it('is symmetric where the model is, and leaves alone what lies flat well enough', async () => {
    // A bowl over a square, mirrored in x = 0, and beside it a flat sheet.
    const bowl = sheet(10, 10, (i, j) => [j - 5, 2.2 * Math.hypot(j - 5, i - 5), i - 5]);
    const { told } = await proposed(bowl, { symmetric: 'x' });
    expect(told.symmetric).toBe(1);
    const flat = await proposed(sheet(6, 6, (i, j) => [j, 0, i]));
    expect(flat.told.edges).toEqual([]);
    expect(flat.told.shells).toEqual([]);
  });

  it('respects seams that are there, and cuts only the shells it is asked for', async () => {
    const ring = torus(24, 12);
    const bare = documentOf(ring);
    const { connectivity } = topologyOf(bare.model);
    const isAcross = (e: number, k: number) =>
      Math.floor(connectivity.edgeVertices[2 * e] / 12) === k &&
      Math.floor(connectivity.edgeVertices[2 * e + 1] / 12) === k;
    const two = [...connectivity.isInterior.keys()].filter((e) => isAcross(e, 0) || isAcross(e, 8));
    const cut = await after(bare, request('cut', { edges: two }));
    expect(shellsOf(cut).shellCount).toBe(2);
    const told = await answerQuestion(cut, 'proposal', { faces: [0], symmetric: 'none' }, context);
    expect(told.edges.length).toBeGreaterThan(0);
    expect(told.edges.some((e) => cut.seams[e] === 1)).toBe(false);
    const touched = shellsAtEdges(connectivity, shellsOf(cut), told.edges);
    expect(touched).toEqual([shellsOf(cut).faceShell[0]]);
  });

  it('leaves finished shells alone when all are meant: those that lie flat within the bound, and locked ones', async () => {
    // A capped tube opened and laid flat, beside a cube that is still closed.
    const both = isInterior(cappedTube(6, 12, 3), cube());
    const start = documentOf(both);
    const { faceShell } = shellsOf(start);
    const cubeFace = both.faceStart.length - 2;
    const opened = await proposed(both, { faces: [0] });
    const flat = await after(
      start,
      request('cut', { edges: opened.told.edges }),
      request('unfold', { shells: [0] }),
      request('relax', { shells: [0] }),
    );
    expect(faceShell[0]).not.toBe(faceShell[cubeFace]);
    const told = await answerQuestion(flat, 'proposal', { view: 'all round' }, context);
    expect(told).toMatchObject({ good: 1, locked: 0 });
    expect(told.edges).toHaveLength(7);
    const { connectivity } = topologyOf(flat.model);
    const touched = shellsAtEdges(connectivity, shellsOf(flat), told.edges);
    expect(touched).toEqual([shellsOf(flat).faceShell[cubeFace]]);
    // Chosen itself, it is looked at all the same.
    const asked = await answerQuestion(flat, 'proposal', { faces: [0], stretch: 1.005 }, context);
    expect(asked.good).toBe(0);
    const locked = await after(flat, request('lock-shells', { shells: [cubeFace], locked: true }));
    expect(await answerQuestion(locked, 'proposal', {}, context)).toMatchObject({
      edges: [],
      good: 1,
      locked: 1,
    });
    await expect(answerQuestion(locked, 'proposal', { faces: [cubeFace] }, context)).rejects.toThrow(
      /is locked/,
    );
  });

  it('clears what lies on itself by a hair, and makes no shell of it', async () => {
    const { told, cut } = await proposed(meshOfShell(glove(40)));
    expect(told.shells.filter(({ liesOnItself }) => liesOnItself)).toEqual([]);
    expect(told.shells.length).toBeLessThanOrEqual(5);
    const flat = await after(cut, request('unfold', {}), request('relax', { steps: 30 }));
    expect(overlappingFaces(flat).overlaps).toHaveLength(0);
  });

  it('proposes the best so far when it is stopped, and tells of it', async () => {
    const document = documentOf(meshOfShell(head(20)));
    let looks = 0;
    const ask = (most: number) => {
      const signal = {
        get aborted() {
          return ++looks > most;
        },
      };
      looks = 0;
      return answerQuestion(document, 'proposal', {}, { signal, report: () => undefined, jobs: localJobs });
    };
    // Twice: how much is seen is worked out once.
    await ask(Infinity);
    await ask(Infinity);
    const all = looks;
    // While seams are looked for, and while what was found is measured.
    for (const part of [0.7, 0.98]) {
      const { edges, shells } = await ask(Math.floor(part * all));
      expect(edges.length).toBeGreaterThan(0);
      for (const { l2 } of shells) expect(l2).toBeLessThan(1.3);
    }
    await expect(ask(2)).rejects.toThrow(StoppedError);
  });

  it('keeps the best so far when it is stopped, and has nothing when that is too soon', () => {
    const document = documentOf(meshOfShell(head(14)));
    const task = {
      ...topologyOf(document.model),
      seams: document.seams,
      shells: [0],
      visibility: new Float32Array(document.model.mesh.positions.length / 3).fill(1),
    };
    const options = { ...PRESETS.clean, hidden: 0.5 };
    let looks = 0;
    const after = (n: number) => ({
      signal: {
        get aborted() {
          return ++looks > n;
        },
      },
      report: () => undefined,
    });
    expect(() => proposeSeams(task, options, after(0))).toThrow(StoppedError);
    looks = 0;
    proposeSeams(task, options, after(Infinity));
    const all = looks;
    looks = 0;
    const early = proposeSeams(task, options, after(Math.floor(0.6 * all)));
    expect(early.length).toBeGreaterThan(0);
    const seams = document.seams.slice();
    for (const e of early) seams[e] = 1;
    const cut = { ...document, seams };
    for (let s = 0; s < shellsOf(cut).shellCount; s++)
      expect(shellTopology(shellOf(cut, s)).canUnfold).toBe(true);
  });
});

describe('small holes', () => {
  it('do not draw seams to them', async () => {
    const whole = meshOfShell(head(32));
    const gone = [100, 400, 700, 1000, 1300];
    const mesh: Mesh = {
      ...whole,
      faceStart: whole.faceStart.slice(0, -gone.length),
      cornerVertex: whole.cornerVertex.filter((_, c) => !gone.includes(Math.floor(c / 3))),
    };
    const [one, other] = [await proposed(whole), await proposed(mesh)];
    expect(shellTopology(shellOf(documentOf(mesh), 0)).borderCount).toBeGreaterThan(4);
    expect(other.told.length).toBeLessThan(1.6 * one.told.length);
    expect(other.told.shells.length).toBeLessThan(one.told.shells.length + 4);
  });
});
