import type { AnswerOf, AskedOf, QuestionName } from '@blunt-hem/core/questions/index';
import { useEffect } from 'react';
import { ask } from '../store/worker.ts';

/**
 * Has a question answered while its answer is shown: anew when something that it is about has changed, and forgotten once it is no longer
 * wanted.
 *
 * @param take  told the answer, or that there is none
 */
export function useAsked<N extends QuestionName>(
  wanted: boolean,
  name: N,
  params: AskedOf<N>,
  about: readonly unknown[],
  take: (answer: AnswerOf<N> | undefined) => void,
): void {
  // biome-ignore lint/correctness/useExhaustiveDependencies: what is asked and told is the same for the same parameters
  useEffect(() => {
    if (!wanted) {
      take(undefined);
      return;
    }
    let gone = false;
    void ask(name, params)
      .catch(() => undefined)
      .then((answer) => {
        if (!gone) take(answer);
      });
    return () => {
      gone = true;
    };
  }, [wanted, name, JSON.stringify(params), ...about]);
}
