import { IconRoute } from '@tabler/icons-react';
import { Checkbox } from 'antd';
import { Vector3 } from 'three';
import { afterPick, fail, hint, note } from '../../store/acts.ts';
import { useBench } from '../../store/bench.ts';
import type { DrawnRoute, RoutePoint } from '../../store/cutting.ts';
import { select } from '../../store/select.ts';
import { ask } from '../../store/worker.ts';
import { frameSelection } from '../panes/framing.ts';
import { clipOf, paneElement } from '../panes/places.ts';
import { handle } from '../panes/rendererHandle.ts';
import { parameterOf } from '../parameterOf.ts';
import { RailSlider } from '../rail/RailSlider.tsx';
import { imagesByPlace } from '../useImagesByPlace.ts';
import { newestOnly } from './newestOnly.ts';
import type { Grip, Picked, Place, Tool } from './tool.ts';

const { range } = parameterOf('route', 'hidden');

/** A press so near a point takes hold of it, pixels. */
const NEAR = 11;
/** Places of a stroke that a route leads through lie so far apart, pixels. */
const STRIDE = 36;
/** A stroke is followed rather than hidden. */
const STROKE_HIDDEN = 0.25;

/** A way along edges through the points that are clicked, short or hidden as the artist likes. */
export const route: Tool = {
  name: 'route',
  label: 'Route',
  help: 'A hidden route through clicked points: Backspace takes one back, Enter ends, Ctrl and drag follows a stroke',
  key: 'w',
  icon: IconRoute,
  panes: ['model', 'board'],
  hover: (at) => void lead(at),
  leave: () => ahead([]),
  click: (at) => inTurn(() => addPoint(at)),
  double: () => void finish(),
  press(at) {
    if (at.ctrl && at.pane === 'model') return stroke(at);
    const point = at.pane === 'model' ? pointNear(at) : -1;
    return point >= 0 ? movePoint(point) : undefined;
  },
  keys: {
    backspace() {
      const { route: drawn } = useBench.getState();
      if (!drawn) return false;
      inTurn(() => through(useBench.getState().route?.points.slice(0, -1) ?? []));
      return true;
    },
    enter: () => finish(),
    escape() {
      if (!useBench.getState().route) return false;
      useBench.setState({ route: undefined });
      return true;
    },
  },
  leaveHand: () => void finish(),
  Settings() {
    const hidden = useBench((s) => s.routeHidden);
    const follows = useBench((s) => s.routeFollows);
    const again = () => {
      const { route: drawn } = useBench.getState();
      if (drawn) void through(drawn.points);
    };
    return (
      <>
        <RailSlider
          left="Short"
          right="Hidden"
          {...range}
          step={0.05}
          value={hidden}
          onChange={(value) => useBench.setState({ routeHidden: value })}
          onChangeComplete={again}
          label="From the shortest way to the most hidden"
        />
        <Checkbox
          className="rail-check"
          checked={follows}
          onChange={(event) => {
            useBench.setState({ routeFollows: event.target.checked });
            again();
          }}
        >
          Follow seams
        </Checkbox>
      </>
    );
  },
};

/** Points are set one after the other, however quick the hand. */
let turns: Promise<unknown> = Promise.resolve();
let waiting = 0;
function inTurn(work: () => Promise<unknown>): void {
  waiting++;
  turns = turns
    .then(work)
    .catch(() => undefined)
    .finally(() => {
      waiting--;
    });
  afterPick(turns);
}

const settings = () => {
  const { routeHidden, routeFollows, lookedAt } = useBench.getState();
  return { hidden: routeHidden, follow: routeFollows, view: lookedAt };
};

/** The way on to the pointer. */
const lead = newestOnly(async (at: Place, isNewest) => {
  const found = await at.pick().catch(() => undefined);
  const { route: drawn } = useBench.getState();
  if (found) point(at, found);
  if (!found || !drawn) return;
  const last = drawn.points[drawn.points.length - 1].vertex;
  const way = await ask('route', { through: [last, vertexOf(found)], ...settings() }).catch(() => undefined);
  if (way && isNewest() && useBench.getState().route?.points === drawn.points) ahead(way.edges);
});

function point(at: Place, { edge, face, point, shell }: Picked): void {
  const { hover } = useBench.getState();
  if (hover?.edge !== edge || hover.pane !== at.pane)
    useBench.setState({ hover: { pane: at.pane, edge, face, point, shell } });
}

function ahead(edges: readonly number[]): void {
  useBench.setState(({ route: drawn }) => ({ route: drawn && { ...drawn, ahead: edges } }));
}

/** Where keys pointed at an edge, its first end. */
const vertexOf = ({ vertex, edge }: Picked): number =>
  vertex ?? useBench.getState().model?.edgeVertices[2 * edge] ?? 0;

async function addPoint(at: Place): Promise<void> {
  const found = await at.pick();
  if (!found) return hint('Click on the model: the route runs along its edges.');
  const vertex = vertexOf(found);
  const points = useBench.getState().route?.points ?? [];
  // Back at the first it closes; at the last again it ends.
  if (points.length > 2 && vertex === points[0].vertex) return through(points, true);
  if (points.length > 0 && vertex === points[points.length - 1].vertex) return end();
  const place = at.pane === 'model' ? found.place : undefined;
  await through([...points, { vertex, at: place ?? placeOfVertex(vertex) }]);
}

/** Draws the route through points; closed, it is done with. */
async function through(
  points: readonly RoutePoint[],
  close = false,
  hidden = settings().hidden,
): Promise<void> {
  if (points.length === 0) return useBench.setState({ route: undefined });
  try {
    const found = await ask('route', {
      through: points.map(({ vertex }) => vertex),
      close,
      ...settings(),
      hidden,
    });
    if (!found) return;
    if (found.gap) {
      const gap = found.gap;
      return useBench.setState({
        notice: {
          tone: 'error',
          text: 'No edges lead there: it is another piece. Its nearest point lies at another place of this one.',
          offer: { label: 'Show the two points', act: () => showGap(gap) },
        },
      });
    }
    const { symmetry } = useBench.getState();
    const images = symmetry?.byPlace && (await imagesByPlace(symmetry, { edges: found.edges }))?.edges;
    const drawn: DrawnRoute = { points, edges: found.edges, ahead: [], ...(images && { images }) };
    useBench.setState((s) => ({ route: drawn, notice: s.notice?.tone === 'hint' ? undefined : s.notice }));
    if (close) end();
  } catch (error) {
    fail(error);
  }
}

/** The two points at which two pieces come nearest, as selected edges. */
function showGap(gap: readonly [number, number]): void {
  const { model } = useBench.getState();
  if (!model) return;
  const edges = gap.map((v) => model.edgeVertices.indexOf(v) >> 1).filter((e) => e >= 0);
  useBench.setState({ target: 'edges', notice: undefined });
  select('edges', edges, 'only');
  frameSelection();
}

/** The route becomes selected edges, to be cut, once all that was clicked is on it; false when there is none. */
function finish(): boolean {
  if (!useBench.getState().route && waiting === 0) return false;
  inTurn(async () => end());
  return true;
}

function end(): void {
  const { route: drawn } = useBench.getState();
  if (!drawn) return;
  useBench.setState({ route: undefined, target: 'edges' });
  if (drawn.edges.length === 0) {
    note('A route wants two points at least.');
    return;
  }
  select('edges', drawn.edges, 'add');
}

/** Place of a vertex, by an edge at it. */
function placeOfVertex(vertex: number): [number, number, number] {
  const { model } = useBench.getState();
  const i = model?.edgeVertices.indexOf(vertex) ?? -1;
  if (!model || i < 0) return [0, 0, 0];
  const at = 3 * model.edgeEnds[4 * (i >> 1) + (i & 1)];
  return [model.positions[at], model.positions[at + 1], model.positions[at + 2]];
}

const projected = new Vector3();

function pointNear(at: Place): number {
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
function movePoint(index: number): Grip {
  const before = useBench.getState().route;
  let busy = false;
  const move = async (to: Place): Promise<void> => {
    if (busy) return;
    busy = true;
    const found = await to.pick().catch(() => undefined);
    const drawn = useBench.getState().route;
    if (found && drawn) {
      const moved = { vertex: vertexOf(found), at: found.place ?? placeOfVertex(vertexOf(found)) };
      await through(drawn.points.map((each, i) => (i === index ? moved : each)));
    }
    busy = false;
  };
  return {
    move: (to) => void move(to),
    drop: (to) => afterPick(move(to)),
    cancel: () => useBench.setState({ route: before }),
  };
}

/** Follows the hand, and lays a route along where it went. */
function stroke(start: Place): Grip {
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
