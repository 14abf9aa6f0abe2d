import { basename } from 'node:path';
import { openDocument, shellsOf, topologyOf } from '@blunt-hem/core/document/document';
import { UP_AXES } from '@blunt-hem/core/document/fields';
import { figuresOf } from '@blunt-hem/core/document/figures';
import { emptyHistory } from '@blunt-hem/core/document/history';
import { isTooStretched } from '@blunt-hem/core/document/judgement';
import { HemError } from '@blunt-hem/core/errors';
import { readSeams } from '@blunt-hem/core/formats/seamFile';
import { localJobs } from '@blunt-hem/core/jobs/index';
import type { AskedOf } from '@blunt-hem/core/questions/index';
import { memoryPersistence } from '@blunt-hem/core/session/persistence';
import { openSession, type Session } from '@blunt-hem/core/session/session';
import { seamsFromUv } from '@blunt-hem/core/surface/shells';
import type { Method } from '@blunt-hem/core/unfold/unfold';
import { fileText, opened, save } from '../files.ts';
import { measured } from '../measured.ts';
import type { TextureSize } from '../options.ts';
import { readPins } from '../pinFile.ts';
import { setTexture } from '../setTexture.ts';

export interface UnfoldOptions {
  /** Where seams are listed; where neither this nor `propose` is given, those of the file are taken. */
  readonly seams?: string;
  readonly propose?: AskedOf<'proposal'>['preset'];
  readonly out: string;
  readonly method: Method;
  readonly pins?: string;
  readonly smoothed?: true;
  readonly keepPlace?: true;
  readonly up: (typeof UP_AXES)[number];
  readonly relax?: true;
  readonly balance: number;
  readonly seconds?: number;
  readonly cuts?: true;
  readonly pack?: true;
  readonly size?: TextureSize;
  readonly padding?: number;
}

/** Cuts, unfolds, relaxes and packs as asked, writes the model, and tells its figures and how long each phase took. */
export async function run(input: string, options: UnfoldOptions): Promise<object> {
  const seconds: Record<string, number> = {};
  const timed = async <T>(phase: string, work: () => Promise<T>): Promise<T> => {
    const start = performance.now();
    const result = await work();
    seconds[phase] = (performance.now() - start) / 1000;
    return result;
  };
  const keepUvs = options.keepPlace === true;
  const upAxis = UP_AXES.indexOf(options.up);
  const document = await timed('read', async () => openDocument(await opened(input), { keepUvs, upAxis }));
  if (keepUvs && !document.placed)
    throw new HemError(
      'no-uvs',
      `${basename(input)} has no UVs whose places could be kept: leave --keep-place out.`,
    );
  const session = openSession({
    document,
    history: emptyHistory,
    persistence: memoryPersistence(),
    jobs: localJobs,
  });
  const edges = await timed('seams', () => seamsWanted(session, options));
  const { pins, stays } = options.pins
    ? readPins(await fileText(options.pins), basename(options.pins))
    : { pins: [], stays: [] };
  const surface = options.smoothed ? 'smoothed' : 'cage';
  const { method, balance } = options;
  const notes: string[] = [];
  const heard = (done: { readonly notes: readonly string[] }) => notes.push(...done.notes);
  await timed('solve', async () => {
    if (edges.length > 0) await session.perform('cut', { edges }, { alone: true });
    heard(await session.perform('unfold', { method, pins, stays, surface }));
  });
  if (options.relax) {
    const held = pins.map(({ vertex, face }) => ({ vertex, face }));
    const { seconds: most } = options;
    await timed('relax', async () =>
      heard(await session.perform('relax', { seconds: most, balance, held, stays, surface })),
    );
  }
  if (options.pack)
    await timed('pack', async () => {
      await setTexture(session, options);
      heard(await session.perform('pack', {}));
    });
  const cuts = options.cuts ? await timed('cuts', () => wantedCuts(session)) : undefined;
  await timed('write', () => save(options.out, session.document));
  return {
    file: basename(input),
    out: basename(options.out),
    seconds,
    notes,
    ...(await measured(session)),
    cuts,
  };
}

/** Edges to cut: as they are listed, as they are proposed, or where the UVs of the file break. */
async function seamsWanted(session: Session, { seams, propose }: UnfoldOptions): Promise<readonly number[]> {
  const { model } = session.document;
  const { connectivity } = topologyOf(model);
  if (seams !== undefined) return readSeams(await fileText(seams), basename(seams), connectivity);
  if (propose !== undefined) return (await session.ask('proposal', { preset: propose }))?.edges ?? [];
  const [first] = model.uvSets;
  return first
    ? [...seamsFromUv(connectivity, first.uv).entries()].flatMap(([e, mark]) => (mark ? [e] : []))
    : [];
}

/** For each shell that stretches too much the single cut that helps it most, as a seam file has it, with the stretch after it. */
async function wantedCuts(session: Session): Promise<object[]> {
  const { document } = session;
  const { edgeVertices } = topologyOf(document.model).connectivity;
  const found: object[] = [];
  for (let s = 0; s < shellsOf(document).shellCount; s++) {
    const { firstFace, stretch } = figuresOf(document, s);
    if (!stretch || !isTooStretched(stretch, document.limits)) continue;
    const cut = await session.ask('best-cut', { face: firstFace });
    if (!cut || cut.edges.length === 0) continue;
    const edges = cut.edges.map((e) => [edgeVertices[2 * e], edgeVertices[2 * e + 1]]);
    found.push({ ...cut, shell: s, edges });
  }
  return found;
}
