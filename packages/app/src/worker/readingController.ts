import type { Stance } from '@blunt-hem/core/mesh/stance';
import type { Project } from '@blunt-hem/core/persistence/projectFile';
import * as Comlink from 'comlink';
import type { BackedUp } from '../storage/backup.ts';
import { type Death, deathOf, NOT_LOADED } from './liveness.ts';
import type { Answer, Failure, OpenedFile, ReadFile } from './protocol.ts';
import type { Made, ReaderApi } from './readerWorker.ts';
import { reporting } from './reporting.ts';

interface Reader {
  readonly name: string;
  readonly worker: Worker;
  readonly api: Comlink.Remote<ReaderApi>;
  readonly death: Promise<Death>;
  /** Resolves when whoever waits has had enough. */
  readonly cancelled: Promise<undefined>;
  cancel(): void;
}

/** Has files read, and documents made of them, in a worker of their own: whoever has had enough ends it. */
export function readingController() {
  /** The one whose file waits to be made a project of, or that works. */
  let reader: Reader | undefined;

  const start = (name: string): Reader => {
    end();
    const worker = new Worker(new URL('./readerWorker.ts', import.meta.url), { type: 'module' });
    let cancel = (): void => undefined;
    const cancelled = new Promise<undefined>((resolve) => {
      cancel = () => resolve(undefined);
    });
    reader = {
      name,
      worker,
      api: Comlink.wrap<ReaderApi>(worker),
      death: deathOf(worker),
      cancelled,
      cancel,
    };
    return reader;
  };
  const end = (): void => {
    reader?.cancel();
    reader?.worker.terminate();
    reader = undefined;
  };

  /** What a reader answers, or why it does not; undefined when it was cancelled. */
  const answered = async <T>(
    { name, api, death, cancelled }: Reader,
    work: (api: Comlink.Remote<ReaderApi>) => Promise<Answer<T>>,
  ): Promise<Answer<T> | undefined> => {
    const died = death.then((how) => ({ failure: failureOf(name, how) }));
    const answer = await Promise.race([work(api), died, cancelled]);
    if (!answer || 'failure' in answer) end();
    return answer;
  };

  return {
    /** @returns undefined when it was cancelled; what was read waits for `make` */
    read(
      files: readonly OpenedFile[],
      report: (fraction: number) => void,
    ): Promise<Answer<ReadFile> | undefined> {
      const bytes = files.map((file) => file.bytes.buffer as ArrayBuffer);
      return answered(start(files[0].name), (api) =>
        reporting(report, (report) => api.read(Comlink.transfer(files as OpenedFile[], bytes), report)),
      );
    },
    /** The project that what was read last makes; it waits on until `done`. Undefined when it was cancelled. */
    make(keepUvs: boolean, stance: Stance): Promise<Answer<Made> | undefined> {
      const failure = { code: 'nothing-read', sentence: 'Nothing was opened. Open the file again.', ids: [] };
      if (!reader) return Promise.resolve({ failure });
      return answered(reader, (api) => api.make(keepUvs, stance));
    },
    /**
     * @param take  is given each project of a backup; the next waits for it
     * @returns what could not be read
     */
    async readBackup(
      file: File,
      take: (project: BackedUp<Project>) => Promise<void>,
      report: (fraction: number) => void,
    ): Promise<Answer<readonly string[]> | undefined> {
      const answer = await answered(start(file.name), (api) =>
        reporting(report, (report) => api.readBackup(file, Comlink.proxy(take), report)),
      );
      end();
      return answer;
    },
    /** Ends what is being read or made, and lets go of what waits. */
    end,
  };
}

const failureOf = (name: string, how: Death): Failure =>
  how === 'not-loaded'
    ? { code: 'not-loaded', sentence: NOT_LOADED, ids: [] }
    : {
        code: 'file',
        sentence: `${name} could not be read: its reader broke down, perhaps for want of memory. Nothing was changed. Try a smaller file.`,
        ids: [],
      };
