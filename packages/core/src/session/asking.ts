import type { Delta } from '../document/delta.ts';
import type { HemDocument } from '../document/document.ts';
import { HemError } from '../errors.ts';
import type { Jobs } from '../jobs/index.ts';
import type { Progress } from '../progress.ts';
import {
  type AnswerOf,
  type AskedOf,
  answerQuestion,
  isBackground,
  isByHand,
  isIdle,
  isSeveral,
  lapses,
  type QuestionName,
} from '../questions/index.ts';
import { type Hands, handsHere } from './hands.ts';

/** Where questions are answered. */
export interface AskingStart {
  /** Those that somebody waits for. */
  readonly jobs: Jobs;
  /** Those for which nobody waits. */
  readonly backgroundJobs: Jobs;
  /** Those that are only for idle times and may take long. */
  readonly idleJobs: Jobs;
  /** Those of a hand that moves. */
  readonly hands?: Hands;
}

/** The questions that are being answered, of each kind the newest but where several may be asked at once. */
export function asking({ jobs, backgroundJobs, idleJobs, hands = handsHere() }: AskingStart) {
  const running = new Map<QuestionName, { aborted: boolean }>();
  const abortWhere = (holds: (name: QuestionName) => boolean): void => {
    for (const [name, signal] of running) if (holds(name)) signal.aborted = true;
  };
  return {
    /** @returns undefined when the same was asked anew, or it lapsed, and it had not been answered */
    async ask<N extends QuestionName>(
      document: HemDocument,
      name: N,
      params: AskedOf<N>,
      report: (progress: Progress) => void,
    ): Promise<AnswerOf<N> | undefined> {
      const signal = { aborted: false };
      if (!isSeveral(name)) {
        const last = running.get(name);
        if (last) last.aborted = true;
        running.set(name, signal);
      }
      const where = isIdle(name) ? idleJobs : isBackground(name) ? backgroundJobs : jobs;
      const context = { signal, jobs: where, report };
      try {
        return isByHand(name)
          ? await hands.answer(document, name, params, context)
          : await answerQuestion(document, name, params, context);
      } catch (error) {
        if (error instanceof HemError && error.code === 'stopped') return undefined;
        throw error;
      } finally {
        if (running.get(name) === signal) running.delete(name);
      }
    },
    /** Ends one; it answers with the best it has, or with nothing. */
    stop: (name: QuestionName): void => abortWhere((each) => each === name),
    /** Ends those that are only for idle times. */
    stopIdle: (): void => abortWhere(isIdle),
    /** The document is another one, by these deltas: ends what is of no more use. */
    changedTo(document: HemDocument, deltas: readonly Delta[]): void {
      hands.keepOnly(document);
      abortWhere((name) => lapses(name, deltas));
    },
    end(): void {
      abortWhere(() => true);
      hands.keepOnly();
    },
  };
}
