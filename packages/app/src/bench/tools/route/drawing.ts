import { afterPick, fail, hint, note } from '../../../store/acts.ts';
import { useBench } from '../../../store/bench.ts';
import type { DrawnRoute, RoutePoint } from '../../../store/cutting.ts';
import { select } from '../../../store/select.ts';
import { ask } from '../../../store/worker.ts';
import { frameSelection } from '../../panes/framing.ts';
import { imagesByPlace } from '../../useImagesByPlace.ts';
import type { Picked, Place } from '../tool.ts';

/** Points are set one after the other, however quick the hand. */
let turns: Promise<unknown> = Promise.resolve();
let waiting = 0;
export function inTurn(work: () => Promise<unknown>): void {
  waiting++;
  turns = turns
    .then(work)
    .catch(() => undefined)
    .finally(() => {
      waiting--;
    });
  afterPick(turns);
}

export const settings = () => {
  const { routeHidden, routeFollows, lookedAt } = useBench.getState();
  return { hidden: routeHidden, follow: routeFollows, view: lookedAt };
};

/** Where keys pointed at an edge, its first end. */
export const vertexOf = ({ vertex, edge }: Picked): number =>
  vertex ?? useBench.getState().model?.edgeVertices[2 * edge] ?? 0;

/** Place of a vertex, by an edge at it. */
export function placeOfVertex(vertex: number): [number, number, number] {
  const { model } = useBench.getState();
  const i = model?.edgeVertices.indexOf(vertex) ?? -1;
  if (!model || i < 0) return [0, 0, 0];
  const at = 3 * model.edgeEnds[4 * (i >> 1) + (i & 1)];
  return [model.positions[at], model.positions[at + 1], model.positions[at + 2]];
}

export async function addPoint(at: Place): Promise<void> {
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
export async function through(
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
export function finish(): boolean {
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
