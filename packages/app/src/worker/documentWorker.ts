import type { HemDocument } from '@blunt-hem/core/document/document';
import { adoptTopology } from '@blunt-hem/core/document/document';
import { HemError } from '@blunt-hem/core/errors';
import { buffersIn } from '@blunt-hem/core/jobs/buffersIn';
import type { Project } from '@blunt-hem/core/persistence/projectFile';
import { gone } from '@blunt-hem/core/trials/trialBook';
import * as Comlink from 'comlink';
import { databaseNamed, openDatabase } from '../storage/database.ts';
import { databasePersistence } from '../storage/databasePersistence.ts';
import { loadProject } from '../storage/loadProject.ts';
import { type Lock, lockProject } from '../storage/locks.ts';
import { addProject } from '../storage/projects.ts';
import { shownName } from '../storage/rack.ts';
import type { Restored } from '../storage/rackBackup.ts';
import { roomLeft } from '../storage/room.ts';
import { answer } from './answer.ts';
import { handDesk } from './handDesk.ts';
import { declareAlive } from './liveness.ts';
import { workerPool } from './pool.ts';
import type { Answer, BenchApi, BenchEvent } from './protocol.ts';
import { pngOf, rackDesk } from './rackDesk.ts';
import { readingDesk } from './readingDesk.ts';
import type { SessionDesk } from './sessionDesk.ts';
import { sharing } from './sharedInput.ts';
import { trialPicture, trialRow } from './trialPicture.ts';

/** The worker that owns the document and the database. It does nothing long itself; what only an open project needs is loaded with one. */

const FINDING_PICTURE = { width: 320, height: 208 };

const database = databaseNamed();
const shared = sharing();
const jobs = workerPool(undefined, shared);
const [previewJobs, backgroundJobs, idleJobs] = [2, 1, 1].map((width) => workerPool(width, shared));
const hands = handDesk(shared);
const reading = readingDesk();

const rack = rackDesk(database, backgroundJobs);
/** The picture of a new project is made when the first look at it is over, milliseconds. */
const LATER = 20_000;
let desk: SessionDesk | undefined;
let openId = '';
let openName = '';
/** What was made of the file that was read last, and is not on the Rack yet. */
let made: Project | undefined;
let lock: Lock | undefined;
/** Resolves when the page has taken in the last event. */
let heard: Promise<unknown> = Promise.resolve();
/** The document that the picture on the Rack shows: it is compared, and not kept for that. */
let pictured: WeakRef<HemDocument> | undefined;
let pictureTimer: ReturnType<typeof setTimeout> | undefined;

const session = () => {
  if (!desk) throw new HemError('nothing-open', 'No project is open.');
  return desk.session;
};

/**
 * Answers an act once the page has taken in what came of it: events and answers come by two ports, which have no order, and whoever has
 * the answer takes what is drawn for what is.
 */
const afterEvents = <T>(work: () => Promise<T>): Promise<Answer<T>> =>
  answer(async () => {
    try {
      return await work();
    } finally {
      await heard;
    }
  });

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

/** Answers what the database is needed for: it is opened if it is not, for the first time or because it was closed behind our back. */
const stored = <T>(work: () => T | Promise<T>): Promise<Answer<T>> =>
  answer(async () => {
    await openDatabase(database);
    return work();
  });

const api: BenchApi = {
  ping: async () => undefined,
  read(files, report) {
    made = undefined;
    // What comes next is made ready meanwhile.
    jobs.start();
    void import('./benchDesk.ts');
    return reading.read(files, report);
  },
  async cancelReading() {
    reading.end();
  },
  async create(keepUvs, stance, anyway) {
    // Made once: where there turns out to be no room, it waits for the artist's word.
    if (!made) {
      const result = await reading.make(keepUvs, stance);
      if (!result || 'failure' in result) return result;
      made = result.ok.project;
      adoptTopology(result.ok.topology);
    }
    const project = made;
    const created = await answer(() => rack.add(project, anyway));
    if ('failure' in created && created.failure.code === 'no-room') return created;
    made = undefined;
    reading.end();
    return created;
  },
  addDemos: (dense) => stored(() => rack.addDemos(dense)),
  async watchRack(listen, fail) {
    const watching = await stored(async () => rack.watch(listen, fail));
    if ('failure' in watching) fail(watching.failure.sentence);
  },
  async leaveRack() {
    rack.leave();
  },
  takeOff: (id) => stored(() => rack.takeOff(id)),
  putBack: (id) => stored(() => rack.putBack(id)),
  deleteForGood: (id) => stored(() => rack.deleteForGood(id)),
  emptyOff: (all) => stored(() => rack.emptyOff(all)),
  rescue: (id) => stored(() => rack.rescue(id)),
  keepAsNew: () =>
    stored(async () => {
      const { loss: _, ...whole } = await session().whole();
      return addProject(database, { name: openName, ...whole });
    }),
  room: () => roomLeft(),
  backUp: (report) => stored(() => rack.backUp(report)),
  async restore(file, report) {
    let told: Restored = { projects: 0, already: 0, losses: [] };
    const result = await reading.readBackup(
      file,
      async (project) => {
        await openDatabase(database);
        told = await rack.restoreOne(project, told);
      },
      report,
    );
    if (!result || 'failure' in result) return result;
    return { ok: { ...told, losses: [...told.losses, ...result.ok] } };
  },
  keepView: (id, view) => stored(() => rack.keepView(id, view)),
  keepPicture: (id, picture) =>
    stored(async () => {
      if (id !== openId) return;
      const shown = desk?.session.document;
      await rack.keepPicture(id, picture);
      pictured = shown && new WeakRef(shown);
    }),
  async exportProject(id) {
    const isOpen = desk && id === openId;
    const result = await (isOpen ? answer : stored)(async () => {
      if (!desk || !isOpen) return rack.exported(id);
      // The open one as it is here: it may be that it could not be stored.
      const { loss, ...whole } = await desk.session.whole();
      return rack.fileOf({ name: openName, ...whole }, loss);
    });
    return 'ok' in result ? Comlink.transfer(result, buffersIn(result.ok)) : result;
  },

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
        const { modelBuffers, sessionDesk } = await import('./benchDesk.ts');
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
        const start = {
          document,
          history,
          trials,
          persistence,
          jobs,
          previewJobs,
          backgroundJobs,
          idleJobs,
          hands,
        };
        desk = sessionDesk(start, listener, () => {
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
        desk.begin();
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
  perform: (operation, params) => afterEvents(async () => session().perform(operation, params)),
  undo: () => afterEvents(async () => session().undo()),
  redo: () => afterEvents(async () => session().redo()),
  keepTrial: (name, which) => answer(async () => trialRow(await session().trials.keep(name, which))),
  nameTrial: (id, name) => answer(() => session().trials.name(id, name)),
  dropTrial: (id) => answer(() => session().trials.drop(id)),
  takeTrial: (id, faces) => afterEvents(async () => session().trials.take(id, faces)),
  tryMethods: (which) => answer(() => session().trials.tryMethods(which)),
  async trialPicture(id) {
    const result = await answer(() => {
      const { document, trials } = session();
      const trial = trials.get(id);
      if (!trial) throw gone();
      return trialPicture(document, trial, previewJobs);
    });
    return 'ok' in result ? Comlink.transfer(result, buffersIn(result.ok)) : result;
  },
  async stop() {
    desk?.session.stop();
  },
  async ask(name, params, report) {
    const result = await answer(() =>
      session().ask(name, params, ({ fraction }) => fraction !== undefined && report?.(fraction)),
    );
    return 'ok' in result ? Comlink.transfer(result, buffersIn(result.ok)) : result;
  },
  async stopAsking(name) {
    desk?.session.stopAsking(name);
  },
  preview: async (operation, params) => desk?.preview({ operation, params }),
  async clearPreview() {
    desk?.session.clearPreview();
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
declareAlive();
