import { IconClick } from '@tabler/icons-react';
import { useBench } from '../../store/bench.ts';
import { holdShells } from './holdShells.ts';
import { byClick } from './picking.ts';
import { rubberBand } from './rubberBand.ts';
import type { Grip, Place, Tool } from './tool.ts';

/** Picks by clicking. On the Board a selected shell is taken along by the hand. */
export const pick: Tool = {
  ...byClick,
  name: 'pick',
  label: 'Pick',
  help: 'Pick by clicking',
  key: 'q',
  icon: IconClick,
  panes: ['model', 'board'],
  press(at) {
    return at.pane === 'model' ? (at.ctrl ? rubberBand(at) : undefined) : shellsAt(at);
  },
};

/** The selected shells, where the press is on one of them. */
async function shellsAt(at: Place): Promise<Grip | undefined> {
  if (at.how !== 'only') return undefined;
  const { target, chosen } = useBench.getState();
  if (target !== 'shells' || chosen.size === 0) return undefined;
  const found = await at.pick();
  return found && chosen.has(found.shell) ? holdShells(at) : undefined;
}
