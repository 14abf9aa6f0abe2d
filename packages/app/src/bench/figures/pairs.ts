import type { Layout } from '../../worker/protocol.ts';

/** How many pairs of faces overlap, as it is told everywhere: “48”, “≥ 10 000”. */
export const pairsInWords = ({ overlaps, atLeast }: Pick<Layout, 'overlaps' | 'atLeast'>): string =>
  `${atLeast ? '≥ ' : ''}${(overlaps.length / 2).toLocaleString('en-GB')}`;
