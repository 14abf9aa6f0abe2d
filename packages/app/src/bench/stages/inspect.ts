import { byFace, checker, showOverlay } from '../commands/looking.ts';
import { judgements } from '../judging.ts';
import { OVERLAYS } from '../overlays/index.ts';
import type { StageView } from './stage.ts';

export const inspect: StageView = {
  name: 'inspect',
  label: 'Inspect',
  tools: [],
  commands: [...OVERLAYS.map(showOverlay), byFace, checker],
  mark: (state) => (judgements(state).some(({ tone }) => tone === 'bad') ? 'Findings' : ''),
};
