import { PALETTE } from '../../theme/palette.ts';
import { fatLines } from '../panes/fatLines.ts';
import type { Layer } from './layer.ts';

/** Above the shells and their borders. */
const HEIGHT = 0.2;

/** The region that is packed. */
export const region: Layer = {
  name: 'region',
  pane: 'board',
  passing: true,
  make() {
    const lines = fatLines({ colour: PALETTE.fuchsia, width: 2, dash: [0.02, 0.012], order: 6 });
    return {
      object: lines.object,
      needs: (s) => [s.packRegion, s.stage],
      update({ packRegion, stage }) {
        if (!packRegion || stage !== 'arrange') return lines.set(new Float32Array(0));
        const [left, low, right, high] = packRegion;
        const corners = [
          [left, low],
          [right, low],
          [right, high],
          [left, high],
        ];
        lines.set(
          Float32Array.from(
            corners.flatMap((corner, i) => [...corner, HEIGHT, ...corners[(i + 1) % 4], HEIGHT]),
          ),
        );
      },
      dispose: lines.dispose,
    };
  },
};
