import type { Delta } from '../document/delta.ts';
import type { HemDocument } from '../document/document.ts';
import type { Jobs } from '../jobs/index.ts';
import type { Param } from '../params.ts';
import type { Context } from '../progress.ts';
import type { AnswerCache } from './answerCache.ts';

export interface QuestionContext extends Context {
  readonly jobs: Jobs;
  /** What is kept from one answer to the next; nothing is where it is absent. */
  readonly cache?: AnswerCache;
}

/** Something the interface wants to know of a document: read-only, never recorded, and cancelled when it is asked anew. */
export interface Question<Name extends string, Out, In, Answer> {
  readonly name: Name;
  readonly params: Param<Out, In>;
  /** Whether an answer on its way is of no more use after a change; after any, when absent. */
  readonly lapses?: (delta: Delta) => boolean;
  /** Nobody waits for it with the hand on the key: it gives way to everything else. */
  readonly background?: true;
  /** Only for while nothing else is done: the beginning of any act ends it. */
  readonly idle?: true;
  /**
   * Answered beside everything else in a worker that has the document: asked again and again while a hand moves, or longer than the
   * document's own worker may be kept busy. It needs the document only, and may keep something ready.
   */
  readonly byHand?: true;
  /** May be asked several times at once; else the newest takes the place of the one before. */
  readonly several?: true;
  answer(document: HemDocument, params: Out, context: QuestionContext): Answer | Promise<Answer>;
}

/** Lets the types of a question follow from its schema and its answer. */
export const question = <const Name extends string, Out, In, Answer>(
  spec: Question<Name, Out, In, Answer>,
): Question<Name, Out, In, Answer> => spec;
