import type { ShellStretch } from '../measure/stretch.ts';
import type { ShellTopology } from '../surface/shellTopology.ts';
import type { Limits } from './limits.ts';

export interface ShellFacts {
  /** Undefined while it is being measured. */
  readonly topology?: ShellTopology;
  readonly stretch?: Judged & Pick<ShellStretch, 'flipped' | 'collapsed'>;
  readonly unfolded: boolean;
  readonly folded?: number;
  readonly stale: boolean;
  readonly relaxed: boolean;
  /** Whether it leaves the tiles. */
  readonly outside: boolean;
  /** Whether it lies on itself, or on another. */
  readonly overlap?: 'itself' | 'another';
}

type Judged = Pick<ShellStretch, 'l2' | 'linf' | 'angleMean' | 'areaMean'>;

/** Whether a shell is stretched beyond what is put up with. */
export const isTooStretched = (stretch: Judged, limits: Limits): boolean =>
  excessOf(stretch, limits) !== undefined;

/** The first limit that a shell exceeds, in words. */
export function excessOf(
  { l2, linf, angleMean, areaMean }: Judged,
  { stretch, worst, angle, area }: Limits,
): string | undefined {
  if (l2 > stretch) return `Stretch L2 ${l2.toFixed(2)}, where ${stretch} is put up with`;
  if (angleMean > angle)
    return `Angles ${angleMean.toFixed(0)}° off on average, where ${angle}° are put up with`;
  if (areaMean > area) return `Area × ${areaMean.toFixed(2)} off on average, where × ${area} is put up with`;
  if (linf > worst) return `Stretched × ${linf.toFixed(1)} in one place, where × ${worst} is put up with`;
  return undefined;
}

/** What a shell is worth, in a word: its first fault, or that it has none. */
export interface Judgement {
  readonly tone: 'good' | 'none' | 'changed' | 'bad';
  readonly word: string;
  /** The same at length. */
  readonly sentence: string;
}

const said = (tone: Judgement['tone'], word: string, sentence: string): Judgement => ({
  tone,
  word,
  sentence,
});
const faces = (count: number): string => (count === 1 ? 'One face' : `${count} faces`);

/** Judges a shell by its figures; the gravest fault is told. */
export function judge(
  { topology, stretch, folded = 0, outside, overlap, ...facts }: ShellFacts,
  limits: Limits,
): Judgement {
  if (!topology) return said('none', '…', 'Being measured.');
  if (!topology.canUnfold) return said('bad', 'Cannot lie flat', topology.sentence);
  if (!facts.unfolded) return said('none', 'Not yet', 'It has no UVs yet: unfold it.');
  if (!stretch) return said('none', '…', 'Being measured.');
  const { flipped, collapsed } = stretch;
  if (flipped > 0) return said('bad', 'Flipped', `${faces(flipped)} upside down: unfold it anew.`);
  if (collapsed > 0)
    return said(
      'bad',
      'Collapsed',
      `${faces(collapsed)} without any area in the flat: unfold it anew, or cut it.`,
    );
  if (folded > 0)
    return said(
      'bad',
      'Folded',
      `${faces(folded)} flipped for programs that split polygons by the other diagonal: ${facts.relaxed ? 'cut it where it is squeezed' : 'relax it'}.`,
    );
  if (overlap === 'itself')
    return said(
      'bad',
      'On itself',
      `It lies on itself: ${facts.relaxed ? 'cut it where it does' : 'relax it'}.`,
    );
  if (facts.stale) return said('changed', 'Changed', 'It was cut or sewn since it was unfolded.');
  if (overlap === 'another') return said('bad', 'On another', 'It lies on another shell: move or pack them.');
  if (outside) return said('bad', 'Outside', 'It lies outside the tile: move or pack it.');
  const excess = excessOf(stretch, limits);
  if (excess !== undefined)
    return facts.relaxed
      ? said(
          'bad',
          'Needs a cut',
          `${excess}, although it was relaxed: cut it once more, or put up with more.`,
        )
      : said('changed', 'Stretched', `${excess}: relax it, and if that does not do, cut it.`);
  return said('good', 'Ready', 'Flat, in the tile, clear of others, and little stretched.');
}
