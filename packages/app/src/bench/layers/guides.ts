import { PALETTE } from '../../theme/palette.ts';
import { fatLines } from '../panes/fatLines.ts';
import type { Layer } from './layer.ts';

/** Above the shells and their borders. */
const HEIGHT = 0.2;

/** Lines on which what is moved by hand has taken hold. */
export const guides: Layer = {
  name: 'guides',
  pane: 'board',
  passing: true,
  make() {
    const lines = fatLines({ colour: PALETTE.pine, width: 1.5, order: 7 });
    return {
      object: lines.object,
      needs: (s) => [s.guides],
      update: ({ guides: held }) =>
        lines.set(Float32Array.from(held.flatMap(([u0, v0, u1, v1]) => [u0, v0, HEIGHT, u1, v1, HEIGHT]))),
      dispose: lines.dispose,
    };
  },
};
