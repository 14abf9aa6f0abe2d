import { PALETTE } from '../../theme/palette.ts';
import { fatLines } from '../panes/fatLines.ts';
import type { Layer } from './layer.ts';

/** Above the shells and their borders. */
const HEIGHT = 0.2;

/** Shells as a cut would lay them out, before it is made. */
export const ghost: Layer = {
  name: 'ghost',
  pane: 'board',
  make() {
    const lines = fatLines({ colour: PALETTE.fuchsia, width: 2, opacity: 0.7, order: 6 });
    return {
      object: lines.object,
      needs: (s) => [s.ghost],
      update({ ghost: shown }) {
        const flat = shown?.lines ?? new Float32Array(0);
        const positions = new Float32Array((3 * flat.length) / 2);
        for (let i = 0; 2 * i < flat.length; i++)
          positions.set([flat[2 * i], flat[2 * i + 1], HEIGHT], 3 * i);
        lines.set(positions);
      },
      dispose: lines.dispose,
    };
  },
};
