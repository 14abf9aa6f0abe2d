import type { HemDocument } from '@blunt-hem/core/document/document';
import { HemError } from '@blunt-hem/core/errors';
import { buffersIn } from '@blunt-hem/core/jobs/buffersIn';
import type { Jobs } from '@blunt-hem/core/jobs/index';
import type { Hands } from '@blunt-hem/core/session/hands';
import * as Comlink from 'comlink';
import type { Database } from '../storage/database.ts';
import { databasePersistence } from '../storage/databasePersistence.ts';
import { loadProject } from '../storage/loadProject.ts';
import { type Lock, lockProject } from '../storage/locks.ts';
import { addProject } from '../storage/projects.ts';
import { shownName } from '../storage/rack.ts';
import { answer } from './answer.ts';
import type { workerPool } from './pool.ts';
import type { Answer, BenchEvent, ProjectApi } from './protocol.ts';
import type { rackController } from './rackController.ts';
import type { SessionController } from './sessionController.ts';
import type { Stored } from './stored.ts';

/** The picture of a new project is made when the first look at it is over, milliseconds. */
const LATER = 20_000;

export interface OpenedStart {
  readonly database: Database;
  readonly rack: ReturnType<typeof rackController>;
  /** Answers what the database is needed for. */
  readonly stored: Stored;
  readonly jobs: ReturnType<typeof workerPool>;
  readonly previewJobs: ReturnType<typeof workerPool>;
  readonly backgroundJobs: Jobs;
  readonly idleJobs: Jobs;
  readonly hands: Hands;
}

/** The project that is open, one at a time: its session, its lock and its picture. */
export function openedProject({ database, rack, stored, jobs, previewJobs, ...others }: OpenedStart) {
  let controller: SessionController | undefined;
  let openId = '';
  let openName = '';
  let lock: Lock | undefined;
  /** Resolves when the page has taken in the last event. */
  let heard: Promise<unknown> = Promise.resolve();
  /** The document that the picture on the Rack shows: it is compared, and not kept for that. */
  let pictured: WeakRef<HemDocument> | undefined;
  let pictureTimer: ReturnType<typeof setTimeout> | undefined;

  const session = () => {
    if (!controller) throw new HemError('nothing-open', 'No project is open.');
    return controller.session;
  };

  async function close(): Promise<void> {
    const closing = controller;
    controller = undefined;
    clearTimeout(pictureTimer);
    try {
      await closing?.close();
      // A picture that cannot be made or stored is no reason to stay.
      if (closing && pictured?.deref() !== closing.session.document)
        await rack.drawPicture(openId, closing.session.document).catch(() => undefined);
    } finally {
      lock?.release();
      lock = undefined;
    }
  }

  const api: ProjectApi = {
    async open(id, listen, patience) {
      // One that was just made needs no store yet: where there is none, it is worked on in this tab alone.
      const fresh = rack.justMade(id);
      const opening = await (fresh ? answer : stored)(async () => {
        await close();
        lock = await lockProject(id, navigator.locks, patience);
        if (!lock) {
          throw new HemError(
            'open-elsewhere',
            'This project is open in another tab. Close it there, then open it here.',
          );
        }
        try {
          jobs.start();
          const { modelBuffers, sessionController } = await import('./openBench.ts');
          const { row, document, history, trials, base } = fresh?.stored ?? (await loadProject(database, id));
          if (row.deleted !== undefined) {
            throw new HemError(
              'off-the-rack',
              'This project was taken off the Rack. Put it back there, then open it.',
            );
          }
          const persistence = databasePersistence(database, { row, base, fresh, lock });
          const listener = (event: BenchEvent) => {
            heard = Promise.resolve(listen(Comlink.transfer(event, buffersIn(event)))).catch(() => undefined);
          };
          const start = { document, history, trials, persistence, jobs, previewJobs, ...others };
          controller = sessionController(start, listener, () => {
            jobs.warm();
            previewJobs.start();
            if (!row.picture)
              pictureTimer = setTimeout(() => {
                const { document: now } = session();
                if (!pictured) void rack.drawPicture(id, now).catch(() => undefined);
              }, LATER);
          });
          openId = id;
          pictured = row.picture ? new WeakRef(document) : undefined;
          openName = row.name;
          if (fresh) tellSaving(fresh.saved, listener);
          const model = modelBuffers(document);
          controller.begin();
          return { name: shownName(row.name), model, view: fresh ? undefined : await rack.viewOf(id) };
        } catch (error) {
          if (error instanceof HemError && error.code.startsWith('damaged'))
            await rack.rememberDamage(id, error.message);
          lock.release();
          lock = undefined;
          throw error;
        }
      });
      return 'ok' in opening ? Comlink.transfer(opening, buffersIn(opening.ok)) : opening;
    },

    close,
    keepAsNew: () =>
      stored(async () => {
        const { loss: _, ...whole } = await session().whole();
        return addProject(database, { name: openName, ...whole });
      }),
    keepPicture: (id, picture) =>
      stored(async () => {
        if (id !== openId) return;
        const shown = controller?.session.document;
        await rack.keepPicture(id, picture);
        pictured = shown && new WeakRef(shown);
      }),
    async exportProject(id) {
      const isOpen = controller && id === openId;
      const result = await (isOpen ? answer : stored)(async () => {
        if (!controller || !isOpen) return rack.exported(id);
        // The open one as it is here: it may be that it could not be stored.
        const { loss, ...whole } = await controller.session.whole();
        return rack.fileOf({ name: openName, ...whole }, loss);
      });
      return 'ok' in result ? Comlink.transfer(result, buffersIn(result.ok)) : result;
    },
  };

  return {
    api,
    session,
    get controller(): SessionController | undefined {
      return controller;
    },
    /**
     * Answers an act once the page has taken in what came of it: events and answers come by two ports, which have no order, and whoever has
     * the answer takes what is drawn for what is.
     */
    afterEvents: <T>(work: () => Promise<T>): Promise<Answer<T>> =>
      answer(async () => {
        try {
          return await work();
        } finally {
          await heard;
        }
      }),
  };
}

/** Tells how the storing of a new project gets on. */
function tellSaving(saved: Promise<void>, listener: (event: BenchEvent) => void): void {
  listener({ kind: 'saved', saved: false });
  saved.then(
    () => listener({ kind: 'saved', saved: true }),
    (error: Error) => listener({ kind: 'unsaved', sentence: error.message }),
  );
}
