import type { Patient } from '../health/check.ts';
import type { Model } from '../mesh/model.ts';
import { topologyOf } from './document.ts';

/** A model as checks want it. */
export function patientOf(model: Model): Patient {
  const { mesh, connectivity, triangulation } = topologyOf(model);
  return { model, mesh, connectivity, triangulation };
}
