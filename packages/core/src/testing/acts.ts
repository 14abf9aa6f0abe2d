import type { HemDocument } from '../document/document.ts';
import { flatTask } from '../document/flatTask.ts';
import { applyPatch } from '../document/patch.ts';
import { overlaps } from '../jobs/overlaps.ts';
import { carryOut } from '../operations/catalogue.ts';
import { localContext } from '../operations/localContext.ts';
import type { Request } from '../operations/operation.ts';
import { unattended } from '../progress.ts';

/** A document after some acts. */
export async function after(document: HemDocument, ...requests: readonly Request[]): Promise<HemDocument> {
  let now = document;
  for (const request of requests) now = applyPatch(now, (await carryOut(now, request, localContext)).patch);
  return now;
}

/** Faces that lie on each other, two a pair. */
export const overlappingFaces = (document: HemDocument): Uint32Array =>
  overlaps.run(flatTask(document), unattended) as Uint32Array;
