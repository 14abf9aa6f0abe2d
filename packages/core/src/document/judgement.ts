import type { ShellStretch } from '../measure/stretch.ts';
import { isOutside, type UvBox } from '../surface/uvBox.ts';
import type { Verdict } from '../surface/verdict.ts';

/** Limits beyond which a relaxed shell wants another cut: what hardly anybody would paint on. A judgement of ours; see docs/measures.md. */
export const MOST_L2 = 1.25;
/** Mean angular deformation, degrees. */
export const MOST_ANGLE = 20;

/** Shells nearer to one another than so many texels of a texture of this side bleed into one another. Common practice. */
export const [TEXTURE, PADDING] = [2048, 4];
/** The same in tile widths. */
export const TOO_NEAR = PADDING / TEXTURE;

export interface ShellFacts {
  /** Undefined while it is being measured. */
  readonly verdict?: Verdict;
  readonly stretch?: Pick<ShellStretch, 'l2' | 'angleMean' | 'flipped' | 'collapsed'>;
  readonly unfolded: boolean;
  readonly folded?: number;
  readonly stale: boolean;
  readonly relaxed: boolean;
  readonly box: UvBox | undefined;
  /** Whether it lies on itself, or on another. */
  readonly overlap?: 'itself' | 'another';
}

/** Whether a shell is stretched beyond what is good to paint on. */
export const isTooStretched = ({ l2, angleMean }: Pick<ShellStretch, 'l2' | 'angleMean'>): boolean =>
  l2 > MOST_L2 || angleMean > MOST_ANGLE;

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
export function judge({ verdict, stretch, folded = 0, box, overlap, ...facts }: ShellFacts): Judgement {
  if (!verdict) return said('none', '…', 'Being measured.');
  if (!verdict.canUnfold) return said('bad', 'Cannot lie flat', verdict.sentence);
  if (!facts.unfolded) return said('none', 'Not yet', 'It has no UVs yet: unfold it.');
  if (!stretch) return said('none', '…', 'Being measured.');
  const { flipped, collapsed, l2, angleMean } = stretch;
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
  if (box && isOutside(box)) return said('bad', 'Outside', 'It lies outside the tile: move or pack it.');
  if (isTooStretched(stretch)) {
    const how = `Stretch L2 ${l2.toFixed(2)}, angle ${angleMean.toFixed(0)}° on average`;
    return facts.relaxed
      ? said('bad', 'Needs a cut', `${how}, although it was relaxed: cut it once more.`)
      : said('changed', 'Stretched', `${how}: relax it, and if that does not do, cut it.`);
  }
  return said('good', 'Ready', 'Flat, in the tile, clear of others, and little stretched.');
}
