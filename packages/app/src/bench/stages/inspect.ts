import { plural } from '@blunt-hem/core/plural';
import { ellipses, nextWorst } from '../commands/inspecting.ts';
import { byFace, checker, showOverlay } from '../commands/looking.ts';
import { InspectDetails } from '../details/InspectDetails.tsx';
import { judgements } from '../judging.ts';
import { OVERLAYS } from '../overlays/index.ts';
import type { StageView } from './stage.ts';

export const inspect: StageView = {
  name: 'inspect',
  label: 'Inspect',
  tools: [],
  commands: [nextWorst, ...OVERLAYS.map(showOverlay), byFace, ellipses, checker],
  Details: InspectDetails,
  mark(state) {
    // As many as the list below has; where nothing lies flat yet, that alone is nothing to look at.
    const count = state.figures?.totals.unfolded ? (state.layout?.findings.length ?? 0) : 0;
    if (count > 0) return plural(count, 'finding');
    return judgements(state).some(({ tone }) => tone === 'bad') ? 'Findings' : '';
  },
};
