import { describe, expect, it } from 'vitest';
import type { HemDocument } from '../document/document.ts';
import { emptyHistory } from '../document/history.ts';
import { localJobs } from '../jobs/index.ts';
import { request } from '../operations/catalogue.ts';
import { after } from '../testing/acts.ts';
import { cubeDocument, LID, slowJobs, start, until } from '../testing/sessions.ts';
import { type Hands, handsHere } from './hands.ts';
import { memoryPersistence } from './persistence.ts';
import { openSession } from './session.ts';

describe('a question', () => {
  it('is answered of the document as it is, and changes nothing', async () => {
    const { session, events } = start();
    const loop = await session.ask('edge-loop', { edge: LID[0] });
    expect(loop?.edges).toContain(LID[0]);
    expect(events).toEqual([]);
    await expect(session.ask('edge-loop', { edge: -1 })).rejects.toThrow(/edge-loop: /);
  });

  it('ends at the beginning of any act where it is only for idle times', async () => {
    const { jobs, told } = slowJobs('ambient-occlusion', 400);
    const { session } = start(jobs);
    const asked = session.ask('ambient-occlusion', {});
    await until(() => told.runs === 1);
    // Nothing comes of it, and the sky falls as before: it gives way all the same.
    await session.perform('sew', { edges: LID });
    expect(await asked).toBeUndefined();
    expect(told.stops).toBe(1);
    expect((await session.ask('ambient-occlusion', {}))?.vertices).toHaveLength(8);
  });

  it('lapses when it is asked anew, and when what it is about changes', async () => {
    const { jobs, told } = slowJobs('examine', 60);
    const { session } = start(jobs);
    const first = session.ask('examination', { tolerance: 0.01 });
    await until(() => told.runs === 1);
    const second = session.ask('examination', { tolerance: 0.02 });
    expect(await first).toBeUndefined();
    // Hiding faces changes nothing that the health check looks at.
    await session.perform('hide', { faces: [0] });
    expect(await second).toMatchObject({ findings: [] });
    const third = session.ask('examination', {});
    await until(() => told.runs === 3);
    await session.perform('delete-faces', { faces: [0] });
    expect(await third).toBeUndefined();
  });

  it('of a hand that moves is answered where the session says, which hears of every other document', async () => {
    const here = handsHere();
    const heard: (string | HemDocument | undefined)[] = [];
    const hands: Hands = {
      answer(document, name, params, context) {
        heard.push(name);
        return here.answer(document, name, params, context);
      },
      keepOnly(document) {
        heard.push(document);
        here.keepOnly(document);
      },
    };
    const document = await after(cubeDocument(), request('cut', { edges: LID }), request('unfold', {}));
    const session = openSession({
      document,
      history: emptyHistory,
      persistence: memoryPersistence(),
      jobs: localJobs,
      hands,
    });
    const moved = await session.ask('moved-pin', { vertex: 4, face: 1, uv: [0.25, 0.5] });
    expect(moved?.triangles.length).toBeGreaterThan(0);
    await session.ask('inspection', {});
    expect(heard).toEqual(['moved-pin']);
    await session.perform('hide', { faces: [0] });
    await session.close();
    expect(heard).toEqual(['moved-pin', session.document, undefined]);
    await expect(session.ask('moved-pin', { vertex: 4, face: 0, uv: [0, 0] })).rejects.toThrow(/no corner/);
  });
});
