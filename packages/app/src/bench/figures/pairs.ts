import { inDigits } from '@blunt-hem/core/plural';
import type { Layout } from '../../worker/protocol.ts';

/** How many pairs of faces overlap, as it is told everywhere: “48”, “≥ 10 000”. */
export const pairsInWords = ({ lying, atLeast }: Pick<Layout, 'lying' | 'atLeast'>): string =>
  `${atLeast ? '≥ ' : ''}${inDigits(lying.length / 2)}`;
