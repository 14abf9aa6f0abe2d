import { host } from '@blunt-hem/core/formats/decoders';
import { readModel } from '@blunt-hem/core/formats/readModel';
import type { Project, ReadProject } from '@blunt-hem/core/keeping/projectFile';
import type { Model } from '@blunt-hem/core/mesh/model';
import * as Comlink from 'comlink';
import dracoBinary from 'draco3dgltf/draco_decoder_gltf.wasm?url';
import type { BackedUp } from '../storage/backup.ts';
import { answer, buffersIn } from './answer.ts';
import type { Answer, OpenedFile } from './protocol.ts';

host.dracoBinary = async () => (await fetch(dracoBinary)).arrayBuffer();

/** What came of a file. */
export type FileContent = ReadProject | { readonly model: Model };

/** Reads one model or project apart from everything else: whoever has had enough ends the worker. */
export interface ReaderApi {
  read(files: readonly OpenedFile[], report: (fraction: number) => void): Promise<Answer<FileContent>>;
  /** Reads a backup, and gives what is in it one after the other. */
  readBackup(
    file: File,
    take: (project: BackedUp<Project>) => Promise<void>,
    report: (fraction: number) => void,
  ): Promise<Answer<readonly string[]>>;
}

const api: ReaderApi = {
  async read([main, ...others], report) {
    const result = await answer(async (): Promise<FileContent> => {
      if (/\.hemproject$/i.test(main.name)) {
        const { readProject } = await import('@blunt-hem/core/keeping/projectFile');
        return readProject(main.bytes, main.name, report);
      }
      const companions = new Map(others.map(({ name, bytes }) => [name, bytes]));
      return { model: await readModel(main.bytes, main.name, companions, report) };
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
