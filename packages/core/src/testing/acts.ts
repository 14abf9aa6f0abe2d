import { applyDelta } from '../document/delta.ts';
import type { HemDocument } from '../document/document.ts';
import type { Request } from '../document/request.ts';
import { carryOut } from '../operations/catalogue.ts';
import { localContext } from '../operations/localContext.ts';

/** A document after some acts. */
export async function after(document: HemDocument, ...requests: readonly Request[]): Promise<HemDocument> {
  let now = document;
  for (const request of requests) now = applyDelta(now, (await carryOut(now, request, localContext)).delta);
  return now;
}
