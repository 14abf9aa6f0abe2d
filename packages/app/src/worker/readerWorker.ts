import { host } from '@blunt-hem/core/formats/decoders';
import type { Project } from '@blunt-hem/core/formats/projectFile';
import { readModel } from '@blunt-hem/core/formats/readModel';
import type { Model } from '@blunt-hem/core/mesh/model';
import * as Comlink from 'comlink';
import dracoBinary from 'draco3dgltf/draco_decoder_gltf.wasm?url';
import { answer, buffersIn } from './answer.ts';
import type { Answer, OpenedFile } from './protocol.ts';

host.dracoBinary = async () => (await fetch(dracoBinary)).arrayBuffer();

/** What came of a file. */
export type FileContent = { readonly project: Project } | { readonly model: Model };

/** Reads one model or project apart from everything else: whoever has had enough ends the worker. */
export interface ReaderApi {
  read(files: readonly OpenedFile[], report: (fraction: number) => void): Promise<Answer<FileContent>>;
}

const api: ReaderApi = {
  async read([main, ...others], report) {
    const result = await answer(async (): Promise<FileContent> => {
      if (/\.hemproject$/i.test(main.name)) {
        const { readProject } = await import('@blunt-hem/core/formats/projectFile');
        return { project: readProject(main.bytes, main.name) };
      }
      const companions = new Map(others.map(({ name, bytes }) => [name, bytes]));
      return { model: await readModel(main.bytes, main.name, companions, report) };
    });
    return 'ok' in result ? Comlink.transfer(result, buffersIn(result.ok)) : result;
  },
};

Comlink.expose(api);
