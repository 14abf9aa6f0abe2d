import type { HemDocument } from '../document/document.ts';
import { answerCache } from '../questions/answerCache.ts';
import { type AnswerOf, type AskedOf, answerQuestion, type QuestionName } from '../questions/index.ts';
import type { QuestionContext } from '../questions/question.ts';

/** Where questions are answered that are asked while a hand moves: what one of them keeps ready is there when it is asked again. */
export interface Hands {
  answer<N extends QuestionName>(
    document: HemDocument,
    name: N,
    params: AskedOf<N>,
    context: QuestionContext,
  ): Promise<AnswerOf<N>>;
  /** Lets go of what is kept ready for any other document; for all, when absent. */
  keepOnly(document?: HemDocument): void;
}

/** On this thread. */
export function handsHere(): Hands {
  const cache = answerCache();
  return {
    answer: (document, name, params, context) =>
      answerQuestion(document, name, params, { ...context, cache }),
    keepOnly: (document) => cache.keepOnly(document),
  };
}
