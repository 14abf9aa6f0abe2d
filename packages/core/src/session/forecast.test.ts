import { describe, expect, it } from 'vitest';
import { emptyHistory } from '../document/history.ts';
import { localJobs } from '../jobs/index.ts';
import { request } from '../operations/catalogue.ts';
import { cubeDocument, LID, slowJobs, start, until } from '../testing/sessions.ts';
import { memoryPersistence } from './persistence.ts';
import { openSession } from './session.ts';

describe('a preview', () => {
  it('shows what an act would lead to, with what follows, and records nothing', async () => {
    const { session, events } = start();
    const before = session.document;
    const shown = await session.preview(request('cut', { edges: LID }));
    expect(shown?.stale.includes(1)).toBe(false);
    expect(shown?.uvSets[0].uv.some(Number.isNaN)).toBe(false);
    expect(session.document).toBe(before);
    expect(session.history.acts).toEqual([]);
    expect(events).toEqual([]);
    await session.perform('cut', { edges: LID });
    expect(session.document).toEqual(shown);
  });

  it('gives way to a newer one, to another act, and to being cleared', async () => {
    const { jobs, told } = slowJobs('unfold', 40);
    const cut = request('cut', { edges: LID });
    for (const end of [
      (s: ReturnType<typeof start>['session']) => s.preview(request('cut', { edges: LID.slice(1) })),
      (s: ReturnType<typeof start>['session']) =>
        s.perform('hide', {}).then(() => s.perform('sew', { edges: LID })),
      async (s: ReturnType<typeof start>['session']) => s.clearPreview(),
    ]) {
      const { session } = start(jobs);
      const runs = told.runs;
      const first = session.preview(cut);
      await until(() => told.runs > runs);
      const ending = end(session);
      expect(await first).toBeUndefined();
      await ending;
    }
  });

  it('of what cannot be done is nothing', async () => {
    const { session } = start();
    expect(await session.preview(request('unfold', { shells: [0] }))).toBeUndefined();
    expect(await session.preview(request('cut', { edges: [999] }))).toBeUndefined();
  });

  it('is taken over by the act that does the same: nothing is solved twice, and one that is not done is waited for', async () => {
    for (const wait of [true, false]) {
      const { jobs, told } = slowJobs('unfold', 40);
      const { session, events } = start(jobs);
      const cut = request('cut', { edges: LID });
      const preview = session.preview(cut);
      if (wait) await preview;
      else await until(() => told.runs > 0);
      const done = await session.perform('cut', { edges: LID });
      expect(done).toMatchObject({ label: 'Cut 4 edges', changed: true });
      expect(told).toEqual({ runs: 1, stops: 0 });
      expect(session.document).toEqual(await preview);
      expect(session.history.acts.map(({ operation }) => operation)).toEqual(['cut', 'unfold']);
      expect(events.filter(({ kind }) => kind === 'changed')).toHaveLength(wait ? 1 : 2);
      // As if it had been done without: back and forth, and the same parameters in the history.
      const after = session.document;
      await session.undo();
      expect(session.document).toEqual(cubeDocument());
      await session.redo();
      expect(session.document).toEqual(after);
    }
  });

  it('is not taken over by an act on another document, nor by one with other parameters', async () => {
    const { jobs, told } = slowJobs('unfold', 1);
    const { session } = start(jobs);
    await session.preview(request('cut', { edges: LID }));
    await session.perform('cut', { edges: LID.slice(1) }, { alone: true });
    const runs = told.runs;
    await session.perform('cut', { edges: LID });
    expect(told.runs).toBe(runs + 1);
    expect(session.history.acts.map(({ label }) => label)[1]).toBe('Cut 4 edges');
  });

  it('that is taken over is stopped with its act', async () => {
    const { jobs, told } = slowJobs('unfold', 4000);
    const { session } = start(jobs);
    const preview = session.preview(request('cut', { edges: LID }));
    await until(() => told.runs > 0);
    const act = session.perform('cut', { edges: LID });
    await until(() => session.history.done === 1);
    session.stop();
    await act;
    expect(told.stops).toBe(1);
    expect(await preview).toBeUndefined();
    expect(session.document.stale.includes(1)).toBe(true);
  });

  it('never delays another act, for it is solved elsewhere', async () => {
    const { jobs } = slowJobs('unfold', 400);
    const session = openSession({
      document: cubeDocument(),
      history: emptyHistory,
      persistence: memoryPersistence(),
      jobs: localJobs,
      previewJobs: jobs,
    });
    const preview = session.preview(request('cut', { edges: LID.slice(1) }));
    await session.perform('cut', { edges: LID });
    expect(session.document.stale.includes(1)).toBe(false);
    expect(await preview).toBeUndefined();
  });
});
