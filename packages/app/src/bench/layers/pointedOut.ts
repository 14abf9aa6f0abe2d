import type { BenchStore } from '../../store/bench.ts';
import type { Pane } from '../../store/selection.ts';
import { PALETTE } from '../../theme/palette.ts';
import { NO_UV } from '../../worker/protocol.ts';
import { pointMarks } from '../panes/pointMarks.ts';
import type { Layer } from './layer.ts';

/** Above the shells and their borders. */
const HEIGHT = 0.2;

/** A ring round faces that are shown and not selected, as the worst place: seen on every map, however small the face. */
const pointedOutIn = (pane: Pane): Layer => ({
  name: 'what is pointed out',
  pane,
  passing: true,
  make() {
    const marks = pointMarks({ colour: PALETTE.ink, size: 30, shape: 'ring', order: 9 });
    return {
      object: marks.object,
      needs: (s) => [s.model, s.flat?.uv, s.pointedOut],
      update: (state) => marks.set(Float32Array.from(placesOf(state, pane))),
      dispose: marks.dispose,
    };
  },
});

/** The middle of one triangle of each face. */
function placesOf({ model, flat, pointedOut }: BenchStore, pane: Pane): number[] {
  if (!model || !flat || pointedOut.size === 0) return [];
  const left = new Set(pointedOut);
  const places: number[] = [];
  const { triangleFace, positions } = model;
  for (let t = 0; t < triangleFace.length && left.size > 0; t++) {
    if (!left.delete(triangleFace[t])) continue;
    const middle = (list: Float32Array, width: number, k: number) =>
      (list[3 * width * t + k] + list[3 * width * t + width + k] + list[3 * width * t + 2 * width + k]) / 3;
    if (pane === 'model')
      places.push(middle(positions, 3, 0), middle(positions, 3, 1), middle(positions, 3, 2));
    else if (flat.uv[6 * t] !== NO_UV) places.push(middle(flat.uv, 2, 0), middle(flat.uv, 2, 1), HEIGHT);
  }
  return places;
}

export const modelPointedOut = pointedOutIn('model');
export const boardPointedOut = pointedOutIn('board');
