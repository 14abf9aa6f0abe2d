import { relax, unfold as unfoldShells } from '../commands/flattening.ts';
import type { StageView } from './stage.ts';

export const unfold: StageView = {
  name: 'unfold',
  label: 'Unfold',
  tools: [],
  commands: [unfoldShells, relax],
  Panel: () => (
    <p className="rail-text">
      Unfolding keeps angles. Relaxing evens out area, gives up a little angle, and never flips a face.
    </p>
  ),
  mark({ shells }) {
    const changed = shells.filter(({ stale, unfolded }) => stale && unfolded).length;
    return changed > 0 ? `${changed} changed since` : '';
  },
};
