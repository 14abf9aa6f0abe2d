import type { HemDocument } from '../document/document.ts';
import { applyPatch } from '../document/patch.ts';
import type { Request } from '../document/request.ts';
import { carryOut } from '../operations/catalogue.ts';
import { localContext } from '../operations/localContext.ts';

/** A document after some acts. */
export async function after(document: HemDocument, ...requests: readonly Request[]): Promise<HemDocument> {
  let now = document;
  for (const request of requests) now = applyPatch(now, (await carryOut(now, request, localContext)).patch);
  return now;
}
