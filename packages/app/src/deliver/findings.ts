import { isTooStretched } from '@blunt-hem/core/document/judgement';
import { isOutside } from '@blunt-hem/core/surface/uvBox';
import { pairsInWords } from '../bench/figures/pairs.ts';
import type { BenchStore } from '../store/bench.ts';
import type { Layout } from '../worker/protocol.ts';

const told = (count: number, one: string, many: string): string[] =>
  count === 0 ? [] : [`${count.toLocaleString('en-GB')} ${count === 1 ? one : many}.`];

/** Pairs of shells that are too near and do not overlap, which is worse and told by itself. */
const tooNear = (layout: Pick<Layout, 'near' | 'lying'> | undefined): number =>
  layout && layout.lying.length === 0 ? layout.near.length / 2 : 0;

/**
 * Everything that speaks against handing the model over, a line each; none when all was looked at and is right.
 *
 * @returns undefined while something is still being measured
 */
export function deliverFindings({
  shells,
  layout,
  measured,
  limits,
}: Pick<BenchStore, 'shells' | 'layout' | 'measured' | 'limits'>): string | undefined {
  const unjudged = shells.filter(({ verdict, unfolded, stretch }) => !verdict || (unfolded && !stretch));
  if (!measured || unjudged.length > 0) return undefined;
  const unfolded = shells.filter((row) => row.unfolded);
  const sum = (of: (row: (typeof shells)[number]) => number | undefined) =>
    unfolded.reduce((total, row) => total + (of(row) ?? 0), 0);
  const outside = unfolded.filter(({ box }) => box && isOutside(box)).length;
  return [
    ...told(shells.length - unfolded.length, 'shell has no UVs yet', 'shells have no UVs yet'),
    ...told(
      sum(({ stretch }) => stretch?.flipped),
      'face is flipped',
      'faces are flipped',
    ),
    ...told(
      sum(({ stretch }) => stretch?.collapsed),
      'face is collapsed',
      'faces are collapsed',
    ),
    ...told(
      sum(({ folded }) => folded),
      'face is folded: flipped where a program splits it by the other diagonal',
      'faces are folded: flipped where a program splits them by the other diagonal',
    ),
    ...told(outside, 'shell lies outside the tile', 'shells lie outside the tile'),
    ...(layout && layout.lying.length > 0
      ? [
          `${pairsInWords(layout)} ${layout.lying.length === 2 ? 'pair of faces overlaps' : 'pairs of faces overlap'}.`,
        ]
      : []),
    ...told(
      unfolded.filter(({ stretch }) => stretch && isTooStretched(stretch, limits)).length,
      'shell is stretched more than is good to paint on',
      'shells are stretched more than is good to paint on',
    ),
    ...told(
      tooNear(layout),
      `pair of shells is nearer than ${limits.padding} px of a ${limits.texture} texture`,
      `pairs of shells are nearer than ${limits.padding} px of a ${limits.texture} texture`,
    ),
    ...told(
      unfolded.filter(({ stale }) => stale).length,
      'shell was cut or sewn since it was unfolded',
      'shells were cut or sewn since they were unfolded',
    ),
  ].join('\n');
}
