import { applyDelta } from '../document/delta.ts';
import type { HemDocument } from '../document/document.ts';
import type { Request } from '../document/request.ts';
import { HemError } from '../errors.ts';
import { carryOut, operationNamed } from './catalogue.ts';
import type { OperationContext } from './operation.ts';

/**
 * The document as an act, and what follows it, would leave it; nothing is done.
 *
 * @throws HemError when it cannot be done; where only what follows cannot be, the act stands without it
 */
export async function tryOut(
  document: HemDocument,
  request: Request,
  context: OperationContext,
): Promise<HemDocument> {
  const { delta, params } = await carryOut(document, request, context);
  const after = applyDelta(document, delta);
  let now = after;
  try {
    for (const follow of operationNamed(request.operation).followUps ?? []) {
      const next = follow(after, now, params);
      if (next) now = applyDelta(now, (await carryOut(now, next, context)).delta);
    }
  } catch (error) {
    if (!(error instanceof HemError) || error.code === 'stopped') throw error;
  }
  return now;
}
