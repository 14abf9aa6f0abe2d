import { inDigits } from '@blunt-hem/core/plural';
import type { Layout } from '../../worker/protocol.ts';

/** How many pairs of faces overlap, as it is told everywhere: “48”, “≥ 10 000”. */
export const pairsInWords = ({ overlaps, atLeast }: Pick<Layout, 'overlaps' | 'atLeast'>): string => {
  const count = overlaps.length / 2;
  // A pile of stacked shells so large that no others were found before it was given up.
  if (atLeast && count === 0) return 'not known';
  return `${atLeast ? '≥ ' : ''}${inDigits(count)}`;
};
