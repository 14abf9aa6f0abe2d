import { IconCut, IconNeedleThread, IconScissors } from '@tabler/icons-react';
import { hint, note, perform, picked } from '../../store/acts.ts';
import { type BenchStore, useBench } from '../../store/bench.ts';
import { showOpening } from '../../store/suggestCut.ts';
import type { FlatBuffers } from '../../worker/protocol.ts';
import { type Command, ofMany } from './command.ts';

async function seamAct(operation: 'cut' | 'sew', nothing: string, none: string): Promise<void> {
  await picked();
  const state = useBench.getState();
  if (state.edges.size === 0) return hint(nothing);
  // What is told on the button is what is done.
  const edges = [...state.edges].filter(operation === 'cut' ? isUncut(state) : isSeam(state));
  if (edges.length === 0) return note(none);
  // Begun first: it takes over what is being worked out for the ghost, which goes with the selection.
  const done = perform(operation, { edges });
  useBench.setState({ edges: new Set() });
  await done;
}

/** Seams, and edges where the mesh ends, of what lies flat now. */
const marked = new WeakMap<FlatBuffers, { readonly seams: Set<number>; readonly borders: Set<number> }>();

function marksOf(flat: FlatBuffers) {
  let marks = marked.get(flat);
  if (!marks) {
    marks = { seams: new Set(flat.seams), borders: new Set(flat.borders) };
    marked.set(flat, marks);
  }
  return marks;
}

export const isSeam =
  ({ flat }: Pick<BenchStore, 'flat'>) =>
  (edge: number): boolean =>
    flat !== undefined && marksOf(flat).seams.has(edge);

export const isUncut =
  ({ flat }: Pick<BenchStore, 'flat'>) =>
  (edge: number): boolean => {
    const marks = flat && marksOf(flat);
    return !marks || !(marks.seams.has(edge) || marks.borders.has(edge));
  };

type Counted = Pick<BenchStore, 'edges' | 'flat'>;

/** How many of the selected edges something holds for; counted anew when either is another. */
function counter(holds: (state: Counted) => (edge: number) => boolean): (state: Counted) => number {
  let last: (Counted & { readonly count: number }) | undefined;
  return ({ edges, flat }) => {
    if (last?.edges !== edges || last.flat !== flat) {
      let count = 0;
      const test = holds({ edges, flat });
      for (const edge of edges) if (test(edge)) count++;
      last = { edges, flat, count };
    }
    return last.count;
  };
}

const seamsSelected = counter(isSeam);
const uncutSelected = counter(isUncut);

export const cut: Command = {
  name: 'cut',
  label: (s) => `Cut ${ofMany(uncutSelected(s), 'edge')}`,
  help: 'Cut the selected edges',
  key: 'a',
  icon: IconScissors,
  main: true,
  act: () =>
    void seamAct(
      'cut',
      'Pick edges first: click one, or double-click for its whole loop.',
      'These edges are seams already, or the mesh ends there.',
    ),
};

export const sew: Command = {
  name: 'sew',
  label: (s) => `Sew ${ofMany(seamsSelected(s), 'edge')}`,
  help: 'Sew the selected seams',
  key: 'shift+a',
  icon: IconNeedleThread,
  act: () => void seamAct('sew', 'Pick seams first, then sew them.', 'None of these edges is a seam.'),
};

export const openPieces: Command = {
  name: 'open-pieces',
  label: () => 'Open closed pieces',
  help: 'Show seams that open the closed pieces where they hide, to be cut',
  icon: IconCut,
  act: () => void showOpening(),
};
