import type { Delta } from '@blunt-hem/core/document/delta';
import type { Act, KeptAct } from '@blunt-hem/core/document/history';
import { HemError } from '@blunt-hem/core/errors';
import { type Checksum, checksums } from '@blunt-hem/core/persistence/checksum';
import type { Project } from '@blunt-hem/core/persistence/projectFile';
import { isValidAct, validateAct, validateDelta } from '@blunt-hem/core/persistence/validateDelta';
import { walkActs } from '@blunt-hem/core/persistence/walkActs';
import { readBase } from './bases.ts';
import { type Database, tablesOf } from './database.ts';
import { olderDelta } from './older.ts';
import { gone, type Stored } from './projects.ts';
import { readable } from './reading.ts';
import { readRecord } from './records.ts';
import { soundRow } from './rows.ts';
import { readTrials } from './trials.ts';

/** What is read of projects. Nothing that is read is believed before it has been checked. */

/** As much of a project as is whole. */
export interface Loaded extends Stored {
  /** What is damaged, for the artist; undefined when nothing that was looked at is. */
  readonly damage?: string;
  /** Trials that are damaged: no reason not to open the project, and told when it is handed on. */
  readonly lostTrials: number;
}

/**
 * Reads a project as it was left: its base, and from there on or back what was done.
 *
 * @throws HemError `damaged` when not all of that is whole; `no-such-project` when there is none of that id
 */
export async function loadProject(database: Database, id: string): Promise<Stored> {
  const { damage, lostTrials: _, ...stored } = await loadWhole(database, id);
  if (damage) throw new HemError('damaged', damage);
  return stored;
}

/**
 * Reads what is whole of a project: its last state that can be reached, and acts as far as they follow one another. Where its row on
 * the Rack is lost, all that is there stands.
 *
 * @throws HemError when not even its model is whole, or there is none of that id
 */
export async function loadWhole(database: Database, id: string): Promise<Loaded> {
  const checksum = await checksums();
  if (!(await isAnythingOf(database, id))) throw gone();
  const base = await readBase(database, id, checksum);
  const { name } = base.document.model;
  const { row, problem } = soundRow((await readable(database.projects.get(id))) ?? { id, name });
  if (!row) throw gone();
  const { at = 0 } = base;
  const kept = await soundActs(database, id, base.first);
  let checksumDiffers = base.checksumDiffers;
  const deltaOf = async (number: number) => {
    const read = await readUnverified(database, id, number, checksum);
    checksumDiffers ||= read.checksumDiffers;
    return read.delta;
  };
  let [first, last] = [at, at];
  if (base.at !== undefined) {
    while (kept.has(first - 1)) first--;
    while (kept.has(last)) last++;
  }
  // Version 1 counted from its base on, until something newer was kept; where the count is lost, all that is there stands.
  const counted = base.first && row.firstAct === undefined ? at + (row.done ?? 0) : row.done;
  const done = counted ?? last;
  const firstAct = row.firstAct ?? first;
  const wanted = Math.max(first, Math.min(last, done));
  const { document, reached } = await walkActs(base.document, at, wanted, deltaOf);
  // What lies beyond an act that is not whole cannot be reached.
  if (reached < wanted) last = reached;
  if (reached > wanted) first = reached;
  const acts: Act[] = [];
  for (let i = first; i < last; i++) acts.push(kept.get(i) as Act);
  const whole = firstAct === first && done === reached && kept.total === last - first;
  const told = problem ?? (checksumDiffers ? CHECKSUM_DIFFERS : undefined);
  const damage = base.problem ?? (whole ? told : inWords(done - first, reached - first, acts));
  const { trials, lost: lostTrials } = await readTrials(database, id);
  return {
    row: { ...row, firstAct: first, done: reached },
    document,
    history: { acts, done: reached - first },
    trials,
    lostTrials,
    base: { at, slot: base.slot },
    damage,
  };
}

/** A checksum differs, and nothing else that can be seen. */
const CHECKSUM_DIFFERS =
  'Something of it is not as it was written: a checksum differs. All of it can be read; look it over before you go on.';

function inWords(done: number, reached: number, acts: readonly Act[]): string {
  const state =
    reached === 0 ? 'as it was before its first act' : `as it was after “${acts[reached - 1].label}”`;
  return done === reached
    ? 'Some of what was done before is damaged in the store. The project itself is whole.'
    : `Some of what was done is damaged in the store. The project is whole ${state}.`;
}

/** Whether anything at all is kept under an id. */
async function isAnythingOf({ projects, acts, records }: Database, id: string): Promise<boolean> {
  if ((await projects.where('id').equals(id).count()) > 0) return true;
  for (const table of [acts, records]) {
    const range = table.where('[projectId+number]').between([id, -Infinity], [id, Infinity]);
    if ((await range.count()) > 0) return true;
  }
  return false;
}

/** Rows that are read at a time. */
const SOME = 256;

/** Acts that have the shape of acts and of which it is kept what they changed, by number; and how many there are of whatever shape. */
async function soundActs(
  database: Database,
  id: string,
  withPatches: boolean,
): Promise<Map<number, Act> & { readonly total: number }> {
  const { keys, patched } = await actKeys(database, id);
  const kept = new Map<number, Act>();
  // In databases of version 1 their patches come with them: one at a time.
  const step = withPatches ? 1 : SOME;
  for (let i = 0; i < keys.length; i += step) {
    const rows = await readable(database.acts.bulkGet(keys.slice(i, i + step)));
    for (const row of rows ?? []) {
      if (!row || !(patched.has(row.number) || 'patch' in row)) continue;
      if (isValidAct(row)) kept.set(row.number, validateAct(row));
    }
  }
  return Object.assign(kept, { total: keys.length });
}

/** Keys of the acts of a project, and numbers of those of which it is kept what they changed. */
export async function actKeys({ acts, records, patches }: Database, id: string) {
  const all = [
    [id, 0],
    [id, Infinity],
  ] as const;
  const keys = await acts
    .where('[projectId+number]')
    .between(...all)
    .primaryKeys();
  const patched = new Set<number>();
  for (const table of [records, patches]) {
    const found = await table
      .where('[projectId+number]')
      .between(...all)
      .primaryKeys();
    for (const [, number] of found) patched.add(number);
  }
  return { keys, patched };
}

/**
 * What an act changed.
 *
 * @throws HemError when it is damaged or missing
 */
export async function readPatch(
  database: Database,
  id: string,
  number: number,
  checksum: Checksum,
): Promise<Delta> {
  const { delta, checksumDiffers } = await readUnverified(database, id, number, checksum);
  if (checksumDiffers) throw new HemError('damaged', 'What an act changed is damaged: a checksum differs.');
  return delta;
}

/** The same of a project that is being looked through: one whose checksum alone differs is taken, and that is told. */
async function readUnverified(
  database: Database,
  id: string,
  number: number,
  checksum: Checksum,
): Promise<{ readonly delta: Delta; readonly checksumDiffers: boolean }> {
  const reading = await readable(readRecord(database, id, number, checksum));
  if (reading) {
    const { value, unverified, checksumDiffers } = reading;
    return { delta: validateDelta(checksumDiffers ? unverified : value), checksumDiffers };
  }
  return { delta: validateDelta(await readable(olderDelta(database, id, number))), checksumDiffers: false };
}

export interface Whole {
  readonly project: Project;
  readonly stored: Loaded;
  /** What is not in it, for the artist. */
  readonly damage?: string;
}

/**
 * A project with all its acts, for handing it on, as much of it as is whole.
 *
 * @throws HemError when not even its model is
 */
export async function wholeProject(database: Database, id: string): Promise<Whole> {
  const stored = await loadWhole(database, id);
  const { row, document, history, trials } = stored;
  const checksum = await checksums();
  const deltas = new Map<number, Delta>();
  let checksumDiffers = false;
  const deltaOf = async (i: number) => {
    const read = await readUnverified(database, id, row.firstAct + i, checksum);
    checksumDiffers ||= read.checksumDiffers;
    deltas.set(i, read.delta);
    return read.delta;
  };
  const first = (await walkActs(document, history.done, 0, deltaOf)).reached;
  const last = (await walkActs(document, history.done, history.acts.length, deltaOf)).reached;
  const acts = history.acts
    .slice(first, last)
    .map((act, i): KeptAct => ({ ...act, delta: deltas.get(first + i) as Delta }));
  const lost = history.acts.length - acts.length;
  return {
    project: { name: row.name, document, history: { acts, done: history.done - first }, trials },
    stored,
    damage:
      stored.damage ??
      (lost > 0
        ? inWords(history.done, history.done, history.acts)
        : checksumDiffers
          ? CHECKSUM_DIFFERS
          : undefined) ??
      (stored.lostTrials > 0 ? `${stored.lostTrials} of its trials are damaged in the store.` : undefined),
  };
}

/**
 * The same of a project that another tab may be writing to: all of it as it was at one moment. What the other tab writes meanwhile
 * waits until it has been read.
 *
 * @throws HemError as `wholeProject`
 */
export async function wholeAtOnce(database: Database, id: string): Promise<Whole> {
  // Made ready before: a transaction ends by itself where anything but the store is waited for.
  await checksums();
  return database.transaction('r', tablesOf(database), async () => wholeProject(database, id));
}
