import type { AnswerOf, AskedOf, QuestionName } from '@blunt-hem/core/questions/index';

import * as Comlink from 'comlink';
import type { Answer, BenchApi } from '../worker/protocol.ts';

const worker = new Worker(new URL('../worker/documentWorker.ts', import.meta.url), { type: 'module' });

/** Calls `listen` when the worker that owns the document is gone: nothing it was asked will be answered. */
export const onWorkerDeath = (listen: () => void) => worker.addEventListener('error', listen);

/** The worker that owns the document. */
export const bench = Comlink.wrap<BenchApi>(worker) as unknown as BenchApi;

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

/** Asks the document something; undefined when something newer took the place of the question. */
export const ask = async <N extends QuestionName>(
  name: N,
  params: AskedOf<N>,
): Promise<AnswerOf<N> | undefined> => unwrap(await bench.ask(name, params));
