import { Vector3 } from 'three';
import { useBench } from '../../store/bench.ts';
import { type Hover, type Pane, SELECTED } from '../../store/selection.ts';
import { ask } from '../../store/worker.ts';
import { NO_UV, NOWHERE } from '../../worker/protocol.ts';
import { pageOf, paneElement, placeOf } from './places.ts';
import { handle } from './rendererHandle.ts';

/** To the right and up, one of them 0 and the other ±1. */
export type Way = readonly [number, number];
type Point = readonly [number, number];

/** Moves what is pointed at to its neighbour that way on the pane, for hands on the keys; at first, to the middle of the pane. */
export async function walk(pane: Pane, way: Way): Promise<void> {
  const { hover, target } = useBench.getState();
  const next = hover ? await nextTo(hover, pane, way) : await inMiddle(pane);
  // What was pointed at or picked may be another by now.
  if (next && useBench.getState().target === target) useBench.setState({ hover: { ...next, pane } });
}

async function nextTo(from: Hover, pane: Pane, way: Way): Promise<Hover | undefined> {
  const { target, flat } = useBench.getState();
  const beside = await ask('neighbours', { target, of: from[SELECTED[target].part] });
  const candidates = (beside ?? []).map((spot) => ({
    ...from,
    ...spot,
    shell: flat?.faceShell[spot.face] ?? 0,
  }));
  const start = placeIn(pane, from);
  return start && bestOf(candidates, start, way, (candidate) => placeIn(pane, candidate, start));
}

/** The candidate that is nearest that way: what lies aside counts as farther. */
export function bestOf<T>(
  candidates: readonly T[],
  start: Point,
  [x, y]: Way,
  placeOfIt: (candidate: T) => Point | undefined,
): T | undefined {
  let best: T | undefined;
  let least = Infinity;
  for (const candidate of candidates) {
    const place = placeOfIt(candidate);
    if (!place) continue;
    // Pixels go down.
    const [dx, dy] = [place[0] - start[0], start[1] - place[1]];
    const along = dx * x + dy * y;
    const aside = Math.abs(dx * y - dy * x);
    if (!(along > 0.35 * aside) || along < 1e-6) continue;
    const cost = along + 2 * aside;
    if (cost >= least) continue;
    best = candidate;
    least = cost;
  }
  return best;
}

async function inMiddle(pane: Pane): Promise<Hover | undefined> {
  const { left, top, width, height } = paneElement(pane).getBoundingClientRect();
  const middle = new MouseEvent('mousemove', { clientX: left + width / 2, clientY: top + height / 2 });
  const found = await placeOf(pane, middle).pick();
  if (found) return { ...found, pane };
  // Nothing is there: at whatever comes first.
  const [first] = useBench.getState().shells;
  if (!first) return undefined;
  const [beside] = (await ask('neighbours', { target: 'faces', of: first.name })) ?? [];
  return { pane, edge: beside?.edge ?? 0, face: first.name, point: beside?.point ?? 0, shell: 0 };
}

/** Where something is drawn in a pane, pixels; of the two sides of a seam on the Board, the one nearer to `from`. */
function placeIn(pane: Pane, { edge, face, point, shell }: Hover, from?: Point): Point | undefined {
  const { target, model, shells } = useBench.getState();
  if (!model) return undefined;
  if (target === 'edges') {
    const sides = [4 * edge, 4 * edge + 2]
      .map((i) => drawnAt(pane, [model.edgeEnds[i], model.edgeEnds[i + 1]]))
      .filter((place): place is Point => place !== undefined);
    const away = ([x, y]: Point) => (from ? Math.hypot(x - from[0], y - from[1]) : 0);
    return sides.sort((a, b) => away(a) - away(b))[0];
  }
  if (target === 'points') return drawnAt(pane, [model.cornerDrawn[point]]);
  const box = target === 'shells' && pane === 'board' ? shells[shell]?.box : undefined;
  if (box) return pageOf((box[0] + box[2]) / 2, (box[1] + box[3]) / 2);
  const t = firstTriangle(model.triangleFace, face);
  return drawnAt(pane, [3 * t, 3 * t + 1, 3 * t + 2]);
}

/** The mean place of drawn vertices; undefined where one is not drawn. */
function drawnAt(pane: Pane, vertices: readonly number[]): Point | undefined {
  const { model, flat } = useBench.getState();
  const { renderer } = handle;
  if (!model || !flat || !renderer || vertices.includes(NOWHERE)) return undefined;
  const mean = (array: ArrayLike<number>, stride: number, k: number) =>
    vertices.reduce((sum, v) => sum + array[stride * v + k], 0) / vertices.length;
  if (pane === 'board') {
    if (vertices.some((v) => flat.uv[2 * v] === NO_UV)) return undefined;
    return pageOf(mean(flat.uv, 2, 0), mean(flat.uv, 2, 1));
  }
  const { left, top, width, height } = paneElement('model').getBoundingClientRect();
  const [x, y, z] = [0, 1, 2].map((k) => mean(model.positions, 3, k));
  const clip = renderer.model.project(new Vector3(x, y, z));
  return [left + (width * (clip.x + 1)) / 2, top + (height * (1 - clip.y)) / 2];
}

/** Triangles stand in the order of their faces. */
function firstTriangle(triangleFace: Uint32Array, face: number): number {
  let [low, high] = [0, triangleFace.length - 1];
  while (low < high) {
    const middle = (low + high) >> 1;
    if (triangleFace[middle] < face) low = middle + 1;
    else high = middle;
  }
  return low;
}
