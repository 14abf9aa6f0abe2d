import type { HemDocument } from '@blunt-hem/core/document/document';
import { plainDocument } from '@blunt-hem/core/document/document';
import { HemError } from '@blunt-hem/core/errors';
import type { Project } from '@blunt-hem/core/formats/projectFile';
import type { Jobs } from '@blunt-hem/core/jobs/index';
import { unattended } from '@blunt-hem/core/progress';
import { liveQuery } from 'dexie';
import type { Database } from '../storage/database.ts';
import {
  addProject,
  keptActs,
  loadProject,
  newProject,
  purgeDeleted,
  type Stored,
  storeProject,
} from '../storage/projects.ts';
import { saving } from '../storage/saving.ts';
import type { FileBytes, RackRow } from './protocol.ts';

const PICTURE = { width: 320, height: 208 };

/** How long what was taken off the Rack can be put back, milliseconds. */
const GRACE = 60_000;

/** The demo models, last first: the newest project stands first on the Rack. */
const DEMOS = ['punt-thwart', 'reed-punt', 'gourd-lantern', 'toad-ferryman'];

/** Puts projects on the Rack, takes them off, and hands them on. */
export function rackDesk(database: Database, jobs: Jobs) {
  const pictureOf = async (document: HemDocument): Promise<Blob> => {
    const pixels = await jobs.run('picture', { document: plainDocument(document), ...PICTURE }, unattended);
    return pngOf(pixels, PICTURE.width, PICTURE.height);
  };
  /** The project that was just made: it can be opened while it is being stored. */
  let fresh: { readonly stored: Stored; readonly saved: Promise<void> } | undefined;
  let watching: { unsubscribe(): void } | undefined;

  const fileOf = async (project: Project): Promise<FileBytes> => ({
    fileName: `${project.name}.hemproject`,
    bytes: await jobs.run('write-project', project, unattended),
  });

  const add = (project: Project): string => {
    const stored = newProject(project);
    const saved = storeProject(database, stored, project.history.acts);
    saved.catch(() => undefined); // heard by who opens it
    fresh = { stored, saved };
    return stored.row.id;
  };

  return {
    add,
    /** What was made last, once. */
    justMade(id: string) {
      const made = fresh;
      fresh = undefined;
      return made?.stored.row.id === id ? made : undefined;
    },
    watch(listen: (rows: readonly RackRow[]) => void, fail: () => void): void {
      watching?.unsubscribe();
      const rows = () => database.projects.orderBy('updated').reverse().toArray();
      watching = liveQuery(rows).subscribe({ next: listen, error: fail });
    },
    async addDemos(): Promise<void> {
      const { readProject } = await import('@blunt-hem/core/formats/projectFile');
      const brought = await Promise.all(
        DEMOS.map(async (name) => {
          const [project, picture] = await Promise.all([
            fetch(`/demo/${name}.hemproject`).then((answer) => answer.arrayBuffer()),
            fetch(`/demo/${name}.png`).then((answer) => answer.blob()),
          ]);
          return { project: readProject(new Uint8Array(project), name), picture };
        }),
      );
      for (const { project, picture } of brought) await addProject(database, project, picture);
    },
    async mark(id: string, deleted: number | undefined): Promise<void> {
      if ((await saving(database.projects.update(id, { deleted }))) === 0)
        throw new HemError('no-such-project', 'This project is not on the Rack any more.');
    },
    purge: () => saving(purgeDeleted(database, Date.now() - GRACE)),
    async keepPicture(id: string, document: HemDocument): Promise<void> {
      await database.projects.update(id, { picture: await pictureOf(document) });
    },
    viewOf: async (id: string): Promise<unknown> => (await database.views.get(id))?.view,
    async keepView(projectId: string, view: unknown): Promise<void> {
      await saving(database.views.put({ projectId, view }));
    },
    /** A project as a file, from the store. */
    async exported(id: string): Promise<FileBytes> {
      const { row, document, history } = await loadProject(database, id);
      const acts = await keptActs(database, id);
      return fileOf({ name: row.name, document, history: { acts, done: history.done } });
    },
    fileOf,
  };
}

/** A picture as a PNG. */
export function pngOf(pixels: Uint8ClampedArray, width: number, height: number): Promise<Blob> {
  const canvas = new OffscreenCanvas(width, height);
  canvas.getContext('2d')?.putImageData(new ImageData(new Uint8ClampedArray(pixels), width), 0, 0);
  return canvas.convertToBlob({ type: 'image/png' });
}
