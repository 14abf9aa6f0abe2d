import { fail, note } from './acts.ts';
import { useBench } from './bench.ts';
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
