import { plural } from '@blunt-hem/core/plural';
import { IconCut, IconNeedleThread, IconScissors } from '@tabler/icons-react';
import { hint, note, perform, picked } from '../../store/acts.ts';
import { type BenchStore, useBench } from '../../store/bench.ts';
import { asRequested } from '../../store/select.ts';
import { showOpening } from '../../store/suggestCut.ts';
import type { Command } from './command.ts';

async function seamAct(operation: 'cut' | 'sew', nothing: string, none: string): Promise<void> {
  await picked();
  const state = useBench.getState();
  if (state.edges.size === 0) return hint(nothing);
  // What is told on the button is what is done.
  const edges = [...state.edges].filter(operation === 'cut' ? isUncut(state) : isSeam(state));
  if (edges.length === 0) return note(none);
  // Begun first: it takes over what is being worked out for the ghost, which goes with the selection.
  const done = perform(operation, { edges: asRequested('edges', edges) });
  useBench.setState({ edges: new Set() });
  await done;
}

/** Lists of edges as sets, each made once. */
const sets = new WeakMap<Uint32Array, ReadonlySet<number>>();

function setOf(edges: Uint32Array): ReadonlySet<number> {
  let set = sets.get(edges);
  if (!set) {
    set = new Set(edges);
    sets.set(edges, set);
  }
  return set;
}

export const isSeam =
  ({ flat }: Pick<BenchStore, 'flat'>) =>
  (edge: number): boolean =>
    flat !== undefined && setOf(flat.seams).has(edge);

export const isUncut =
  ({ flat, model }: Pick<BenchStore, 'flat' | 'model'>) =>
  (edge: number): boolean =>
    !(flat && setOf(flat.seams).has(edge)) && !(model && setOf(model.borders).has(edge));

type Counted = Pick<BenchStore, 'edges' | 'flat' | 'model'>;

/** How many of the selected edges something holds for; counted anew when either is another. */
function counter(holds: (state: Counted) => (edge: number) => boolean): (state: Counted) => number {
  let last: (Counted & { readonly count: number }) | undefined;
  return ({ edges, flat, model }) => {
    if (last?.edges !== edges || last.flat !== flat || last.model !== model) {
      let count = 0;
      const test = holds({ edges, flat, model });
      for (const edge of edges) if (test(edge)) count++;
      last = { edges, flat, model, count };
    }
    return last.count;
  };
}

const seamsSelected = counter(isSeam);
const uncutSelected = counter(isUncut);

const edgesOrHowMany = (count: number): string => (count === 0 ? 'edges' : plural(count, 'edge'));

export const cut: Command = {
  name: 'cut',
  label: (s) => `Cut ${edgesOrHowMany(uncutSelected(s))}`,
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
  label: (s) => `Sew ${edgesOrHowMany(seamsSelected(s))}`,
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
