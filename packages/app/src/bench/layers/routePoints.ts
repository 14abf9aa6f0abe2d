import { PALETTE } from '../../theme/palette.ts';
import { pointMarks } from '../panes/pointMarks.ts';
import type { Layer } from './layer.ts';

/** The points that a route leads through. */
export const routePoints: Layer = {
  name: 'points of the route',
  pane: 'model',
  passing: true,
  make() {
    const marks = pointMarks({ colour: PALETTE.fuchsia, size: 10, order: 6 });
    return {
      object: marks.object,
      needs: (s) => [s.route?.points],
      update: ({ route }) => marks.set(Float32Array.from(route?.points.flatMap(({ at }) => [...at]) ?? [])),
      dispose: marks.dispose,
    };
  },
};
