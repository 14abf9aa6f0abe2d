import { upgradedDelta } from '@blunt-hem/core/document/upgrade';
import type { Database, OldDeltaRow } from './database.ts';

/** What databases of version 1 and 2 kept, as it would be kept today. It stays as it is until something newer takes its place. */

/**
 * The base of a project; undefined when it has none of that age.
 *
 * @returns with the act before which it stands, and whether that is always the first one that is kept, as in version 1
 */
export async function olderBase(
  { bases }: Database,
  id: string,
): Promise<{ readonly document: unknown; readonly at: unknown; readonly first: boolean } | undefined> {
  const row = (await bases.get(id)) as { document?: never; at?: number; firstAct?: number } | undefined;
  if (!row) return undefined;
  // Version 1 had it always before the first act that was kept, and counted from there.
  return {
    document: row.document,
    at: row.at ?? row.firstAct,
    first: row.at === undefined,
  };
}

/** What an act changed; undefined when nothing of that age is kept of it. */
export async function olderDelta(
  { patches, acts }: Database,
  id: string,
  number: number,
): Promise<unknown | undefined> {
  const row =
    (await patches.get([id, number])) ?? ((await acts.get([id, number])) as Partial<OldDeltaRow> | undefined);
  return row?.patch && upgradedDelta(row.patch);
}
