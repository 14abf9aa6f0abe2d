import 'fake-indexeddb/auto';
import { HemError } from '@blunt-hem/core/errors';
import { readProject, writeProject } from '@blunt-hem/core/persistence/projectFile';
import { findFault } from '@blunt-hem/core/persistence/validateDocument';
import { keptFile, keptStore } from '@blunt-hem/core/testing/kept';
import fc from 'fast-check';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { readBackup, writeBackup } from './backup.ts';
import { type Database, databaseNamed, openDatabase, tablesOf } from './database.ts';
import { loadProject, wholeAtOnce } from './loadProject.ts';
import { addProject } from './projects.ts';
import { rackRows } from './rack.ts';
import { projectsForBackup } from './rackBackup.ts';

/**
 * Every row of a store damaged, missing or of another kind, alone and in pairs: the project that it belongs to opens, can be had in
 * part, or is named; every other opens and is backed up.
 */

let database: Database;
let sound: ReadonlyMap<string, readonly object[]>;
let hurtId: string;
let otherId: string;

beforeAll(async () => {
  database = await openDatabase(databaseNamed('every-row'));
  const { project } = await readProject(keptFile('project-v7.hemproject'), 'x');
  // One as it is kept today, trial and view and all, beside it another.
  const { rows } = keptStore('store-v7.json');
  for (const [name, list] of Object.entries(rows)) await database.table(name).bulkAdd(list);
  const loaded = await loadProject(database, (rows.projects[0] as { id: string }).id);
  expect(loaded.trials).toHaveLength(1);
  const { project: whole } = await wholeAtOnce(database, loaded.row.id);
  hurtId = await addProject(database, { ...whole, name: 'Hurt' });
  for (const table of tablesOf(database)) await deleteOf(table.name, loaded.row.id);
  await database.views.put({ projectId: hurtId, view: { stage: 'cut' } });
  otherId = await addProject(database, { ...project, name: 'Other' });
  sound = new Map();
  const all = new Map<string, readonly object[]>();
  for (const { name } of tablesOf(database)) all.set(name, await database.table(name).toArray());
  sound = all;
});
afterAll(() => database.delete());

async function deleteOf(table: string, id: string): Promise<void> {
  const keys = (await database.table(table).toCollection().primaryKeys()) as (string | [string])[];
  await database.table(table).bulkDelete(keys.filter((key) => (Array.isArray(key) ? key[0] : key) === id));
}

type Row = Record<string, unknown>;

/** Rows of the project that is hurt, with the table each is of. */
const rowsOfHurt = (): [string, Row][] =>
  [...sound].flatMap(([name, rows]) =>
    (rows as Row[])
      .filter((row) => (row.projectId ?? row.id) === hurtId)
      .map((row): [string, Row] => [name, row]),
  );

/** A row with one character of a text, one byte or one number changed; or emptied, or of another kind. Undefined: the row is gone. */
function hurt(row: Row, how: number, at: number, keys: readonly string[]): Row | undefined {
  if (how === 0) return undefined;
  const kept = Object.fromEntries(keys.map((key) => [key, row[key]]));
  if (how === 1) return { ...kept, odd: 'another kind of row' };
  const fields = Object.keys(row).filter((key) => !keys.includes(key));
  if (fields.length === 0) return kept;
  const field = fields[at % fields.length];
  const value = row[field];
  if (how === 2) return { ...row, [field]: [null, 7, 'x', [], {}, Number.NaN][at % 6] };
  if (typeof value === 'string') {
    const i = at % Math.max(1, value.length);
    return { ...row, [field]: `${value.slice(0, i)}${value[i] === 'e' ? 'a' : 'e'}${value.slice(i + 1)}` };
  }
  if (value instanceof Uint8Array) {
    const bytes = value.slice();
    bytes[at % bytes.length] ^= 1 << (at % 8);
    return { ...row, [field]: bytes };
  }
  return { ...row, [field]: typeof value === 'number' ? value + 1 + (at % 3) : undefined };
}

const damage = fc.record({ row: fc.nat(), how: fc.nat(4), at: fc.noBias(fc.nat(2 ** 20)) });

async function put(
  damages: readonly { row: number; how: number; at: number }[],
): Promise<() => Promise<void>> {
  const rows = rowsOfHurt();
  const touched: [string, Row][] = [];
  for (const { row: which, how, at } of damages) {
    const [name, row] = rows[which % rows.length];
    const table = database.table(name);
    const keys = [table.schema.primKey.keyPath as string | string[]].flat();
    const next = hurt(row, how, at, keys);
    const key = keys.length > 1 ? keys.map((each) => row[each]) : row[keys[0]];
    if (next) await table.put(next);
    else await table.delete(key as string);
    touched.push([name, row]);
  }
  return async () => {
    for (const [name, row] of touched) await database.table(name).put(row);
  };
}

/** Whether the project is whole, can be had in part, or is only named as lost. */
async function whatIsLeft(): Promise<'whole' | 'part' | 'named'> {
  const rows = await rackRows(database);
  const row = rows.find(({ id }) => id === hurtId);
  expect(row).toBeDefined();
  let opens = true;
  try {
    const { document } = await loadProject(database, hurtId);
    expect(findFault(document)).toBeUndefined();
  } catch (error) {
    expect(error).toBeInstanceOf(HemError);
    opens = false;
  }
  try {
    const { project } = await wholeAtOnce(database, hurtId);
    expect(findFault(project.document)).toBeUndefined();
    const { loss } = await readProject(await writeProject(project), 'x');
    expect(loss).toBeUndefined();
    return opens ? 'whole' : 'part';
  } catch (error) {
    expect(error).toBeInstanceOf(HemError);
    expect(opens).toBe(false);
    return 'named';
  }
}

async function othersAreWhole(expected: 'whole' | 'part' | 'named'): Promise<void> {
  expect((await rackRows(database)).find(({ id }) => id === otherId)).toMatchObject({
    name: 'Other',
    damage: undefined,
  });
  expect((await loadProject(database, otherId)).history.done).toBe(5);
  const losses: string[] = [];
  const { file, projects } = await writeBackup(
    projectsForBackup(database, writeProject, losses, () => undefined),
  );
  expect(projects).toBe(expected === 'named' ? 1 : 2);
  const back: string[] = [];
  const told = await readBackup(file, 'x.hemrack', async ({ facts }) => {
    back.push(facts.id);
  });
  expect(told).toEqual([]);
  expect(back).toContain(otherId);
  if (expected !== 'whole') expect(losses.join(' ')).not.toBe('');
}

const RUNS = 150;

describe('every row', () => {
  it.each([1, 2])('damaged, missing or of another kind, %i at a time', async (atATime) => {
    const seen = new Map<string, number>();
    const list = fc.array(damage, { minLength: atATime, maxLength: atATime });
    await fc.assert(
      fc.asyncProperty(list, async (damages) => {
        const mend = await put(damages);
        const left = await whatIsLeft();
        seen.set(left, (seen.get(left) ?? 0) + 1);
        await othersAreWhole(left);
        await mend();
      }),
      { numRuns: RUNS },
    );
    expect(await whatIsLeft()).toBe('whole');
    for (const left of ['whole', 'part']) expect(seen.get(left) ?? 0).toBeGreaterThan(10);
  });

  it('missing by itself loses no model but with the piece that holds its points', async () => {
    const rows = rowsOfHurt();
    const lost: string[] = [];
    for (const [i, [name]] of rows.entries()) {
      const mend = await put([{ row: i, how: 0, at: 0 }]);
      if ((await whatIsLeft()) === 'named') lost.push(name);
      await mend();
    }
    expect(rows.length).toBeGreaterThan(20);
    expect(lost).toEqual(['pieces']);
  });

  it('with one character changed anywhere in the text of a base still gives the model', async () => {
    const rows = rowsOfHurt();
    const base = rows.findIndex(([name, row]) => name === 'records' && row.number === -1);
    for (let at = 0; at < 4000; at += 37) {
      const mend = await put([{ row: base, how: 3, at }]);
      expect(await whatIsLeft()).toBe('whole');
      await mend();
    }
  });
});
