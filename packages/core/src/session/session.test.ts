import { describe, expect, it } from 'vitest';
import { openDocument, shellsOf } from '../document/document.ts';
import { figuresOf } from '../document/figures.ts';
import { emptyHistory } from '../document/history.ts';
import { localJobs } from '../jobs/index.ts';
import { modelFromMesh } from '../mesh/model.ts';
import { request } from '../operations/catalogue.ts';
import { edges, LID, slowJobs, start, until } from '../testing/sessions.ts';
import { sheet, sphericalCap } from '../testing/shapes.ts';
import { memoryPersistence } from './persistence.ts';
import { openSession, type SessionEvent } from './session.ts';

describe('a session', () => {
  it('unfolds what a cut touches, in the same undo', async () => {
    const { session } = start();
    const before = session.document;
    const done = await session.perform('cut', { edges: LID });
    expect(done).toMatchObject({ label: 'Cut 4 edges', changed: true });
    expect(session.history.acts.map(({ operation, group }) => [operation, group])).toEqual([
      ['cut', 0],
      ['unfold', 0],
    ]);
    expect(session.document.stale.includes(1)).toBe(false);
    const after = session.document;
    expect(await session.undo()).toMatchObject({ label: 'Cut 4 edges' });
    expect(session.document).toEqual(before);
    expect(await session.redo()).toMatchObject({ label: 'Cut 4 edges' });
    expect(session.document).toEqual(after);
    expect(await session.redo()).toBeUndefined();
  });

  it('cuts, unfolds and relaxes in one undo where that is asked for, as a proposal is taken', async () => {
    const { session } = start();
    const before = session.document;
    // The preview shows it relaxed, and the act is what was shown.
    const shown = await session.preview(request('cut', { edges: LID, relax: true }));
    await session.perform('cut', { edges: LID, relax: true });
    expect(session.document).toEqual(shown);
    expect(session.history.acts.map(({ operation, group }) => [operation, group])).toEqual([
      ['cut', 0],
      ['unfold', 0],
      ['relax', 0],
    ]);
    expect([...session.document.relaxed]).not.toContain(0);
    await session.undo();
    expect(session.document).toEqual(before);
  });

  it('relaxes again what had been relaxed, after a cut, all in one undo', async () => {
    const { session } = start();
    await session.perform('cut', { edges: LID });
    await session.perform('relax', {});
    const relaxed = session.document;
    expect(relaxed.relaxed.includes(1)).toBe(true);
    await session.perform('cut', { edges: edges([0, 4]) });
    expect(session.history.acts.slice(3).map(({ operation }) => operation)).toEqual([
      'cut',
      'unfold',
      'relax',
    ]);
    expect(session.document.stale.includes(1)).toBe(false);
    await session.undo();
    expect(session.document).toEqual(relaxed);
    // An unfold that was asked for is a fresh start: it is not relaxed behind the artist's back.
    await session.perform('unfold', {});
    expect(session.document.relaxed.includes(1)).toBe(false);
    expect(session.history.acts.at(-1)?.operation).toBe('unfold');
  });

  it('says when nothing came of an act, and records nothing', async () => {
    const { session, events } = start();
    await session.perform('cut', { edges: LID });
    const before = session.document;
    const changes = events.filter(({ kind }) => kind === 'changed').length;
    expect(await session.perform('cut', { edges: LID })).toMatchObject({
      changed: false,
      notes: ['Nothing was cut: these edges are seams already, or the mesh ends there.'],
    });
    expect(await session.perform('sew', { edges: edges([0, 1]) })).toMatchObject({
      changed: false,
      notes: ['Nothing was sewn: none of these edges is a seam.'],
    });
    expect(session.document).toBe(before);
    expect(session.history.acts).toHaveLength(2);
    expect(events.filter(({ kind }) => kind === 'changed')).toHaveLength(changes);
  });

  it('leaves a shell in its place that relaxing cannot better, and only knows that it was', async () => {
    const { session } = start();
    await session.perform('cut', { edges: LID });
    // The lid is a square: it lies flat without stretch.
    const { uvSets } = session.document;
    const done = await session.perform('relax', { shells: [1] });
    expect(done).toMatchObject({ changed: true, notes: [expect.stringMatching(/^Nothing to gain/)] });
    expect(session.document.uvSets).toEqual(uvSets);
    expect(figuresOf(session.document, 1).relaxed).toBe(true);
    const again = await session.perform('relax', { shells: [1] });
    expect(again).toMatchObject({ changed: false, notes: [expect.stringMatching(/^Nothing to gain/)] });
  });

  it('sews one edge of a ring: two shells hang together by a hinge, and undo parts them', async () => {
    const { session } = start();
    await session.perform('cut', { edges: LID });
    const apart = session.document;
    await session.perform('sew', { edges: LID.slice(0, 1) });
    expect(shellsOf(session.document).shellCount).toBe(1);
    expect(figuresOf(session.document, 0).stretch).toMatchObject({ flipped: 0, collapsed: 0 });
    await session.undo();
    expect(session.document).toEqual(apart);
  });

  it('opens a closed piece and lays it flat in one act', async () => {
    const { session } = start();
    await expect(session.perform('unfold', {})).rejects.toMatchObject({ code: 'cannot-unfold', ids: [0] });
    const done = await session.perform('open-pieces', { shells: [0] });
    expect(done).toMatchObject({ label: 'Cut open 1 shell', changed: true });
    expect(figuresOf(session.document, 0).stretch).toMatchObject({ flipped: 0, collapsed: 0 });
    await session.undo();
    expect(session.document.seams.includes(1)).toBe(false);
  });

  it('lets a newer act end what it makes stale, and means the shells as they then are', async () => {
    const { jobs, told } = slowJobs('unfold');
    const { session } = start(jobs);
    // Cut, and unfold before the cut is answered: one face of the lid, whatever its number will be.
    const first = session.perform('cut', { edges: LID });
    await until(() => told.runs > 0);
    const second = session.perform('unfold', { shells: [1] });
    expect(await first).toMatchObject({ label: 'Cut 4 edges' });
    expect(await second).toMatchObject({ label: 'Unfold 1 shell, conformal' });
    expect(told.stops).toBe(1);
    expect(session.document.stale[1]).toBe(0);
    expect(session.document.stale[0]).toBe(1);
  });

  it('tells an act that was ended by a newer one that it was, and one that was stopped that it was stopped', async () => {
    const { jobs, told } = slowJobs('unfold');
    const { session } = start(jobs);
    await session.perform('cut', { edges: LID }, { alone: true });
    const first = session.perform('unfold', {});
    await until(() => told.runs === 1);
    const second = session.perform('sew', { edges: LID }, { alone: true });
    await expect(first).rejects.toMatchObject({ code: 'superseded' });
    await second;
    await session.perform('cut', { edges: LID }, { alone: true });
    const third = session.perform('unfold', {});
    await until(() => told.runs === 2);
    session.stop();
    await expect(third).rejects.toMatchObject({ code: 'stopped' });
    expect(session.document.uvSets[0].uv.every(Number.isNaN)).toBe(true);
  });

  it('does not keep an act waiting that has nothing to do with what runs, and both stand', async () => {
    const { jobs, told } = slowJobs('unfold');
    const { session } = start(jobs);
    await session.perform('cut', { edges: LID }, { alone: true });
    let unfolded = false;
    const first = session.perform('unfold', {}).then(() => {
      unfolded = true;
    });
    await until(() => told.runs > 0);
    await session.perform('hide', { faces: [2] });
    expect(unfolded).toBe(false);
    await first;
    expect(told.stops).toBe(0);
    expect(session.document.hidden[2]).toBe(1);
    expect(session.document.uvSets[0].uv.some(Number.isNaN)).toBe(false);
    // In the order in which they were done: the unfold last.
    await session.undo();
    expect(session.document.hidden[2]).toBe(1);
    expect(session.document.uvSets[0].uv.every(Number.isNaN)).toBe(true);
  });

  it('is as it was before an act that cannot be kept, or taken back', async () => {
    let broken = false;
    const persistence = memoryPersistence();
    const fail = async () => {
      if (broken) throw new Error('full');
    };
    const { session, events } = start(localJobs, {
      ...persistence,
      add: (act, at, document) => fail().then(() => persistence.add(act, at, document)),
      move: (done, document) => fail().then(() => persistence.move(done, document)),
    });
    await session.perform('cut', { edges: LID });
    const [before, history] = [session.document, session.history];
    broken = true;
    await expect(session.perform('hide', {})).rejects.toThrow('full');
    await expect(session.undo()).rejects.toThrow('full');
    expect(session.document).toBe(before);
    expect(session.history).toBe(history);
    const told = events.filter((event) => event.kind === 'saved');
    expect(told.at(-1)).toEqual({ kind: 'saved', saved: true });
    broken = false;
    await session.undo();
    expect(session.history.done).toBe(0);
  });

  it('resumes what was cut when it ended in the middle', async () => {
    const { session } = start();
    await session.perform('cut', { edges: LID });
    await session.perform('cut', { edges: edges([0, 4]) }, { alone: true });
    expect(session.document.stale.includes(1)).toBe(true);
    const again = openSession({
      document: session.document,
      history: session.history,
      persistence: memoryPersistence(),
      jobs: localJobs,
    });
    await again.resume();
    expect(again.document.stale.includes(1)).toBe(false);
    expect(again.history.acts.at(-1)).toMatchObject({ operation: 'unfold', group: 1 });
    expect(await again.resume()).toEqual([]);
  });

  it('tells what runs, and shows shells on their way in tile units', async () => {
    const shell = sphericalCap(10, 30, 2);
    const mesh = {
      positions: shell.positions,
      cornerVertex: shell.triangles,
      faceStart: Uint32Array.from({ length: shell.triangles.length / 3 + 1 }, (_, f) => 3 * f),
    };
    const events: SessionEvent[] = [];
    const session = openSession({
      document: openDocument(modelFromMesh('Cap', mesh)),
      history: emptyHistory,
      persistence: memoryPersistence(),
      jobs: localJobs,
      emit: (event) => events.push(event),
    });
    await session.perform('unfold', {});
    const flat = session.document.uvSets[0].uv;
    await session.perform('relax', { balance: 0.8 });
    const pictures = events.flatMap((event) => (event.kind === 'picture' ? [...event.uvOf.values()] : []));
    expect(pictures.length).toBeGreaterThan(1);
    const reach = (uv: Float64Array) => Math.max(...uv) - Math.min(...uv);
    for (const uv of pictures) {
      expect(reach(uv) / reach(flat)).toBeGreaterThan(0.6);
      expect(reach(uv) / reach(flat)).toBeLessThan(1.6);
    }
    expect(events.some((event) => event.kind === 'running' && event.figure !== undefined)).toBe(true);
    expect(events.findLast(({ kind }) => kind === 'running')).toEqual({ kind: 'running' });
  });
});

describe('two sessions in one process', () => {
  /** A hill that is unfolded, with one place of it pinned. */
  const hill = async (height: number) => {
    const mesh = sheet(6, 6, (i, j) => [j, height * Math.exp(-((i - 3) ** 2 + (j - 3) ** 2) / 4), i]);
    const session = openSession({
      document: openDocument(modelFromMesh('Hill', mesh)),
      history: emptyHistory,
      persistence: memoryPersistence(),
      jobs: localJobs,
    });
    await session.perform('unfold', {});
    await session.perform('set-pins', { places: [{ vertex: 0, face: 0 }], pinned: true });
    return session;
  };
  type Hill = Awaited<ReturnType<typeof hill>>;
  /** What an artist does, one thing after the other. */
  const doings: readonly ((session: Hill) => Promise<unknown>)[] = [
    (s) => s.ask('moved-pin', { vertex: 48, face: 35, uv: [0.7, 0.7] }),
    (s) => s.ask('brushed', { face: 14, brush: 'push', dabs: [] }),
    (s) => s.ask('moved-pin', { vertex: 48, face: 35, uv: [0.9, 0.8] }),
    (s) => s.ask('brushed', { face: 14, brush: 'push', dabs: [0.5, 0.5, 0.05, 0.02, 0.3, 1] }),
    (s) => s.preview(request('cut', { edges: [20, 21] })),
    (s) => s.perform('cut', { edges: [20, 21] }),
    (s) => s.ask('inspection', {}),
    (s) => s.perform('relax', { steps: 3 }),
    (s) => s.ask('moved-pin', { vertex: 48, face: 35, uv: [0.9, 0.8] }),
    (s) => s.undo(),
    (s) => s.ask('visibility', { view: 'all round' }),
    (s) => s.redo(),
  ];

  it('do not touch each other, whatever is done in turn, and one goes on when the other is closed', async () => {
    const alone = async (height: number) => {
      const session = await hill(height);
      const told: unknown[] = [];
      for (const each of doings) told.push(await each(session));
      return { told, document: session.document };
    };
    const wanted = [await alone(1), await alone(2)];
    const sessions = [await hill(1), await hill(2)];
    const told: unknown[][] = [[], []];
    for (const each of doings)
      await Promise.all(sessions.map(async (session, i) => told[i].push(await each(session))));
    for (const i of [0, 1]) {
      expect(told[i]).toEqual(wanted[i].told);
      expect(sessions[i].document).toEqual(wanted[i].document);
    }
    await sessions[0].close();
    await sessions[1].perform('relax', { steps: 1 });
    expect(await sessions[1].ask('moved-pin', { vertex: 48, face: 35, uv: [0.8, 0.8] })).toBeDefined();
  });
});
