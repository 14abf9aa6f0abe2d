import { IconMap, IconRipple } from '@tabler/icons-react';
import { note, perform } from '../../store/acts.ts';
import { namesOfChosen } from '../../store/select.ts';
import { type Command, ofMany } from './command.ts';

/** The selected shells, or all when none is. */
const which = (): 'all' | number[] => {
  const names = namesOfChosen();
  return names.length > 0 ? names : 'all';
};

const ofChosen = (count: number): string => (count === 0 ? 'all' : ofMany(count, 'shell'));

export const unfold: Command = {
  name: 'unfold',
  label: ({ chosen }) => `Unfold ${ofChosen(chosen.size)}`,
  help: 'Unfold the selected shells, or all',
  key: 's',
  icon: IconMap,
  main: true,
  async act() {
    const done = await perform('unfold', { shells: which() });
    if (done && !done.changed && done.notes.length === 0) note('They lie as they would be unfolded already.');
  },
};

export const relax: Command = {
  name: 'relax',
  label: ({ chosen }) => `Relax ${ofChosen(chosen.size)}`,
  help: 'Relax the selected shells, or all',
  key: 'd',
  icon: IconRipple,
  async act() {
    const done = await perform('relax', { shells: which() });
    if (done && !done.changed && done.notes.length === 0) note('There is nothing more to gain by relaxing.');
  },
};
