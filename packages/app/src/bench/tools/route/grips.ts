import { Vector3 } from 'three';
import { afterPick, hint } from '../../../store/acts.ts';
import { useBench } from '../../../store/bench.ts';
import type { RoutePoint } from '../../../store/cutting.ts';
import { clipOf, paneElement } from '../../panes/places.ts';
import { handle } from '../../panes/rendererHandle.ts';
import { newestOnly } from '../newestOnly.ts';
import type { Grip, Place } from '../tool.ts';
import { placeOfVertex, through, vertexOf } from './drawing.ts';

/** A press so near a point takes hold of it, pixels. */
const NEAR = 11;
/** Places of a stroke that a route leads through lie so far apart, pixels. */
const STRIDE = 36;
/** A stroke is followed rather than hidden. */
const STROKE_HIDDEN = 0.25;

const projected = new Vector3();

export function pointNear(at: Place): number {
  const { renderer } = handle;
  const { route: drawn } = useBench.getState();
  if (!renderer || !drawn) return -1;
  const { width, height } = paneElement('model').getBoundingClientRect();
  const here = clipOf(at);
  return drawn.points.findIndex(({ at: place }) => {
    renderer.model.project(projected.set(...place));
    return Math.hypot(((projected.x - here.x) * width) / 2, ((projected.y - here.y) * height) / 2) < NEAR;
  });
}

/** A point under the hand: the route follows it, and is as before when it is let go. */
export function movePoint(index: number): Grip {
  const before = useBench.getState().route;
  const move = newestOnly(async (to: Place) => {
    const found = await to.pick().catch(() => undefined);
    const drawn = useBench.getState().route;
    if (!found || !drawn) return;
    const moved = { vertex: vertexOf(found), at: found.place ?? placeOfVertex(vertexOf(found)) };
    await through(drawn.points.map((each, i) => (i === index ? moved : each)));
  });
  return {
    move: (to) => void move(to),
    drop: (to) => afterPick(move(to)),
    cancel: () => useBench.setState({ route: before }),
  };
}

/** Follows the hand, and lays a route along where it went. */
export function stroke(start: Place): Grip {
  let corners = [start.x, start.y];
  const places: Place[] = [start];
  const clear = () => useBench.setState({ lasso: undefined });
  return {
    move(to) {
      corners = [...corners, to.x, to.y];
      useBench.setState({ lasso: corners });
      const last = places[places.length - 1];
      if (Math.hypot(to.x - last.x, to.y - last.y) >= STRIDE) places.push(to);
    },
    drop(to) {
      clear();
      places.push(to);
      afterPick(follow(places));
    },
    cancel: clear,
  };
}

async function follow(places: readonly Place[]): Promise<void> {
  const points: RoutePoint[] = [...(useBench.getState().route?.points ?? [])];
  for (const place of places) {
    const found = await place.pick().catch(() => undefined);
    if (!found) continue;
    const vertex = vertexOf(found);
    if (points[points.length - 1]?.vertex !== vertex)
      points.push({ vertex, at: found.place ?? placeOfVertex(vertex) });
  }
  if (points.length < 2) return hint('Draw the stroke over the model.');
  await through(points, false, STROKE_HIDDEN);
}
