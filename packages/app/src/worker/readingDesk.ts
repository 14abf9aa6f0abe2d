import { openDocument } from '@blunt-hem/core/document/document';
import { emptyHistory } from '@blunt-hem/core/document/history';
import { HemError } from '@blunt-hem/core/errors';
import type { Project } from '@blunt-hem/core/keeping/projectFile';
import { likelyUp } from '@blunt-hem/core/mesh/likelyUp';
import { faceCount } from '@blunt-hem/core/mesh/mesh';
import * as Comlink from 'comlink';
import type { BackedUp } from '../storage/backup.ts';
import type { Answer, OpenedFile, ReadFile } from './protocol.ts';
import type { FileContent, ReaderApi } from './readerWorker.ts';
import { reporting } from './reporting.ts';

/** Has files read in a worker of their own: whoever has had enough ends it. */
export function readingDesk() {
  /** What was read last and waits to be made a project of. */
  let waiting: FileContent | undefined;
  let cancel: () => void = () => undefined;

  /** Lets a reader of its own work until it is done, dies or is cancelled; undefined then. */
  async function withReader<T>(
    name: string,
    work: (reader: Comlink.Remote<ReaderApi>) => Promise<Answer<T>>,
  ): Promise<Answer<T> | undefined> {
    waiting = undefined;
    cancel();
    const worker = new Worker(new URL('./readerWorker.ts', import.meta.url), { type: 'module' });
    const cancelled = new Promise<undefined>((resolve) => {
      cancel = () => resolve(undefined);
    });
    const died = new Promise<Answer<T>>((resolve) => {
      const sentence = `${name} could not be read, likely for want of memory. Open a smaller file.`;
      worker.addEventListener('error', () => resolve({ failure: { code: 'file', sentence, ids: [] } }));
    });
    const working = work(Comlink.wrap<ReaderApi>(worker));
    return Promise.race([working, died, cancelled]).finally(() => worker.terminate());
  }

  return {
    async read(
      files: readonly OpenedFile[],
      report: (fraction: number) => void,
    ): Promise<Answer<ReadFile> | undefined> {
      const bytes = files.map((file) => file.bytes.buffer as ArrayBuffer);
      const result = await withReader(files[0].name, (reader) =>
        reporting(report, (report) => reader.read(Comlink.transfer(files as OpenedFile[], bytes), report)),
      );
      if (!result || 'failure' in result) return result;
      waiting = result.ok;
      if ('project' in waiting) {
        const { project, loss } = waiting;
        return { ok: { faces: faceCount(project.document.model.mesh), uvSets: [], mayLie: false, loss } };
      }
      const { mesh, uvSets, source } = waiting.model;
      const mayLie = source.format !== 'glb' && likelyUp(mesh) === 1;
      return { ok: { faces: faceCount(mesh), uvSets: uvSets.map(({ name }) => name), mayLie } };
    },
    /**
     * @param take  is given each project of a backup; the next waits for it
     * @returns what could not be read
     */
    readBackup: (
      file: File,
      take: (project: BackedUp<Project>) => Promise<void>,
      report: (fraction: number) => void,
    ): Promise<Answer<readonly string[]> | undefined> =>
      withReader(file.name, (reader) =>
        reporting(report, (report) => reader.readBackup(file, Comlink.proxy(take), report)),
      ),
    cancel: () => cancel(),
    /** The project that what was read last makes; it waits on until `done`. */
    taken(keepUvs: boolean, upAxis: number): Project {
      if (!waiting) throw new HemError('nothing-read', 'Nothing was opened. Open the file again.');
      if ('project' in waiting) return waiting.project;
      const { model } = waiting;
      return { name: model.name, document: openDocument(model, { keepUvs, upAxis }), history: emptyHistory };
    },
    done(): void {
      waiting = undefined;
    },
  };
}
