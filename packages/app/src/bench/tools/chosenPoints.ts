import type { UvBox } from '@blunt-hem/core/surface/uvBox';
import type { BenchStore } from '../../store/bench.ts';
import { NO_UV, NOWHERE } from '../../worker/protocol.ts';

/** A place of the flat as requests name it. */
export interface NamedPlace {
  readonly vertex: number;
  readonly face: number;
}

/** Where such a place lies. */
interface PlaceOnBoard {
  readonly u: number;
  readonly v: number;
  readonly shell: number;
}

interface ChosenPoints {
  readonly places: readonly NamedPlace[];
  /** Where each of them lies. */
  readonly at: readonly PlaceOnBoard[];
  readonly box?: UvBox;
}

type Known = Pick<BenchStore, 'model' | 'flat' | 'target' | 'points' | 'edges' | 'faces'>;

/** Points of the flat that are selected, or those of selected edges or faces, as requests name them; and their box. */
export function chosenPoints(state: Known): ChosenPoints {
  const { model, flat } = state;
  const places = new Map<string, { readonly place: NamedPlace; readonly at: PlaceOnBoard }>();
  if (!model || !flat) return { places: [], at: [] };
  let [minU, minV, maxU, maxV] = [Infinity, Infinity, -Infinity, -Infinity];
  for (const at of drawnVertices(state)) {
    const [u, v] = [flat.uv[2 * at], flat.uv[2 * at + 1]];
    if (u === NO_UV) continue;
    const vertex = model.cornerVertex[at];
    const face = model.triangleFace[Math.floor(at / 3)];
    const shell = flat.faceShell[face];
    places.set(`${vertex} ${shell} ${u} ${v}`, { place: { vertex, face }, at: { u, v, shell } });
    [minU, minV] = [Math.min(minU, u), Math.min(minV, v)];
    [maxU, maxV] = [Math.max(maxU, u), Math.max(maxV, v)];
  }
  const found = [...places.values()];
  return {
    places: found.map(({ place }) => place),
    at: found.map(({ at }) => at),
    ...(found.length > 0 && { box: [minU, minV, maxU, maxV] as const }),
  };
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
