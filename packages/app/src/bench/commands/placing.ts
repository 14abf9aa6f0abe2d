import { plural } from '@blunt-hem/core/plural';
import {
  IconArrowsDiagonal,
  IconArrowsDiagonalMinimize2,
  IconFlipHorizontal,
  IconLink,
  IconLock,
  IconMagnet,
  IconRotate,
  IconRotate2,
  IconRotateClockwise,
  IconRotateClockwise2,
} from '@tabler/icons-react';
import { hint, perform, picked } from '../../store/acts.ts';
import { type BenchStore, useBench } from '../../store/bench.ts';
import { namesOfChosen } from '../../store/select.ts';
import { aboutPivot, turnBy } from '../tools/subject.ts';
import type { Command } from './command.ts';

export const turn = (degrees: number): void => aboutPivot(turnBy((degrees * Math.PI) / 180));
const scale = (factor: number): void => aboutPivot([factor, 0, 0, factor]);

const placing = (name: string, label: string, icon: Command['icon'], act: () => void): Command => ({
  name,
  label: () => label,
  icon,
  small: true,
  act,
});

export const lock: Command = {
  name: 'lock',
  label: (s) =>
    `${isLocked(s) ? 'Unlock' : 'Lock'}${s.chosen.size > 0 ? ` ${plural(s.chosen.size, 'shell')}` : ''}`,
  help: 'The selected shells are finished: no act moves, cuts or lays them otherwise. Once more, and they are free',
  key: 'o',
  icon: IconLock,
  pressed: isLocked,
  async act() {
    await picked();
    const state = useBench.getState();
    const shells = namesOfChosen();
    if (shells.length === 0) return hint('Pick the shells that are finished first.');
    await perform('lock-shells', { shells, locked: !isLocked(state) });
  },
};

export const together: Command = {
  name: 'together',
  label: (s) => (isTogether(s) ? `Let ${s.chosen.size} apart` : 'Keep together'),
  help: 'The selected shells are packed as one, as they lie to one another: what is stacked stays stacked. Once more, and each goes by itself',
  key: 'u',
  icon: IconLink,
  pressed: isTogether,
  async act() {
    await picked();
    const shells = namesOfChosen();
    if (shells.length === 0) return hint('Pick the shells that belong together first.');
    await perform('group-shells', { shells, together: !isTogether(useBench.getState()) });
  },
};

/** Whether all selected shells are kept together. */
function isTogether({ chosen, shells }: Pick<BenchStore, 'chosen' | 'shells'>): boolean {
  const [first, ...others] = [...chosen].map((s) => shells[s]?.group ?? 0);
  return first > 0 && others.every((group) => group === first);
}

/** Whether all selected shells are locked. */
function isLocked({ chosen, shells }: Pick<BenchStore, 'chosen' | 'shells'>): boolean {
  return chosen.size > 0 && [...chosen].every((s) => shells[s]?.locked);
}

const snap: Command = {
  name: 'snap',
  label: () => 'Snap',
  help: 'Shells and points moved by hand take hold of the padding, of other shells and the grid, turns of every 15°; with Ctrl held they do not',
  key: 'shift+u',
  icon: IconMagnet,
  pressed: (s) => s.snaps,
  act: (s) => useBench.setState({ snaps: !s.snaps }),
};

export const PLACING: readonly Command[] = [
  lock,
  together,
  snap,
  placing('turn-right', 'Turn −90°', IconRotateClockwise2, () => aboutPivot([0, -1, 1, 0])),
  placing('turn-left', 'Turn +90°', IconRotate2, () => aboutPivot([0, 1, -1, 0])),
  placing('turn-right-little', 'Turn −5°', IconRotateClockwise, () => turn(-5)),
  placing('turn-left-little', 'Turn +5°', IconRotate, () => turn(5)),
  placing('larger', 'Larger by a tenth', IconArrowsDiagonal, () => scale(1.1)),
  placing('smaller', 'Smaller by a tenth', IconArrowsDiagonalMinimize2, () => scale(1 / 1.1)),
  placing('mirror', 'Mirror', IconFlipHorizontal, () => aboutPivot([-1, 0, 0, 1])),
];
