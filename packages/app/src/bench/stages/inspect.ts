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
    const grave = state.layout?.findings.filter(({ severity }) => severity === 'spoils').length ?? 0;
    if (grave > 0) return grave === 1 ? '1 finding' : `${grave} findings`;
    return judgements(state).some(({ tone }) => tone === 'bad') ? 'Findings' : '';
  },
};
