import type { UvBox } from '@blunt-hem/core/surface/uvBox';
import type { BenchStore } from '../../store/bench.ts';
import { NO_UV, NOWHERE } from '../../worker/protocol.ts';

/** A place of the flat as requests name it. */
export interface NamedPlace {
  readonly vertex: number;
  readonly face: number;
}

type Known = Pick<BenchStore, 'model' | 'flat' | 'target' | 'points' | 'edges' | 'faces'>;

/** Points of the flat that are selected, or those of selected edges or faces, as requests name them; and their box. */
export function chosenPoints(state: Known): { readonly places: NamedPlace[]; readonly box?: UvBox } {
  const { model, flat } = state;
  const places = new Map<string, NamedPlace>();
  if (!model || !flat) return { places: [] };
  let [minU, minV, maxU, maxV] = [Infinity, Infinity, -Infinity, -Infinity];
  for (const at of drawnVertices(state)) {
    const [u, v] = [flat.uv[2 * at], flat.uv[2 * at + 1]];
    if (u === NO_UV) continue;
    const vertex = model.cornerVertex[at];
    const face = model.triangleFace[Math.floor(at / 3)];
    places.set(`${vertex} ${flat.faceShell[face]} ${u} ${v}`, { vertex, face });
    [minU, minV] = [Math.min(minU, u), Math.min(minV, v)];
    [maxU, maxV] = [Math.max(maxU, u), Math.max(maxV, v)];
  }
  return places.size > 0 ? { places: [...places.values()], box: [minU, minV, maxU, maxV] } : { places: [] };
}

function* drawnVertices({ model, target, points, edges, faces }: Known): Generator<number> {
  if (!model) return;
  if (target === 'points') for (const point of points) yield model.cornerDrawn[point];
  if (target === 'edges')
    for (const e of edges)
      for (const at of model.edgeEnds.subarray(4 * e, 4 * e + 4)) if (at !== NOWHERE) yield at;
  if (target === 'faces' && faces.size > 0)
    for (let t = 0; t < model.triangleFace.length; t++)
      if (faces.has(model.triangleFace[t])) for (let k = 0; k < 3; k++) yield 3 * t + k;
}
