import type { SelectorsOf } from '@blunt-hem/core/selectors/index';
import type { BenchStore } from '../../store/bench.ts';
import { useBench } from '../../store/bench.ts';
import { select } from '../../store/select.ts';
import type { ShellRow } from '../../worker/protocol.ts';
import type { Overlay } from '../overlays/overlay.ts';

/**
 * Selects the shells for which something holds.
 *
 * @param by  the same, as a request is told
 */
export function showWhere(
  { shells }: BenchStore,
  test: (row: ShellRow, shell: number) => boolean,
  by?: SelectorsOf['shells'],
): void {
  useBench.setState({ target: 'shells' });
  select(
    'shells',
    [...shells.keys()].filter((s) => test(shells[s], s)),
    'only',
    by,
  );
}

/** Selects the shell where a figure is greatest, under the overlay that shows it. */
export function showWorst(state: BenchStore, field: 'linf' | 'l2' | 'angleMean', overlay: Overlay): void {
  const value = (s: number) => state.shells[s].stretch?.[field] ?? -1;
  const worst = [...state.shells.keys()].reduce((a, b) => (value(b) > value(a) ? b : a), 0);
  if (state.shells.length === 0 || value(worst) < 0) return;
  useBench.setState({ overlay: overlay.name });
  showWhere(state, (_, s) => s === worst, { worst: field });
}
