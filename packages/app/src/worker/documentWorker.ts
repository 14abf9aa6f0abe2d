import { type HemDocument, openDocument, shellsOf, topologyOf } from '@blunt-hem/core/document/document';
import { emptyHistory } from '@blunt-hem/core/document/history';
import { applyPatch } from '@blunt-hem/core/document/patch';
import { HemError } from '@blunt-hem/core/errors';
import { type Project, readProject, writeProject } from '@blunt-hem/core/formats/projectFile';
import { readModel } from '@blunt-hem/core/formats/readModel';
import { readSeams } from '@blunt-hem/core/formats/seamFile';
import { writeGlb } from '@blunt-hem/core/formats/writeGlb';
import { writeObj } from '@blunt-hem/core/formats/writeObj';
import { writeTemplate } from '@blunt-hem/core/formats/writeTemplate';
import { checkOf } from '@blunt-hem/core/health/examine';
import { faceCount } from '@blunt-hem/core/mesh/mesh';
import type { Model } from '@blunt-hem/core/mesh/model';
import { carryOut, localContext } from '@blunt-hem/core/operations/catalogue';
import { patientOf } from '@blunt-hem/core/operations/patient';
import { unattended } from '@blunt-hem/core/progress';
import { edgeLoop } from '@blunt-hem/core/select/edgeLoop';
import { shellsAtEdges } from '@blunt-hem/core/surface/shells';
import * as Comlink from 'comlink';
import { openDatabase } from '../storage/database.ts';
import { addProject, loadProject } from '../storage/projects.ts';
import { answer } from './answer.ts';
import { modelBuffers } from './buffers.ts';
import { healthDesk } from './healthDesk.ts';
import { picker } from './picking.ts';
import { drawPicture } from './picture.ts';
import type { Answer, BenchApi, BenchEvent, Exported, OpenedFile, ReadFile } from './protocol.ts';
import type { ReaderApi } from './readerWorker.ts';
import { openSession, type Session } from './session.ts';
import { solverPool } from './solverPool.ts';

const PICTURE = { width: 320, height: 208 };

const database = openDatabase();
const solvers = solverPool();
const picking = picker();
const health = healthDesk();
let session: Session | undefined;
let releaseLock: (() => void) | undefined;

const opened = (): Session => {
  if (!session) throw new HemError('nothing-open', 'No project is open.');
  return session;
};

/** What was read last and waits to be made a project of. */
let waiting: { readonly project: Project } | { readonly model: Model } | undefined;
let cancelReading: () => void = () => undefined;

async function read(
  files: readonly OpenedFile[],
  report: (fraction: number) => void,
): Promise<Answer<ReadFile> | undefined> {
  waiting = undefined;
  cancelReading();
  const [main] = files;
  if (/\.hemproject$/i.test(main.name)) {
    return answer(() => {
      const project = readProject(main.bytes, main.name);
      waiting = { project };
      return { faces: faceCount(project.document.model.mesh), uvSets: [] };
    });
  }
  const worker = new Worker(new URL('./readerWorker.ts', import.meta.url), { type: 'module' });
  const cancelled = new Promise<undefined>((resolve) => {
    cancelReading = () => resolve(undefined);
  });
  const died = new Promise<Answer<Model>>((resolve) => {
    const sentence = `${main.name} could not be read, likely for want of memory. Open a smaller model.`;
    worker.addEventListener('error', () => resolve({ failure: { code: 'file', sentence, ids: [] } }));
  });
  const reading = Comlink.wrap<ReaderApi>(worker).read(files, Comlink.proxy(report));
  const result = await Promise.race([reading, died, cancelled]).finally(() => worker.terminate());
  if (!result || 'failure' in result) return result;
  waiting = { model: result.ok };
  return { ok: { faces: faceCount(result.ok.mesh), uvSets: result.ok.uvSets.map(({ name }) => name) } };
}

function projectRead(keepUvs: boolean): Project {
  const what = waiting;
  waiting = undefined;
  if (!what) throw new HemError('nothing-read', 'Nothing was opened. Open the file again.');
  if ('project' in what) return what.project;
  const { model } = what;
  return { name: model.name, document: openDocument(model, { keepUvs }), history: emptyHistory };
}

async function pictureOf(document: HemDocument, marked?: Uint8Array): Promise<Blob> {
  const canvas = new OffscreenCanvas(PICTURE.width, PICTURE.height);
  const pixels = drawPicture(document, PICTURE.width, PICTURE.height, marked);
  canvas.getContext('2d')?.putImageData(new ImageData(new Uint8ClampedArray(pixels), PICTURE.width), 0, 0);
  return canvas.convertToBlob({ type: 'image/png' });
}

/** The project that was just made: opening it need not read it back. */
let fresh: { readonly id: string; readonly document: HemDocument } | undefined;

async function add(project: Project): Promise<string> {
  const id = await addProject(database, project, await pictureOf(project.document));
  fresh = { id, document: project.document };
  return id;
}

const demoBytes = async (file: string) => new Uint8Array(await (await fetch(`/demo/${file}`)).arrayBuffer());

/** A demo model as it comes, faults and all. */
async function uncutDemo(file: string, name: string): Promise<Project> {
  const model = await readModel(await demoBytes(file), file);
  return { name, document: openDocument(model), history: emptyHistory };
}

/** A demo model, cut and unfolded as far as its seams go. */
async function demo(file: string, name: string): Promise<Project> {
  const model = await readModel(await demoBytes(`${file}.obj`), `${file}.obj`);
  const edges = readSeams(
    new TextDecoder().decode(await demoBytes(`${file}.seams.json`)),
    `${file}.seams.json`,
    topologyOf(model).links,
  );
  let document = openDocument(model);
  const steps =
    edges.length > 0
      ? [
          { operation: 'cut', params: { edges } },
          { operation: 'unfold', params: {} },
        ]
      : [];
  for (const step of steps)
    document = applyPatch(document, (await carryOut(document, step, localContext)).patch);
  return { name, document, history: emptyHistory };
}

/** Waits for the right to write to a project; false when another tab has it. */
function lock(id: string): Promise<boolean> {
  return new Promise((resolve) => {
    void navigator.locks.request(`blunt-hem-${id}`, { ifAvailable: true }, (granted) => {
      resolve(granted !== null);
      return granted ? new Promise<void>((release) => (releaseLock = release)) : undefined;
    });
  });
}

async function close(): Promise<void> {
  health.end();
  await session?.close();
  if (session) {
    const { row, document } = session.stored;
    await database.projects.update(row.id, { picture: await pictureOf(document) });
  }
  session = undefined;
  releaseLock?.();
  releaseLock = undefined;
}

const api: BenchApi = {
  read,
  async cancelReading() {
    cancelReading();
  },
  create: (keepUvs) => answer(() => add(projectRead(keepUvs))),

  async addDemos() {
    await add(await uncutDemo('punt-thwart.obj', 'Punt thwart'));
    await add(await uncutDemo('reed-punt.glb', 'Reed punt'));
    await add(await demo('gourd-lantern', 'Gourd lantern'));
    await add(await demo('toad-ferryman', 'Toad ferryman'));
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
      const stored = await loadProject(database, id, fresh?.id === id ? fresh.document : undefined);
      fresh = undefined;
      if (!stored || stored.row.deleted !== undefined) {
        releaseLock?.();
        throw new HemError('no-such-project', 'This project is not on the Rack any more.');
      }
      session = openSession(database, stored, solvers, (event) => {
        void listen(Comlink.transfer(event, largeBuffers(event)));
      });
      const model = modelBuffers(stored.document);
      session.start();
      return model;
    });
    return 'ok' in opening ? Comlink.transfer(opening, arrayBuffers(opening.ok)) : opening;
  },

  close,
  perform: (request) => answer(() => opened().perform(request)),
  undo: () => answer(() => opened().undo()),
  redo: () => answer(() => opened().redo()),
  async stop() {
    session?.stop();
  },
  async examine(tolerance, report) {
    return session && health.examine(session.document.model, tolerance, report);
  },
  async pictureOf(faces, edges) {
    if (!session) return undefined;
    const { document } = session;
    const { links } = topologyOf(document.model);
    const marked = new Uint8Array(faceCount(document.model.mesh));
    for (const f of faces) marked[f] = 1;
    for (const e of edges)
      for (let i = links.edgeCornerStart[e]; i < links.edgeCornerStart[e + 1]; i++)
        marked[links.cornerFace[links.edgeCorners[i]]] = 1;
    return marked.includes(1) ? pictureOf(document, marked) : undefined;
  },
  async countOf(kind, tolerance) {
    return checkOf(kind)?.find(patientOf(opened().document), { tolerance }, unattended)?.count ?? 0;
  },
  async pickModel(origin, direction) {
    return session && picking.pickModel(session.document, origin, direction);
  },
  async pickBoard(u, v) {
    return session && picking.pickBoard(session.document, u, v);
  },
  async loop(edge) {
    const { mesh, links } = topologyOf(opened().document.model);
    return edgeLoop(mesh, links, edge);
  },
  async inBox(query, target) {
    const { document } = opened();
    if (target === 'faces') return picking.facesInBox(document, query);
    const edges = picking.edgesInBox(document, query);
    if (target === 'edges') return edges;
    return shellsAtEdges(topologyOf(document.model).links, shellsOf(document), edges);
  },

  exportAs: (kind, template) =>
    answer(async (): Promise<Exported> => {
      const { document, stored } = opened();
      const { uv } = document.uvSets[document.currentUv];
      const { name } = document.model;
      switch (kind) {
        case 'obj':
          return { fileName: `${name}.obj`, bytes: writeObj(document.model, uv) };
        case 'glb':
          return { fileName: `${name}.glb`, bytes: await writeGlb(document.model, uv) };
        case 'template': {
          const options = template ?? { size: 2048, fills: true, edges: true, numbers: true };
          return {
            fileName: `${name}-template.svg`,
            bytes: new TextEncoder().encode(writeTemplate(document, options)),
          };
        }
        case 'project':
          return projectExport({ ...stored, name: stored.row.name });
      }
    }),

  exportProject: (id) =>
    answer(async () => {
      const stored = await loadProject(database, id);
      if (!stored) throw new HemError('no-such-project', 'This project is not on the Rack any more.');
      return projectExport({ ...stored, name: stored.row.name });
    }),
};

/** Handed over rather than copied: on a large model a copy would hold the main thread up. */
const arrayBuffers = (object: object): ArrayBuffer[] =>
  Object.values(object).flatMap((value) => (ArrayBuffer.isView(value) ? [value.buffer as ArrayBuffer] : []));

const largeBuffers = (event: BenchEvent): ArrayBuffer[] =>
  event.kind === 'state'
    ? arrayBuffers(event.state.flat)
    : event.kind === 'model'
      ? arrayBuffers(event.model)
      : event.kind === 'moving'
        ? arrayBuffers(event)
        : [];

const projectExport = ({ name, document, history }: Project): Exported => ({
  fileName: `${name}.hemproject`,
  bytes: writeProject({ name, document, history }),
});

Comlink.expose(api);
