import { openDocument } from '@blunt-hem/core/document/document';
import { emptyHistory } from '@blunt-hem/core/document/history';
import { HemError } from '@blunt-hem/core/errors';
import type { Project } from '@blunt-hem/core/formats/projectFile';
import { faceCount } from '@blunt-hem/core/mesh/mesh';
import * as Comlink from 'comlink';
import type { Answer, OpenedFile, ReadFile } from './protocol.ts';
import type { FileContent, ReaderApi } from './readerWorker.ts';

/** Has files read in a worker of their own: whoever has had enough ends it. */
export function readingDesk() {
  /** What was read last and waits to be made a project of. */
  let waiting: FileContent | undefined;
  let cancel: () => void = () => undefined;

  return {
    async read(
      files: readonly OpenedFile[],
      report: (fraction: number) => void,
    ): Promise<Answer<ReadFile> | undefined> {
      waiting = undefined;
      cancel();
      const worker = new Worker(new URL('./readerWorker.ts', import.meta.url), { type: 'module' });
      const cancelled = new Promise<undefined>((resolve) => {
        cancel = () => resolve(undefined);
      });
      const died = new Promise<Answer<FileContent>>((resolve) => {
        const sentence = `${files[0].name} could not be read, likely for want of memory. Open a smaller model.`;
        worker.addEventListener('error', () => resolve({ failure: { code: 'file', sentence, ids: [] } }));
      });
      const bytes = files.map((file) => file.bytes.buffer as ArrayBuffer);
      const reading = Comlink.wrap<ReaderApi>(worker).read(
        Comlink.transfer(files as OpenedFile[], bytes),
        Comlink.proxy(report),
      );
      const result = await Promise.race([reading, died, cancelled]).finally(() => worker.terminate());
      if (!result || 'failure' in result) return result;
      waiting = result.ok;
      if ('project' in waiting)
        return { ok: { faces: faceCount(waiting.project.document.model.mesh), uvSets: [] } };
      const { mesh, uvSets } = waiting.model;
      return { ok: { faces: faceCount(mesh), uvSets: uvSets.map(({ name }) => name) } };
    },
    cancel: () => cancel(),
    /** The project that what was read last makes. */
    taken(keepUvs: boolean): Project {
      const content = waiting;
      waiting = undefined;
      if (!content) throw new HemError('nothing-read', 'Nothing was opened. Open the file again.');
      if ('project' in content) return content.project;
      const { model } = content;
      return { name: model.name, document: openDocument(model, { keepUvs }), history: emptyHistory };
    },
  };
}
