import { type Delta, inverse } from '../document/delta.ts';
import type { HemDocument } from '../document/document.ts';
import { HemError } from '../errors.ts';
import { applyKept } from './validateDelta.ts';

/**
 * Takes a document from one place of its history to another, as far as the acts on the way are whole.
 *
 * @param from  how many acts stand in `document`
 * @param to  how many are to stand; fewer than `from` takes acts back
 * @param deltaOf  what act number `i` changed, read back; throws HemError where that is damaged or missing
 * @returns the document as it is at `reached`, which is `to` when every act on the way is whole
 */
export async function walkActs(
  document: HemDocument,
  from: number,
  to: number,
  deltaOf: (i: number) => Delta | Promise<Delta>,
): Promise<{ readonly document: HemDocument; readonly reached: number }> {
  let reached = from;
  try {
    while (reached < to) {
      document = applyKept(document, await deltaOf(reached));
      reached++;
    }
    while (reached > to) {
      document = applyKept(document, inverse(await deltaOf(reached - 1)));
      reached--;
    }
  } catch (error) {
    if (!(error instanceof HemError)) throw error;
  }
  return { document, reached };
}
