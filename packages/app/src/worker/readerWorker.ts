import { openDocument, type Topology, topologyOf } from '@blunt-hem/core/document/document';
import { emptyHistory } from '@blunt-hem/core/document/history';
import { HemError } from '@blunt-hem/core/errors';
import { host } from '@blunt-hem/core/formats/decoders';
import { readModel } from '@blunt-hem/core/formats/readModel';
import { buffersIn } from '@blunt-hem/core/jobs/buffersIn';
import { likelyUp } from '@blunt-hem/core/mesh/likelyUp';
import { faceCount } from '@blunt-hem/core/mesh/mesh';
import type { Model, UvSet } from '@blunt-hem/core/mesh/model';
import { sampleFaces } from '@blunt-hem/core/mesh/sampleFaces';
import type { Stance } from '@blunt-hem/core/mesh/stance';
import type { Project, ReadProject } from '@blunt-hem/core/persistence/projectFile';
import * as Comlink from 'comlink';
import dracoBinary from 'draco3dgltf/draco_decoder_gltf.wasm?url';
import type { BackedUp } from '../storage/backup.ts';
import { answer } from './answer.ts';
import { declareAlive } from './liveness.ts';
import type { Answer, OpenedFile, ReadFile } from './protocol.ts';
import { intoSharedMemory } from './sharedInput.ts';

host.dracoBinary = async () => (await fetch(dracoBinary)).arrayBuffer();

/** A project, with what follows from its mesh: whoever takes it in need not work that out again. */
export interface Made {
  readonly project: Project;
  readonly topology: Topology;
}

/** Reads one model, project or backup apart from everything else: whoever has had enough ends the worker. */
export interface ReaderApi {
  /** Reads a model or a project, which waits here for `make`. */
  read(files: readonly OpenedFile[], report: (fraction: number) => void): Promise<Answer<ReadFile>>;
  /**
   * Makes a project of what was read.
   *
   * @param stance  how the model stands
   */
  make(keepUvs: boolean, stance: Stance): Promise<Answer<Made>>;
  /** Reads a backup, and gives what is in it one after the other. */
  readBackup(
    file: File,
    take: (project: BackedUp<Project>) => Promise<void>,
    report: (fraction: number) => void,
  ): Promise<Answer<readonly string[]>>;
}

const newProject = (model: Model, keepUvs: boolean, stance: Stance): Project => ({
  name: model.name,
  document: openDocument(model, { keepUvs, ...stance }),
  history: emptyHistory,
});

/** The name of a UV set, and that it is empty where every place in it is the same. */
const nameOfSet = ({ name, uv }: UvSet): string =>
  uv.every((x, i) => x === uv[i & 1]) ? `${name} (empty)` : name;

/** Faces of which a small picture is made. */
const DRAWN = 6000;

/** A project with its arrays, and what follows from its mesh, in memory that threads share. */
function shareProject(project: Project): Made {
  const { document } = project;
  const { mesh: _, ...topology } = intoSharedMemory(topologyOf(document.model));
  const model = intoSharedMemory({ ...document.model, source: undefined });
  const shared = { ...document, model: { ...model, source: document.model.source } };
  return { project: { ...project, document: shared }, topology: { ...topology, mesh: shared.model.mesh } };
}

let waiting: ReadProject | { readonly model: Model } | undefined;

const api: ReaderApi = {
  read: ([main, ...others], report) =>
    answer(async (): Promise<ReadFile> => {
      if (/\.hemproject$/i.test(main.name)) {
        const { readProject } = await import('@blunt-hem/core/persistence/projectFile');
        const { project, loss } = await readProject(main.bytes, main.name, report);
        waiting = { project };
        return {
          faces: faceCount(project.document.model.mesh),
          uvSets: [],
          mayLie: false,
          sample: new Float32Array(0),
          loss,
        };
      }
      const companions = new Map(others.map(({ name, bytes }) => [name, bytes]));
      const model = await readModel(main.bytes, main.name, companions, report);
      waiting = { model };
      const { mesh, uvSets, source } = model;
      const mayLie = source.format !== 'glb' && likelyUp(mesh) === 1;
      const sample = sampleFaces(mesh, DRAWN);
      return { faces: faceCount(mesh), uvSets: uvSets.map(nameOfSet), mayLie, sample };
    }),
  async make(keepUvs, stance) {
    const result = await answer((): Made => {
      if (!waiting) throw new HemError('nothing-read', 'Nothing was opened. Open the file again.');
      const project = 'project' in waiting ? waiting.project : newProject(waiting.model, keepUvs, stance);
      return shareProject(project);
    });
    return 'ok' in result ? Comlink.transfer(result, buffersIn(result.ok)) : result;
  },
  readBackup: (file, take, report) =>
    answer(async () => {
      const { readBackup } = await import('../storage/backup.ts');
      const hand = (each: BackedUp<Project>) => take(Comlink.transfer(each, buffersIn(each.content)));
      return readBackup(file, file.name, hand, report);
    }),
};

Comlink.expose(api);
declareAlive();
