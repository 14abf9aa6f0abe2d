import type { AnswerOf, AskedOf, QuestionName } from '@blunt-hem/core/questions/index';

import type { Answer, BenchApi } from '../worker/protocol.ts';
import { useBench } from './bench.ts';
import { NoAnswerError, superviseWorker } from './supervisor.ts';

/** The worker that owns the document. */
const supervised = superviseWorker<BenchApi>(
  () => new Worker(new URL('../worker/documentWorker.ts', import.meta.url), { type: 'module' }),
  (worker) => useBench.setState({ worker }),
);

// Many ask in passing and wait for nothing: what they were not answered is told by its condition.
window.addEventListener('unhandledrejection', (event) => {
  if (event.reason instanceof NoAnswerError) event.preventDefault();
});

export const bench = supervised.api;
export const { restart, stopOrRestart } = supervised;

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

/** The same for a picture on its way: where there is no answer there is none, and what is wrong is told by the act. */
export const askQuietly = <N extends QuestionName>(
  name: N,
  params: AskedOf<N>,
): Promise<AnswerOf<N> | undefined> =>
  ask(name, params).catch((error) => {
    if (!(error instanceof ArtistError)) throw error;
    return undefined;
  });
