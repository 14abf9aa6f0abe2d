import type { Pane } from '../../store/selection.ts';
import { PALETTE } from '../../theme/palette.ts';
import { fatLines } from '../panes/fatLines.ts';
import type { Layer } from './layer.ts';

/** Above the shells, below what is selected. */
const HEIGHT = 0.12;

/** Tissot's ellipses: what becomes of equal circles of the other pane. */
const ellipsesIn = (pane: Pane): Layer => ({
  name: 'ellipses',
  pane,
  make() {
    const lines = fatLines({ colour: PALETTE.ink, width: 1.6, order: 2 });
    return {
      object: lines.object,
      needs: (s) => [s.ellipses],
      update({ ellipses }) {
        if (!ellipses || pane === 'model') return lines.set(ellipses?.model ?? new Float32Array(0));
        const { board } = ellipses;
        const raised = new Float32Array((3 * board.length) / 2);
        for (let i = 0; 2 * i < board.length; i++)
          raised.set([board[2 * i], board[2 * i + 1], HEIGHT], 3 * i);
        lines.set(raised);
      },
      dispose: lines.dispose,
    };
  },
});

export const modelEllipses = ellipsesIn('model');
export const boardEllipses = ellipsesIn('board');
