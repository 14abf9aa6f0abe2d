import { Vector3 } from 'three';
import { useBench } from '../../store/bench.ts';
import { NO_UV, NOWHERE } from '../../worker/protocol.ts';
import type { Picked, Place } from '../tools/tool.ts';
import { clipOf, pageOf, paneElement } from './places.ts';
import { handle } from './rendererHandle.ts';

/** A hand so near a seam catches it, pixels. */
const REACH = 8;
/** How much farther off than what lies under the hand a seam may be seen to lie where it is nearest, in clip space. */
const BEHIND = 3e-3;

/** The seam nearest to a place of either pane, of those that can be seen there; undefined where none is near. */
export function seamNear(at: Place, found: Picked): number | undefined {
  const { model, flat } = useBench.getState();
  if (!model || !flat) return undefined;
  const spot = at.pane === 'model' ? onModel(at, found.place) : onBoard(at);
  if (!spot) return undefined;
  let [best, least]: [number | undefined, number] = [undefined, REACH];
  for (const e of flat.seams)
    for (const side of [0, 2]) {
      const [a, b] = [model.edgeEnds[4 * e + side], model.edgeEnds[4 * e + side + 1]];
      if (a === NOWHERE) continue;
      const far = fromSegment(spot(a), spot(b));
      if (far < least) [best, least] = [e, far];
    }
  return best;
}

/** Pixels from the hand to a drawn vertex, and how far it lies behind what is under the hand. */
type Offset = readonly [x: number, y: number, behind: number] | undefined;

/** Of drawn vertices from a place of the Model. */
function onModel(at: Place, place: Picked['place']): ((drawn: number) => Offset) | undefined {
  const { model } = useBench.getState();
  const { renderer } = handle;
  if (!model || !renderer) return undefined;
  const { width, height } = paneElement('model').getBoundingClientRect();
  const here = clipOf(at);
  const projected = new Vector3();
  const project = (list: ArrayLike<number>, i: number) =>
    renderer.model.project(projected.fromArray(list as number[], i));
  const deepest = place ? project(place, 0).z : 1;
  return (drawn) => {
    const { x, y, z } = project(model.positions, 3 * drawn);
    return [((x - here.x) * width) / 2, ((y - here.y) * height) / 2, z - deepest];
  };
}

/** Of drawn vertices from a place of the Board. */
function onBoard({ x, y }: Place): (drawn: number) => Offset {
  const { flat } = useBench.getState();
  return (drawn) => {
    const [u, v] = [flat?.uv[2 * drawn] ?? NO_UV, flat?.uv[2 * drawn + 1] ?? NO_UV];
    const page = u === NO_UV ? undefined : pageOf(u, v);
    return page && [page[0] - x, page[1] - y, 0];
  };
}

/** Distance of the hand from the segment between two points; none where that lies behind what is under the hand. */
function fromSegment(a: Offset, b: Offset): number {
  if (!a || !b) return Infinity;
  const [dx, dy] = [b[0] - a[0], b[1] - a[1]];
  const t = Math.max(0, Math.min(1, -(a[0] * dx + a[1] * dy) / (dx * dx + dy * dy || 1)));
  if (a[2] + t * (b[2] - a[2]) > BEHIND) return Infinity;
  return Math.hypot(a[0] + t * dx, a[1] + t * dy);
}
