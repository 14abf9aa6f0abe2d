import { IconRoute } from '@tabler/icons-react';
import { useBench } from '../../../store/bench.ts';
import { ask } from '../../../store/worker.ts';
import { newestOnly } from '../newestOnly.ts';
import type { Picked, Place, Tool } from '../tool.ts';
import { addPoint, finish, inTurn, settings, through, vertexOf } from './drawing.ts';
import { movePoint, pointNear, stroke } from './grips.ts';
import { RouteSettings } from './RouteSettings.tsx';

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
  Settings: RouteSettings,
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
