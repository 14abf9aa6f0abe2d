import { IconArrowsSplit2, IconBookmark, IconColumns2 } from '@tabler/icons-react';
import { compareTrials, keepTrial, tryMethods } from '../../store/trials.ts';
import type { Command } from './command.ts';

export const keep: Command = {
  name: 'keep-trial',
  label: () => 'Keep as trial',
  help: 'Keep the selected shells, or all, as they lie now',
  key: 'c',
  icon: IconBookmark,
  act: () => void keepTrial(),
};

export const tryBoth: Command = {
  name: 'try-both',
  label: () => 'Try both methods',
  help: 'Unfold by both methods beside each other; the Board stays as it is',
  key: 'shift+s',
  icon: IconArrowsSplit2,
  act: () => void tryMethods(),
};

export const compare: Command = {
  name: 'compare-trials',
  label: () => 'Compare two',
  help: 'Put two trials beside each other',
  key: 'shift+c',
  icon: IconColumns2,
  act: () => compareTrials(),
};
