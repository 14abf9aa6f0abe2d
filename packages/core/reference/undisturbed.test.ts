import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { type HemDocument, openDocument, shellOf, shellsOf, shellUv } from '../src/document/document.ts';
import { figuresOf, totalsOf } from '../src/document/figures.ts';
import { emptyHistory } from '../src/document/history.ts';
import { HemError } from '../src/errors.ts';
import { localJobs } from '../src/jobs/index.ts';
import { faceCount, type Mesh } from '../src/mesh/mesh.ts';
import { modelFromMesh } from '../src/mesh/model.ts';
import { request } from '../src/operations/catalogue.ts';
import { readProject } from '../src/persistence/projectFile.ts';
import { unattended } from '../src/progress.ts';
import { isFlippedStart } from '../src/relax/loosen.ts';
import { memoryPersistence } from '../src/session/persistence.ts';
import { openSession } from '../src/session/session.ts';
import type { Shell } from '../src/surface/shell.ts';
import { facesOfShell } from '../src/surface/shells.ts';
import { after } from '../src/testing/acts.ts';
import { disturbed, shellsMeant } from '../src/testing/disturbed.ts';
import { dirtyScan, glove } from '../src/testing/sculpts.ts';
import { seeded, someAct } from '../src/testing/wander.ts';

const demo = (name: string) => async (): Promise<HemDocument> => {
  const bytes = readFileSync(new URL(`../../app/public/demo/${name}.hemproject`, import.meta.url));
  return (await readProject(bytes, `${name}.hemproject`)).project.document;
};

/** Projects of the demo as they are shipped, and two meshes like scans, cut open and laid flat. */
const MODELS: Readonly<Record<string, () => Promise<HemDocument>>> = {
  toad: demo('toad-ferryman'),
  hood: demo('heron-hood'),
  lantern: demo('gourd-lantern'),
  post: demo('mooring-post'),
  thwart: demo('punt-thwart'),
  punt: demo('reed-punt'),
  'dirty scan': () =>
    after(
      openDocument(modelFromMesh('Scan', dirtyScan(14))),
      request('open-pieces', { least: true }),
      request('unfold', {}),
    ),
  'clean scan': () =>
    after(openDocument(modelFromMesh('Glove', triangleMesh(glove(22)))), request('unfold', {})),
};
const isLarge = ({ model }: HemDocument): boolean => faceCount(model.mesh) > 10_000;
const actsOn = (document: HemDocument): number => (isLarge(document) ? 5 : 20);

function triangleMesh({ positions, triangles }: Shell): Mesh {
  const faceStart = Uint32Array.from({ length: triangles.length / 3 + 1 }, (_, f) => 3 * f);
  return { positions, cornerVertex: triangles, faceStart };
}

describe.each(Object.keys(MODELS))('on the %s, acts', (name) => {
  it.each([0, 1, 2] as const)('leave alone what they are not on (%i)', async (run) => {
    const random = seeded(100 * run + name.length);
    const start = await MODELS[name]();
    // Large models take long: one Board will do.
    if (isLarge(start) && run !== 1) return;
    const session = openSession({
      document: start,
      history: emptyHistory,
      persistence: memoryPersistence(),
      jobs: localJobs,
    });
    // A tidy Board, one on which shells were packed, and one on which one is finished.
    if (run === 1) await session.perform('keep-places', { keep: true });
    if (run === 2) await session.perform('lock-shells', { shells: [someFace(start, random)], locked: true });
    const story: string[] = [];
    let tried = 0;
    for (let i = 0; i < actsOn(start); i++) {
      const act = someAct(session.document, random);
      const before = session.document;
      story.push(`${act[0]} ${JSON.stringify(act[1]).slice(0, 90)}`);
      const done = await (session.perform as (n: string, p: object) => Promise<{ notes: readonly string[] }>)(
        ...act,
      ).catch((error) => {
        if (!(error instanceof HemError)) throw error;
        return undefined;
      });
      if (!done || before.model.mesh !== session.document.model.mesh) continue;
      tried++;
      const meant = shellsMeant(before, session.document, act);
      expect(disturbed(before, session.document, meant), story.join('; ')).toEqual([]);
      await expectOneJudgement(session.document, story.join('; '));
      if (done.notes.length === 0)
        expect(await newTroubles(before, session.document, meant), story.join('; ')).toEqual([]);
    }
    // Where all is finished nothing is done.
    if (run < 2 || shellsOf(start).shellCount > 2) expect(tried).toBeGreaterThan(2);
  });
});

const someFace = (document: HemDocument, random: () => number): number =>
  facesOfShell(shellsOf(document), Math.floor(random() * shellsOf(document).shellCount))[0];

/** The strip, the findings and relaxing say the same of flipped, collapsed and folded faces. */
async function expectOneJudgement(document: HemDocument, story: string): Promise<void> {
  const figures = Array.from({ length: shellsOf(document).shellCount }, (_, s) => figuresOf(document, s));
  const { flipped, collapsed, folded } = totalsOf(figures);
  const { findings } = await localJobs.run('inspect', { document }, unattended);
  const count = (kind: string) => findings.find((each) => each.kind === kind)?.count ?? 0;
  expect({ collapsed: count('collapsed'), folded: count('folded') }, story).toEqual({ collapsed, folded });
  // Shells that are mirrored as a whole are told as such.
  if (count('mirrored') === 0) expect(count('flipped'), story).toBe(flipped);
  for (const { shell, stretch } of figures) {
    const piece = shellOf(document, shell);
    const uv = shellUv(document, piece);
    if (!uv || !stretch || !isFlippedStart(piece, uv)) continue;
    expect(stretch.flipped + stretch.collapsed, story).toBeGreaterThan(0);
  }
}

/** Kinds of findings about where shells lie of which those an act was not on have more than before. */
async function newTroubles(
  before: HemDocument,
  now: HemDocument,
  meant: ReadonlySet<number>,
): Promise<string[]> {
  const faces = new Set<number>();
  shellsOf(before).faceShell.forEach((s, f) => {
    if (!meant.has(s)) faces.add(f);
  });
  const [old, fresh] = await Promise.all([before, now].map((document) => troubles(document, faces)));
  return [...fresh].filter(([kind, count]) => count > (old.get(kind) ?? 0)).map(([kind]) => kind);
}

async function troubles(document: HemDocument, faces: ReadonlySet<number>): Promise<Map<string, number>> {
  const { findings } = await localJobs.run('inspect', { document }, unattended);
  const { faceShell } = shellsOf(document);
  const others = new Set([...faces].map((f) => faceShell[f]));
  return new Map(
    findings
      .filter(({ kind }) => ['overlap-between', 'outside', 'near'].includes(kind))
      .map(({ kind, shells }) => [kind, shells.filter((s) => others.has(s)).length]),
  );
}
