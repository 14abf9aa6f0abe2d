import { describe, expect, it } from 'vitest';
import {
  current,
  type HemDocument,
  openDocument,
  shellOf,
  shellsOf,
  shellUv,
  topologyOf,
} from '../document/document.ts';
import { emptyHistory } from '../document/history.ts';
import { HemError } from '../errors.ts';
import { localJobs } from '../jobs/index.ts';
import { measureStretch } from '../measure/stretch.ts';
import { modelFromMesh } from '../mesh/model.ts';
import { validateTrial } from '../persistence/validateTrial.ts';
import { sheet } from '../testing/shapes.ts';
import type { Trial } from '../trials/trial.ts';
import { trialBook } from '../trials/trialBook.ts';
import { memoryPersistence } from './persistence.ts';
import { openSession, type Session } from './session.ts';
import { sessionTrials } from './sessionTrials.ts';

/** A hill of 8 × 8 quads beside a flat strip: two pieces. */
const hill = () =>
  openDocument(
    modelFromMesh(
      'Hill',
      sheet(8, 8, (i, j) => [j, 3 * Math.exp(-((i - 4) ** 2 + (j - 4) ** 2) / 6), -i]),
    ),
  );

function open(document: HemDocument, trials?: readonly Trial[]): Session {
  return openSession({
    document,
    history: emptyHistory,
    persistence: memoryPersistence(),
    jobs: localJobs,
    trials,
  });
}

const uvOf = ({ document }: Session) => current(document).uv;
const settled = () => new Promise((resolve) => setTimeout(resolve, 20));

describe('trials', () => {
  it('keep what unfolds led to, also what was taken back, and lay it down again', async () => {
    const session = open(hill());
    await session.perform('unfold', { method: 'conformal' });
    const conformal = uvOf(session).slice();
    await session.undo();
    await session.perform('unfold', { method: 'angle-based' });
    await settled();
    expect(session.trials.list.map(({ name, shells }) => [name, shells[0].method])).toEqual([
      ['Unfold all shells, conformal', 'conformal'],
      ['Unfold all shells, angle-based', 'angle-based'],
    ]);
    const done = await session.trials.take(session.trials.list[0].id);
    expect(done).toMatchObject({ changed: true, label: 'Take 1 shell of “Unfold all shells, conformal”' });
    // The shell is laid afresh: where and how large, to the rounding; how its places lie to one another, just so.
    uvOf(session).forEach((x, i) => {
      expect(x).toBeCloseTo(conformal[i], 9);
    });
    await session.undo();
    expect(uvOf(session)).not.toEqual(conformal);
  });

  it('have the figures that measuring them anew gives', async () => {
    const session = open(hill());
    await session.perform('unfold', {});
    await session.perform('relax', { steps: 4 });
    await settled();
    for (const { shells, figures } of session.trials.list) {
      const shell = shellOf(session.document, 0);
      const { logArea: _, angle: __, ...told } = measureStretch(shell, shells[0].uv);
      expect(figures).toEqual([told]);
    }
    const now = shellOf(session.document, 0);
    expect(session.trials.list[1].shells[0].uv).toEqual(shellUv(session.document, now));
  });

  it('of relaxing step by step are one, unless it was named', async () => {
    const session = open(hill());
    await session.perform('unfold', {});
    for (let i = 0; i < 2; i++) await session.perform('relax', { steps: 1 });
    await settled();
    expect(session.trials.list.map(({ name }) => name)).toEqual([
      'Unfold all shells, conformal',
      'Relax all shells',
    ]);
    await session.trials.name(session.trials.list[1].id, 'Even');
    await session.perform('relax', { steps: 1 });
    await settled();
    expect(session.trials.list.map(({ name, kept }) => [name, kept]).slice(1)).toEqual([
      ['Even', true],
      ['Relax all shells', false],
    ]);
  });

  it('of shells that are cut otherwise now are left out, or refused with a sentence, and fit again once the cut is undone', async () => {
    const session = open(hill());
    await session.perform('unfold', {});
    await settled();
    const [{ id }] = session.trials.list;
    // A slit from the border: the same faces, cut otherwise.
    const { connectivity } = topologyOf(session.document.model);
    const inner = [...connectivity.isInterior.keys()].find(
      (e) =>
        connectivity.isInterior[e] &&
        connectivity.edgeVertices[2 * e] === 4 &&
        connectivity.edgeVertices[2 * e + 1] === 13,
    );
    await session.perform('cut', { edges: [inner as number] });
    expect(shellsOf(session.document).shellCount).toBe(1);
    await expect(session.trials.take(id)).rejects.toThrow(/cut otherwise now. Undo the cut/);
    await session.undo();
    expect((await session.trials.take(id)).notes).toEqual([]);
    await session.perform('delete-faces', { faces: [0] });
    await expect(session.trials.take(id)).rejects.toThrow(/are no more/);
    await expect(session.trials.take(99)).rejects.toThrow(/not kept any more/);
  });

  it('are tried by both methods without touching the document', async () => {
    const session = open(hill());
    const before = session.document;
    const [one, other] = await session.trials.tryMethods('all');
    expect(session.document).toBe(before);
    expect(session.trials.list.map(({ shells }) => shells[0].method)).toEqual(['conformal', 'angle-based']);
    await session.trials.take(other);
    expect(session.document.method[0]).toBe(1);
    await session.trials.take(one);
    expect(session.document.method[0]).toBe(0);
  });

  it('are kept by hand, and refused where nothing lies flat', async () => {
    const session = open(hill());
    await expect(session.trials.keep()).rejects.toThrow(/Nothing lies flat/);
    await session.perform('unfold', {});
    await settled();
    const [{ id: made }] = session.trials.list;
    // What lies so already in a trial is that trial, kept from now on.
    expect(await session.trials.keep('Mine')).toMatchObject({ id: made, kept: true });
    await session.perform('transform-shells', { shells: [0], matrix: [1, 0, 0, 1, 0.1, 0] });
    const { id } = await session.trials.keep('Mine');
    expect(session.trials.get(id)).toMatchObject({ name: 'Mine', kept: true });
    await session.trials.drop(id);
    expect(session.trials.get(id)).toBeUndefined();
    await expect(session.trials.drop(id)).rejects.toThrow(/not kept any more/);
  });
});

describe('a trial', () => {
  it('tells of which UV set it is, also when it is read back, and one of before tells nothing', async () => {
    const session = open(hill());
    await session.perform('unfold', {});
    await session.perform('add-uv-set', { name: 'Light', from: 'nothing' });
    await session.perform('unfold', { method: 'angle-based' });
    await settled();
    const trials = session.trials.list;
    expect(trials.map(({ set }) => set)).toEqual([0, 1]);
    expect(trials.map((trial) => validateTrial(trial)?.set)).toEqual([0, 1]);
    const { set: _, ...before } = trials[0];
    expect(validateTrial(before)).toEqual(before);
    expect(validateTrial({ ...before, set: -1 })).toBeUndefined();
  });
});

describe('a trial that cannot be measured', () => {
  it.each([new HemError('worker-gone', 'A worker is gone.'), new TypeError('a bug')])(
    'takes nothing with it: the next is kept, and nothing hangs on it (%s)',
    async (fault) => {
      const session = open(hill());
      const before = session.document;
      await session.perform('unfold', {});
      let broken = true;
      const trials = sessionTrials(
        [],
        memoryPersistence(),
        {
          width: 1,
          run: (name, input, context) =>
            broken ? Promise.reject(fault) : localJobs.run(name, input, context),
        },
        () => undefined,
      );
      await trials.made(before, session.document, 'First', [0], Date.now()).catch(() => undefined);
      expect(trials.list).toEqual([]);
      broken = false;
      await trials.made(before, session.document, 'Second', [0], Date.now());
      await trials.settled();
      expect(trials.list.map(({ name }) => name)).toEqual(['Second']);
    },
  );
});

describe('the book of trials', () => {
  const trial = (name: string, numbers: number, kept = false): Omit<Trial, 'id'> => ({
    name,
    kept,
    made: 0,
    mesh: 0,
    shells: [
      {
        faces: 1,
        corners: new Uint32Array(0),
        uv: new Float64Array(numbers),
        method: 'conformal',
        relaxed: false,
      },
    ],
    figures: [],
  });

  it('lets go of the oldest that nobody named, and writes what it holds and no more', async () => {
    const written = new Map<number, string>();
    const persistence = {
      keepTrial: async ({ id, name }: Trial) => void written.set(id, name),
      dropTrial: async (id: number) => void written.delete(id),
    };
    const book = trialBook([], persistence, 9000);
    const names = () => book.list.map(({ name }) => name);
    await book.add(trial('a', 300, true));
    await book.add(trial('b', 300));
    await book.add(trial('c', 300));
    expect(names()).toEqual(['a', 'b', 'c']);
    await book.add(trial('d', 300));
    expect(names()).toEqual(['a', 'c', 'd']);
    expect([...written.values()]).toEqual(names());
    expect(book.bytes).toBeLessThanOrEqual(9000);
    // One that is too large by itself is not kept, and takes nothing with it.
    expect(await book.add(trial('huge', 3000))).toBeUndefined();
    await expect(book.add(trial('huge', 3000, true))).rejects.toThrow(/no room for another trial/);
    expect(names()).toEqual(['a', 'c', 'd']);
    // Numbers are not given twice.
    expect((await book.add(trial('e', 1)))?.id).toBe(4);
  });
});
