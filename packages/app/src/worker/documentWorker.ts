import * as Comlink from 'comlink';
import { databaseNamed, openDatabase } from '../storage/database.ts';
import { roomLeft } from '../storage/room.ts';
import { handController } from './handController.ts';
import { declareAlive } from './liveness.ts';
import { openedProject } from './openedProject.ts';
import { workerPool } from './pool.ts';
import type { BenchApi, RackApi } from './protocol.ts';
import { rackController } from './rackController.ts';
import { readingApi } from './readingApi.ts';
import { sessionApi } from './sessionApi.ts';
import { sharing } from './sharedInput.ts';
import { storedIn } from './stored.ts';

/** The worker that owns the document and the database. It does nothing long itself; what only an open project needs is loaded with one. */

const database = databaseNamed();
const stored = storedIn(database);
const shared = sharing();
const jobs = workerPool(undefined, shared);
const [previewJobs, backgroundJobs, idleJobs] = [2, 1, 1].map((width) => workerPool(width, shared));
const hands = handController(shared);
const rack = rackController(database, backgroundJobs);
const project = openedProject({
  database,
  rack,
  stored,
  jobs,
  previewJobs,
  backgroundJobs,
  idleJobs,
  hands,
});

const rackApi: RackApi = {
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
  room: () => roomLeft(),
  backUp: (report) => stored(() => rack.backUp(report)),
  keepView: (id, view) => stored(() => rack.keepView(id, view)),
};

const api: BenchApi = {
  ping: async () => undefined,
  ...readingApi(rack, () => openDatabase(database), jobs),
  ...rackApi,
  ...project.api,
  ...sessionApi(project, previewJobs),
};

Comlink.expose(api);
declareAlive();
