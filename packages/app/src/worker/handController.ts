import { type HemDocument, plainDocument } from '@blunt-hem/core/document/document';
import { HemError, StoppedError } from '@blunt-hem/core/errors';
import type { AnswerOf, AskedOf, QuestionName } from '@blunt-hem/core/questions/index';
import type { Hands } from '@blunt-hem/core/session/hands';
import * as Comlink from 'comlink';
import { errorOf } from './answer.ts';
import type { HandApi } from './handWorker.ts';
import { deathOf, NOT_LOADED } from './liveness.ts';
import type { Parcel, sharing } from './sharedInput.ts';
import { sayStop, stopFlag } from './stopFlag.ts';

interface HandWorker {
  readonly worker: Worker;
  readonly api: Comlink.Remote<HandApi>;
  readonly pack: (input: unknown) => Parcel;
  /** Rejects when the worker is dead. */
  readonly death: Promise<never>;
}

/** How often it is looked whether an answer is still wanted, milliseconds. */
const WATCH = 15;
/** A worker that has not answered so many watches (two seconds) after nobody wanted it any more hangs, and is ended. */
const DEAF = 133;

/**
 * Answers in a worker of their own what is asked while a hand moves, so that no act and no solver delays it, and it delays none. The worker is
 * started when it is first asked, and again when it broke down.
 *
 * @param shared  what is shared with the pools of this thread
 */
export function handController(shared: ReturnType<typeof sharing>): Hands {
  let hand: HandWorker | undefined;
  /** Documents as they are sent: one object each, for as long as it is open. */
  const plain = new WeakMap<HemDocument, HemDocument>();

  const start = (): HandWorker => {
    const worker = new Worker(new URL('./handWorker.ts', import.meta.url), { type: 'module' });
    const death = deathOf(worker).then((how) => {
      forget(worker);
      throw how === 'not-loaded'
        ? new HemError('not-loaded', NOT_LOADED)
        : new HemError('solver-died', 'The worker that answers the hand broke down and was started again.');
    });
    death.catch(() => undefined);
    return { worker, api: Comlink.wrap<HandApi>(worker), pack: shared.sender(true), death };
  };
  /** Ends a worker; the next question starts another. */
  const forget = (worker: Worker): void => {
    worker.terminate();
    if (hand?.worker === worker) hand = undefined;
  };
  const plainOf = (document: HemDocument): HemDocument => {
    let found = plain.get(document);
    if (!found) {
      found = plainDocument(document);
      plain.set(document, found);
    }
    return found;
  };

  return {
    async answer<N extends QuestionName>(
      document: HemDocument,
      name: N,
      params: AskedOf<N>,
      { signal }: { readonly signal: { readonly aborted: boolean } },
    ): Promise<AnswerOf<N>> {
      hand ??= start();
      const { worker, api, pack, death } = hand;
      const flag = stopFlag();
      let watch: ReturnType<typeof setInterval> | undefined;
      const unheeded = new Promise<never>((_, reject) => {
        let sinceStop = 0;
        watch = setInterval(() => {
          if (!signal.aborted) return;
          sayStop(flag);
          if (++sinceStop < DEAF) return;
          forget(worker);
          reject(new StoppedError());
        }, WATCH);
      });
      try {
        const parcel = pack({ document: plainOf(document) });
        const result = await Promise.race([api.answer(name, params, parcel, flag), death, unheeded]);
        if ('ok' in result) return result.ok as AnswerOf<N>;
        throw errorOf(result.failure);
      } finally {
        clearInterval(watch);
      }
    },
    keepOnly(document) {
      // What is ready for another document goes when the worker is asked about this one.
      if (!document) void hand?.api.rest();
    },
  };
}
