import { type HemDocument, topologyOf } from '../document/document.ts';
import type { Patient } from '../health/check.ts';

/** The model of a document as checks want it. */
export function patientOf({ model }: HemDocument): Patient {
  const { mesh, links, triangulation } = topologyOf(model);
  return { model, mesh, links, triangulation };
}
