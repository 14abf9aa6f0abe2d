import 'fake-indexeddb/auto';
import { type HemDocument, openDocument } from '@blunt-hem/core/document/document';
import { type Act, emptyHistory } from '@blunt-hem/core/document/history';
import { HemError } from '@blunt-hem/core/errors';
import { localJobs } from '@blunt-hem/core/jobs/index';
import { modelFromMesh } from '@blunt-hem/core/mesh/model';
import { memoryPersistence } from '@blunt-hem/core/session/persistence';
import { openSession, type Session } from '@blunt-hem/core/session/session';
import { cube } from '@blunt-hem/core/testing/shapes';
import fc from 'fast-check';
import { afterEach, describe, expect, it } from 'vitest';
import { type Database, databaseNamed, openDatabase } from './database.ts';
import { databasePersistence } from './databasePersistence.ts';
import { type Fault, isDead, spoilWrite, writes } from './faultyStore.ts';
import { loadProject } from './loadProject.ts';
import { addProject, renewBase } from './projects.ts';

/**
 * Random work on a stored project, with something going wrong at each write in turn. What was told as done is there afterwards, to the
 * byte, with every act to take back; what was told as failed is not there.
 */

const step = fc.oneof(
  fc.record({
    kind: fc.constant('cut' as const),
    edges: fc.uniqueArray(fc.nat(11), { minLength: 1, maxLength: 5 }),
  }),
  fc.record({ kind: fc.constant('hide' as const), face: fc.nat(3) }),
  fc.record({ kind: fc.constantFrom('relax', 'undo', 'redo', 'reopen', 'delete', 'fold') }),
);
type Step = typeof step extends fc.Arbitrary<infer T> ? T : never;

const START = openDocument(modelFromMesh('Cube', cube()));
let names = 0;
const databases: Database[] = [];

afterEach(async () => {
  spoilWrite(undefined);
  await Promise.all(databases.splice(0).map((database) => database.delete()));
});

/** A store with one project in it, as a page sees it that was just loaded. */
class Page {
  session!: Session;
  constructor(
    readonly database: Database,
    readonly id: string,
  ) {}

  static async fresh(): Promise<Page> {
    const database = await openDatabase(databaseNamed(`faults-${names++}`));
    databases.push(database);
    const id = await addProject(database, { name: 'Cube', document: START, history: emptyHistory });
    const page = new Page(database, id);
    await page.open();
    return page;
  }

  /** The same store, in a new page. */
  async again(): Promise<Page> {
    this.database.close();
    const database = await openDatabase(databaseNamed(this.database.name));
    databases.push(database);
    const page = new Page(database, this.id);
    await page.open();
    return page;
  }

  async open(): Promise<void> {
    const { row, document, history, base } = await loadProject(this.database, this.id);
    const persistence = { ...databasePersistence(this.database, { row, base }), memory: 500 };
    this.session = openSession({ document, history, persistence, jobs: localJobs });
  }

  async take(each: Step): Promise<void> {
    const { session, database, id } = this;
    switch (each.kind) {
      case 'cut':
        await session.perform('cut', { edges: (each as { edges: number[] }).edges });
        return;
      case 'hide':
        await session.perform('hide', { faces: [(each as { face: number }).face] });
        return;
      case 'relax':
        await session.perform('relax', {});
        return;
      case 'delete':
        await session.perform('delete-faces', { faces: [0] });
        return;
      case 'undo':
        await session.undo();
        return;
      case 'redo':
        await session.redo();
        return;
      case 'reopen':
        await session.close();
        await this.open();
        return;
      case 'fold': {
        // As long histories are folded, with room for what is small only; the session is opened on what is left.
        await session.close();
        const { base } = await loadProject(database, id);
        await renewBase(database, id, session.document, await this.numberOfDone(), base, 2000);
        await this.open();
      }
    }
  }

  private async numberOfDone(): Promise<number> {
    return (await this.database.projects.get(this.id))?.done as number;
  }
}

/** Every state of a history, worked out anew from what was done, in memory. */
async function statesOf(start: HemDocument, acts: readonly Act[]): Promise<HemDocument[]> {
  const session = openSession({
    document: start,
    history: emptyHistory,
    persistence: memoryPersistence(),
    jobs: localJobs,
  });
  const states = [start];
  for (const { operation, params } of acts) {
    await session.perform(operation as 'hide', params as never, { alone: true });
    states.push(session.document);
  }
  return states;
}

const plain = (acts: readonly Act[]) =>
  acts.map(({ operation, params, group }) => ({ operation, params, group }));

/** What a page was told stands, and what it can be taken back to. */
interface Told {
  readonly acts: readonly Act[];
  readonly done: number;
  readonly document: HemDocument;
}
const toldBy = ({ session: { history, document } }: Page): Told => ({ ...history, document });

/** Whether the store has exactly that, down to the first act. */
async function expectStored(page: Page, told: Told): Promise<void> {
  const opened = await page.again();
  const { session } = opened;
  expect(plain(session.history.acts)).toEqual(plain(told.acts));
  expect(session.history.done).toBe(told.done);
  expect(session.document).toEqual(told.document);
  await expectTravel(session);
}

/** Takes back everything and does it again, against the states worked out anew. */
async function expectTravel(session: Session): Promise<void> {
  const { acts } = session.history;
  while (await session.undo());
  const states = await statesOf(session.document, acts);
  expect(session.history.done).toBe(0);
  for (;;) {
    expect(session.document).toEqual(states[session.history.done]);
    if (!(await session.redo())) break;
  }
  expect(session.history.done).toBe(acts.length);
}

/** Works through steps; a step that fails is told as failed and leaves things as they were told before. */
async function work(page: Page, steps: readonly Step[]): Promise<Told> {
  let told = toldBy(page);
  for (const each of steps) {
    try {
      await page.take(each);
    } catch (error) {
      if (isDead()) return told;
      // The only failures are sentences, and those of saving say so.
      expect(error).toBeInstanceOf(HemError);
      if (each.kind === 'fold' || each.kind === 'reopen') await page.open();
      else expect(toldBy(page)).toEqual(told);
    }
    told = toldBy(page);
  }
  return told;
}

/** Scripts of steps, each of which has something go wrong at each of its writes. */
const SCRIPTS = Number(process.env.HEM_SCRIPTS ?? 2);

describe.each<Fault>(['refused', 'aborted', 'slow', 'killed'])('a write that is %s', (fault) => {
  it('loses nothing that was told as done, and leaves nothing that was not', async () => {
    let tried = 0;
    await fc.assert(
      fc.asyncProperty(fc.array(step, { minLength: 4, maxLength: 7 }), async (steps) => {
        const dry = await Page.fresh();
        spoilWrite(undefined);
        await work(dry, steps);
        const total = writes();
        for (let at = 1; at <= total; at++) {
          const page = await Page.fresh();
          spoilWrite({ at, fault });
          const told = await work(page, steps);
          const killed = isDead();
          spoilWrite(undefined);
          tried++;
          if (!killed) {
            await expectStored(page, told);
            continue;
          }
          // Killed in the middle of a step: the step is there or it is not, and whatever is there is whole.
          const { session } = await page.again();
          const { acts, done } = session.history;
          const common = Math.min(acts.length, told.acts.length, told.done);
          expect(plain(acts.slice(0, common))).toEqual(plain(told.acts.slice(0, common)));
          if (done === told.done && acts.length === told.acts.length)
            expect(session.document).toEqual(told.document);
          await expectTravel(session);
        }
      }),
      { numRuns: SCRIPTS },
    );
    expect(tried).toBeGreaterThan(20);
  });
});
