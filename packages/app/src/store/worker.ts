import * as Comlink from 'comlink';
import type { Answer, BenchApi } from '../worker/protocol.ts';

const worker = new Worker(new URL('../worker/documentWorker.ts', import.meta.url), { type: 'module' });

/** Calls `listen` when the worker that owns the document is gone: nothing it was asked will be answered. */
export const onWorkerDeath = (listen: () => void) => worker.addEventListener('error', listen);

/** The worker that owns the document. */
export const bench = Comlink.wrap<BenchApi>(worker);

/** A failure the artist should read. */
export class ArtistError extends Error {
  constructor(
    readonly code: string,
    sentence: string,
    readonly ids: readonly number[],
  ) {
    super(sentence);
  }
}

export function unwrap<T>(answer: Answer<T>): T {
  if ('ok' in answer) return answer.ok;
  throw new ArtistError(answer.failure.code, answer.failure.sentence, answer.failure.ids);
}
