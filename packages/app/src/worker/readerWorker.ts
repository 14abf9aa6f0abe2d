import { host } from '@blunt-hem/core/formats/decoders';
import { readModel } from '@blunt-hem/core/formats/readModel';
import type { Model } from '@blunt-hem/core/mesh/model';
import * as Comlink from 'comlink';
import dracoBinary from 'draco3dgltf/draco_decoder_gltf.wasm?url';
import { answer } from './answer.ts';
import type { Answer, OpenedFile } from './protocol.ts';

host.dracoBinary = async () => (await fetch(dracoBinary)).arrayBuffer();

/** Reads one model apart from everything else: whoever has had enough ends the worker. */
export interface ReaderApi {
  read(files: readonly OpenedFile[], report: (fraction: number) => void): Promise<Answer<Model>>;
}

const api: ReaderApi = {
  read: ([main, ...others], report) =>
    answer(() =>
      readModel(main.bytes, main.name, new Map(others.map(({ name, bytes }) => [name, bytes])), report),
    ),
};

Comlink.expose(api);
