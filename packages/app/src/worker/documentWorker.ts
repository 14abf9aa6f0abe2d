import { HemError } from '@blunt-hem/core/errors';
import * as Comlink from 'comlink';
import { openDatabase } from '../storage/database.ts';
import { databaseKeeper } from '../storage/databaseKeeper.ts';
import { loadProject } from '../storage/projects.ts';
import { answer, buffersIn } from './answer.ts';
import { workerPool } from './pool.ts';
import type { BenchApi, BenchEvent } from './protocol.ts';
import { pngOf, rackDesk } from './rackDesk.ts';
import { readingDesk } from './readingDesk.ts';
import type { SessionDesk } from './sessionDesk.ts';

/** The worker that owns the document and the database. It does nothing long itself; what only an open project needs is loaded with one. */

const FINDING_PICTURE = { width: 320, height: 208 };

const database = openDatabase();
const jobs = workerPool();
const previewJobs = workerPool(1);
const backgroundJobs = workerPool(1);
const reading = readingDesk();

const rack = rackDesk(database, backgroundJobs);
/** The picture of a new project is made when the first look at it is over, milliseconds. */
const LATER = 20_000;
let desk: SessionDesk | undefined;
let openId = '';
let openName = '';
let releaseLock: (() => void) | undefined;

const session = () => {
  if (!desk) throw new HemError('nothing-open', 'No project is open.');
  return desk.session;
};

/** Waits for the right to write to a project; false when another tab has it. */
function lock(id: string): Promise<boolean> {
  return new Promise((resolve) => {
    void navigator.locks.request(`blunt-hem-${id}`, { ifAvailable: true }, (granted) => {
      resolve(granted !== null);
      return granted ? new Promise<void>((release) => (releaseLock = release)) : undefined;
    });
  });
}

/** Tells how the storing of a new project gets on. */
function tellSaving(saved: Promise<void>, listener: (event: BenchEvent) => void): void {
  listener({ kind: 'saved', saved: false });
  saved.then(
    () => listener({ kind: 'saved', saved: true }),
    (error: Error) => listener({ kind: 'unsaved', sentence: error.message }),
  );
}

async function close(): Promise<void> {
  const closing = desk;
  desk = undefined;
  await closing?.close();
  // A picture that cannot be made or stored is no reason to keep the project locked.
  if (closing) await rack.keepPicture(openId, closing.session.document).catch(() => undefined);
  releaseLock?.();
  releaseLock = undefined;
}

const api: BenchApi = {
  read(files, report) {
    // What comes next is made ready meanwhile.
    jobs.start();
    void import('./benchDesk.ts');
    return reading.read(files, report);
  },
  async cancelReading() {
    reading.cancel();
  },
  create: (keepUvs) => answer(() => rack.add(reading.taken(keepUvs))),
  addDemos: () => answer(rack.addDemos),
  async watchRack(listen, fail) {
    rack.watch(listen, fail);
  },
  takeOff: (id) => answer(() => rack.mark(id, Date.now())),
  putBack: (id) => answer(() => rack.mark(id, undefined)),
  purge: () => answer(rack.purge),
  keepView: (id, view) => answer(() => rack.keepView(id, view)),
  async exportProject(id) {
    const result = await answer(async () => {
      if (!desk || id !== openId) return rack.exported(id);
      // The open one as it is here: it may be that it could not be stored.
      const { document, history } = desk.session;
      const acts = await desk.session.keptActs();
      return rack.fileOf({ name: openName, document, history: { acts, done: history.done } });
    });
    return 'ok' in result ? Comlink.transfer(result, buffersIn(result.ok)) : result;
  },

  async open(id, listen) {
    const opening = await answer(async () => {
      await close();
      if (!(await lock(id))) {
        throw new HemError(
          'open-elsewhere',
          'This project is open in another tab. Close it there, then open it here.',
        );
      }
      try {
        jobs.start();
        const { modelBuffers, sessionDesk } = await import('./benchDesk.ts');
        const made = rack.justMade(id);
        const { row, document, history, baseAt } = made?.stored ?? (await loadProject(database, id));
        if (row.deleted !== undefined) {
          throw new HemError('no-such-project', 'This project is not on the Rack any more.');
        }
        const keeper = databaseKeeper(database, row, baseAt, made?.saved);
        const listener = (event: BenchEvent) => void listen(Comlink.transfer(event, buffersIn(event)));
        desk = sessionDesk({ document, history, keeper, jobs, previewJobs, backgroundJobs }, listener, () => {
          jobs.warm();
          previewJobs.start();
          if (!row.picture)
            setTimeout(() => void rack.keepPicture(id, document).catch(() => undefined), LATER);
        });
        openId = id;
        openName = row.name;
        if (made) tellSaving(made.saved, listener);
        const model = modelBuffers(document);
        desk.begin();
        return { name: row.name, model, view: await rack.viewOf(id) };
      } catch (error) {
        releaseLock?.();
        throw error;
      }
    });
    return 'ok' in opening ? Comlink.transfer(opening, buffersIn(opening.ok)) : opening;
  },

  close,
  perform: (operation, params) => answer(() => session().perform(operation, params)),
  undo: () => answer(() => session().undo()),
  redo: () => answer(() => session().redo()),
  async stop() {
    desk?.session.stop();
  },
  async ask(name, params, report) {
    const result = await answer(() =>
      session().ask(name, params, ({ fraction }) => fraction !== undefined && report?.(fraction)),
    );
    return 'ok' in result ? Comlink.transfer(result, buffersIn(result.ok)) : result;
  },
  preview: async (slot, operation, params) => desk?.preview(slot, { operation, params }),
  async clearPreview(slot) {
    desk?.session.clear(slot);
  },
  async examine(tolerance, report) {
    if (!desk) return undefined;
    const { model } = desk.session.document;
    const found = await desk.session.ask(
      'examination',
      { tolerance },
      ({ fraction }) => fraction !== undefined && report(fraction),
    );
    return found && (await import('./benchDesk.ts')).healthReport(found, model);
  },
  async pictureOf(faces, edges) {
    if (faces.length + edges.length === 0) return undefined;
    const where = { faces: [...faces], edges: [...edges] };
    const pixels = await desk?.session.ask('picture', { ...FINDING_PICTURE, ...where });
    return pixels && pngOf(pixels, FINDING_PICTURE.width, FINDING_PICTURE.height);
  },
};

Comlink.expose(api);
