import { IconClick } from '@tabler/icons-react';
import { useBench } from '../../store/bench.ts';
import { holdPoints } from './holdPoints.ts';
import { holdShells } from './holdShells.ts';
import { byClick } from './picking.ts';
import { rubberBand } from './rubberBand.ts';
import type { Grip, Place, Tool } from './tool.ts';

/** Picks by clicking. On the Board selected shells and points are taken along by the hand. */
export const pick: Tool = {
  ...byClick,
  name: 'pick',
  label: 'Pick',
  help: 'Pick by clicking',
  key: 'q',
  icon: IconClick,
  panes: ['model', 'board'],
  press(at) {
    return at.pane === 'model' ? (at.ctrl ? rubberBand(at) : undefined) : selectedAt(at);
  },
};

/** The selected shells or points, where the press is on one of them. */
async function selectedAt(at: Place): Promise<Grip | undefined> {
  if (at.how !== 'only') return undefined;
  const { target, chosen, points } = useBench.getState();
  if (target === 'shells' && chosen.size > 0) {
    const found = await at.pick();
    return found && chosen.has(found.shell) ? holdShells(at) : undefined;
  }
  if (target === 'points' && points.size > 0) {
    const found = await at.pick();
    return found && points.has(found.point) ? holdPoints(at) : undefined;
  }
  return undefined;
}
