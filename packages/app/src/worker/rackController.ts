import type { HemDocument } from '@blunt-hem/core/document/document';
import { plainDocument } from '@blunt-hem/core/document/document';
import type { KeptAct } from '@blunt-hem/core/document/history';
import { HemError } from '@blunt-hem/core/errors';
import { fileNameOf } from '@blunt-hem/core/formats/fileName';
import type { Jobs } from '@blunt-hem/core/jobs/index';
import type { Project } from '@blunt-hem/core/persistence/projectFile';
import { unattended } from '@blunt-hem/core/progress';
import { liveQuery } from 'dexie';
import type { BackedUp } from '../storage/backup.ts';
import { type Database, openDatabase } from '../storage/database.ts';
import { KEPT_OFF } from '../storage/limits.ts';
import { wholeAtOnce } from '../storage/loadProject.ts';
import { addProject, changeRow, newProject, type Stored, storeProject } from '../storage/projects.ts';
import { deleteForGood, emptyOff, putBack, type RackRow, rackRows, takeOff } from '../storage/rack.ts';
import { keepView, projectsForBackup, type Restored, restoreProject, viewOf } from '../storage/rackBackup.ts';
import { checkRoom, roomLeft } from '../storage/room.ts';
import { saving } from '../storage/saving.ts';
import { NOT_LOADED } from './liveness.ts';
import type { FileBytes } from './protocol.ts';

const PICTURE = { width: 320, height: 208 };

/** The demo models, last first: the newest project stands first on the Rack. */
const DEMOS = [
  'punt-thwart',
  'reed-punt',
  'mooring-post',
  'gourd-lantern',
  'heron-hood',
  'toad-ferryman',
] as const;
/** A dense one, brought when it is asked for. */
const DENSE_DEMO = 'mud-snail';

/** A project that was just made: it can be opened while it is being stored. */
export interface Fresh {
  readonly stored: Stored;
  readonly acts: readonly KeptAct[];
  readonly saved: Promise<void>;
}

/** Puts projects on the Rack, takes them off, and hands them on. */
export function rackController(database: Database, jobs: Jobs) {
  const { locks } = navigator;
  const pictureOf = async (document: HemDocument): Promise<Blob> => {
    const pixels = await jobs.run('picture', { document: plainDocument(document), ...PICTURE }, unattended);
    return pngOf(pixels, PICTURE.width, PICTURE.height);
  };
  let fresh: Fresh | undefined;
  let watching: { unsubscribe(): void } | undefined;

  const fileOf = async (project: Project, loss?: string): Promise<FileBytes> => ({
    fileName: fileNameOf(project.name, 'hemproject'),
    bytes: await jobs.run('write-project', project, unattended),
    loss,
  });

  return {
    /**
     * @param anyway  even if there is no room to keep it
     * @throws HemError when there is not
     */
    async add(project: Project, anyway: boolean): Promise<string> {
      if (!anyway) checkRoom(project, await roomLeft());
      const stored = newProject(project);
      const { acts } = project.history;
      const saved = openDatabase(database).then(() => storeProject(database, stored, acts));
      saved.catch(() => undefined); // heard by who opens it
      fresh = { stored, acts, saved };
      return stored.row.id;
    },
    /** What was made last, once. */
    justMade(id: string): Fresh | undefined {
      const made = fresh;
      fresh = undefined;
      return made?.stored.row.id === id ? made : undefined;
    },
    watch(listen: (rows: readonly RackRow[]) => void, fail: (sentence: string) => void): void {
      watching?.unsubscribe();
      watching = liveQuery(() => rackRows(database)).subscribe({
        next: listen,
        error: (error: Error) => fail(error.message),
      });
    },
    leave: () => watching?.unsubscribe(),
    async addDemos(dense: boolean): Promise<void> {
      const { readProject } = await import('@blunt-hem/core/persistence/projectFile');
      const brought = await Promise.all(
        (dense ? [DENSE_DEMO] : DEMOS).map(async (name) => {
          const [project, picture] = await Promise.all([
            served(`/demo/${name}.hemproject`).then((answer) => answer.arrayBuffer()),
            served(`/demo/${name}.webp`).then((answer) => answer.blob()),
          ]);
          return { ...(await readProject(new Uint8Array(project), name)), picture };
        }),
      );
      for (const { project, picture } of brought) await addProject(database, project, { picture });
    },
    takeOff: (id: string) => takeOff(database, locks, id, Date.now()),
    putBack: (id: string) => putBack(database, locks, id),
    deleteForGood: (id: string) => deleteForGood(database, locks, id),
    emptyOff: (all: boolean) => emptyOff(database, locks, all ? Infinity : Date.now() - KEPT_OFF),
    async keepPicture(id: string, picture: Blob): Promise<void> {
      await saving(changeRow(database, id, { picture }));
    },
    /** Without a graphics card, where the Bench has not drawn the document as it is. */
    async drawPicture(id: string, document: HemDocument): Promise<void> {
      await this.keepPicture(id, await pictureOf(document));
    },
    /** Has the Rack show from now on what was found on opening; where that cannot be written it is found again. */
    rememberDamage: (id: string, damage: string): Promise<void> =>
      changeRow(database, id, { damage }).catch(() => undefined),
    viewOf: (id: string) => viewOf(database, id),
    keepView: (id: string, view: unknown) => keepView(database, id, view),
    /** A project as a file, from the store: what is whole of it. */
    async exported(id: string): Promise<FileBytes> {
      const { project, damage } = await wholeAtOnce(database, id);
      return fileOf(project, damage);
    },
    async rescue(id: string): Promise<string> {
      const { project, stored } = await wholeAtOnce(database, id);
      return this.add({ ...project, name: `${stored.row.name}, what is whole` }, true);
    },
    async backUp(report: (fraction: number) => void) {
      const { writeBackup } = await import('../storage/backup.ts');
      const losses: string[] = [];
      const contentOf = async (project: Project) => (await fileOf(project)).bytes;
      const backup = await writeBackup(projectsForBackup(database, contentOf, losses, report));
      return { ...backup, losses };
    },
    restoreOne: (project: BackedUp<Project>, told: Restored) => restoreProject(database, project, told),
    fileOf,
  };
}

/** What the server gives under a path. */
async function served(path: string): Promise<Response> {
  const answer = await fetch(path);
  if (!answer.ok) throw new HemError('not-loaded', `${NOT_LOADED} (${path}: ${answer.status})`);
  return answer;
}

/** A picture as a PNG. */
export function pngOf(pixels: Uint8ClampedArray, width: number, height: number): Promise<Blob> {
  const canvas = new OffscreenCanvas(width, height);
  canvas.getContext('2d')?.putImageData(new ImageData(new Uint8ClampedArray(pixels), width), 0, 0);
  return canvas.convertToBlob({ type: 'image/png' });
}
