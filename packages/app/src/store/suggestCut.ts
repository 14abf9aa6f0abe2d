import { fail, note } from './acts.ts';
import { useBench } from './bench.ts';
import { proposal } from './propose.ts';
import { select } from './select.ts';
import { ask } from './worker.ts';

/** Looks for the cut that helps a shell most and selects its edges, so that cutting is one key away. */
export async function suggestCut(shell: number): Promise<void> {
  const { flat } = useBench.getState();
  note('Cuts are tried, each by laying the shell flat along it …');
  try {
    const found = await ask('best-cut', { face: shell });
    if (useBench.getState().flat !== flat) return;
    if (found?.l2 === undefined) {
      note('None of the cuts tried helps: it may want several, or a dart (E) at the worst place.');
      return;
    }
    const { edges, l2, angleMean, isRough } = found;
    selectCut(edges);
    const figures = `L2 ${isRough ? 'about ' : ''}${l2.toFixed(2)}, angle ${angleMean?.toFixed(1)}°`;
    note(`With these ${edges.length} edges cut it comes to ${figures}: A cuts them.`);
  } catch (error) {
    fail(error);
  }
}

export function selectCut(edges: readonly number[]): void {
  useBench.setState({ target: 'edges' });
  select('edges', edges, 'only');
}

/** Looks for seams that open closed pieces, and selects them, so that cutting is one key away. */
export async function showOpening(): Promise<void> {
  const { shells, chosen, flat } = useBench.getState();
  const closed = shells.filter(
    ({ topology, locked }, s) =>
      topology && !topology.canUnfold && !locked && (chosen.size === 0 || chosen.has(s)),
  );
  if (closed.length === 0) return note('Every piece has a border to open from already.');
  note('Seams are looked for that open it and hide …');
  const found = await proposal({ preset: 'rough', faces: closed.map(({ name }) => name) });
  if (!found || useBench.getState().flat !== flat) return;
  if (found.edges.length === 0) return note('No seams were found that would open it.');
  selectCut(found.edges);
  note(
    `These ${found.edges.length} edges open ${closed.length === 1 ? 'it' : `${closed.length} pieces`}: A cuts them, Escape lets go of them.`,
  );
}
