import type { LayoutFinding } from '@blunt-hem/core/inspect/inspection';
import type { BenchStore } from '../store/bench.ts';

/**
 * Everything that speaks against handing the model over: what was found in the flat, and where seams show if that was looked at. None when
 * all is right.
 *
 * @returns undefined while something is still being measured
 */
export function deliverFindings({
  layout,
  measured,
  seamsShown,
}: Pick<BenchStore, 'layout' | 'measured' | 'seamsShown'>): readonly LayoutFinding[] | undefined {
  if (!measured || !layout) return undefined;
  return [...layout.findings, ...(seamsShown ? [seamsShown] : [])];
}
