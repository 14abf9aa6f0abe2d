import { checker, showOverlay } from '../commands/looking.ts';
import { OVERLAYS } from '../overlays/index.ts';
import type { StageView } from './stage.ts';

export const inspect: StageView = {
  name: 'inspect',
  label: 'Inspect',
  tools: [],
  commands: [...OVERLAYS.map(showOverlay), checker],
  mark: ({ overlaps, shells }) =>
    (overlaps?.faces.length ?? 0) > 0 || shells.some(({ stretch }) => (stretch?.flipped ?? 0) > 0)
      ? 'Findings'
      : '',
};
