import type { HemDocument } from '@blunt-hem/core/document/document';
import { buffersIn } from '@blunt-hem/core/jobs/buffersIn';
import { localJobs } from '@blunt-hem/core/jobs/index';
import { unattended } from '@blunt-hem/core/progress';
import type { AnswerOf, AskedOf, QuestionName } from '@blunt-hem/core/questions/index';
import { handsHere } from '@blunt-hem/core/session/hands';
import * as Comlink from 'comlink';
import { answer } from './answer.ts';
import { declareAlive } from './liveness.ts';
import type { Answer } from './protocol.ts';
import { type Parcel, receiver } from './sharedInput.ts';
import { lookAt } from './stopFlag.ts';

/** The worker that answers a hand that moves, on the newest document, which it keeps. */
export interface HandApi {
  answer<N extends QuestionName>(
    name: N,
    params: AskedOf<N>,
    parcel: Parcel,
    stop: Int32Array,
  ): Promise<Answer<AnswerOf<N>>>;
  /** Lets go of all that is kept ready. */
  rest(): Promise<void>;
}

const unpack = receiver();
const hands = handsHere();

const api: HandApi = {
  async answer(name, params, parcel, stop) {
    const { document } = unpack(parcel) as { readonly document: HemDocument };
    hands.keepOnly(document);
    const signal = {
      get aborted() {
        return lookAt(stop);
      },
    };
    const result = await answer(() =>
      hands.answer(document, name, params, { ...unattended, signal, jobs: localJobs }),
    );
    return 'ok' in result ? Comlink.transfer(result, buffersIn(result.ok)) : result;
  },
  async rest() {
    hands.keepOnly();
  },
};

Comlink.expose(api);
declareAlive();
