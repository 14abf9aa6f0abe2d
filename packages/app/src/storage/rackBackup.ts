import { HemError } from '@blunt-hem/core/errors';
import type { Project } from '@blunt-hem/core/persistence/projectFile';
import type { BackedUp } from './backup.ts';
import type { Database } from './database.ts';
import { wholeAtOnce } from './loadProject.ts';
import { addProject } from './projects.ts';
import { keptIds } from './rack.ts';
import { readable } from './reading.ts';
import { soundRow, soundView } from './rows.ts';
import { saving } from './saving.ts';

/** The Rack on its way into a backup, and back. */

/** What has come of a backup that is being put back. */
export interface Restored {
  readonly projects: number;
  /** Projects that were on the Rack already as they are in the backup. */
  readonly already: number;
  /** What could not be read or kept, for the artist. */
  readonly losses: readonly string[];
}

/**
 * Every project for a backup, one after the other, each as it is at one moment.
 *
 * @param fileOf  makes the file of a project
 * @param losses  takes in what is not whole of them, for the artist: whatever is wrong with one, the others are in it
 */
export async function* projectsForBackup(
  database: Database,
  fileOf: (project: Project) => Promise<Uint8Array>,
  losses: string[],
  report: (fraction: number) => void,
): AsyncGenerator<BackedUp<Uint8Array>> {
  const ids = new Set([
    ...(await database.projects.toCollection().primaryKeys()),
    ...(await keptIds(database)),
  ]);
  let done = 0;
  for (const id of ids) {
    const { row } = soundRow((await readable(database.projects.get(id))) ?? { id });
    const name = (row?.name ?? id).slice(0, 60);
    try {
      const { project, damage } = await wholeAtOnce(database, id);
      const { created = 0, updated = 0, deleted, picture } = row ?? {};
      const content = await fileOf(project);
      if (damage) losses.push(`“${name}”: ${damage}`);
      const facts = { id, name: project.name, created, updated, deleted };
      yield { facts, content, picture, view: await viewOf(database, id) };
    } catch (error) {
      // Taken off by another tab since its name was read: it is not missing.
      if (!(error instanceof HemError) || error.code !== 'no-such-project')
        losses.push(`“${name}” is not in it: ${(error as Error).message}`);
    }
    report(++done / ids.size);
  }
}

/** How the Bench of a project was left; undefined when that is not kept, or garbled. */
export const viewOf = async (database: Database, id: string): Promise<unknown> =>
  soundView((await readable(database.views.get(id)))?.view);

export async function keepView(database: Database, projectId: string, view: unknown): Promise<void> {
  await saving(database.views.put({ projectId, view }));
}

/**
 * Takes in one project of a backup. One that is here as it is there is left alone; none is written over.
 *
 * @param told  what has come of the backup so far
 * @returns what has come of it after that
 */
export async function restoreProject(
  database: Database,
  { facts, content, picture, view }: BackedUp<Project>,
  told: Restored,
): Promise<Restored> {
  const { id, ...others } = facts;
  try {
    const here = await readable(database.projects.get(id));
    const same = ({ updated }: { readonly updated: number }) => updated === facts.updated;
    // One that was changed here since is put back beside it once, and not at every try.
    const copies = await database.projects.filter((row) => row.from === id && same(row)).count();
    if ((here && same(here)) || copies > 0) return { ...told, already: told.already + 1 };
    const taken = here !== undefined || (await keptIds(database)).includes(id);
    const made = await addProject(database, content, {
      ...others,
      picture,
      ...(taken ? { from: id } : { id }),
    });
    if (soundView(view)) await keepView(database, made, view);
    return { ...told, projects: told.projects + 1 };
  } catch (error) {
    if (!(error instanceof HemError)) throw error;
    const name = facts.name.slice(0, 60);
    return { ...told, losses: [...told.losses, `“${name}” was not put back. ${error.message}`] };
  }
}
