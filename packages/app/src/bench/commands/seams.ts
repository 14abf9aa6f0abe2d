import { IconCut, IconNeedleThread, IconScissors } from '@tabler/icons-react';
import { hint, note, perform, picked } from '../../store/acts.ts';
import { useBench } from '../../store/bench.ts';
import { chosenOrAll } from '../../store/select.ts';
import { type Command, ofMany } from './command.ts';

async function seamAct(operation: 'cut' | 'sew', nothing: string): Promise<void> {
  await picked();
  const edges = [...useBench.getState().edges];
  if (edges.length === 0) return hint(nothing);
  useBench.setState({ edges: new Set() });
  const done = await perform(operation, { edges });
  if (done && !done.changed && done.notes.length === 0)
    note(
      operation === 'cut'
        ? 'These edges are seams already, or the mesh ends there.'
        : 'None of these edges is a seam.',
    );
}

export const cut: Command = {
  name: 'cut',
  label: ({ edges }) => `Cut ${ofMany(edges.size, 'edge')}`,
  help: 'Cut the selected edges',
  key: 'a',
  icon: IconScissors,
  main: true,
  act: () => void seamAct('cut', 'Pick edges first: click one, or double-click for its whole loop.'),
};

export const sew: Command = {
  name: 'sew',
  label: ({ edges }) => `Sew ${ofMany(edges.size, 'edge')}`,
  help: 'Sew the selected seams',
  key: 'shift+a',
  icon: IconNeedleThread,
  act: () => void seamAct('sew', 'Pick seams first, then sew them.'),
};

export const openPieces: Command = {
  name: 'open-pieces',
  label: () => 'Open closed pieces',
  icon: IconCut,
  async act() {
    const done = await perform('open-pieces', { shells: chosenOrAll() });
    if (done && !done.changed && done.notes.length === 0)
      note('Every piece has a border to open from already.');
  },
};
