import type { HemDocument } from '../../document/document.ts';
import {
  about,
  choice,
  flag,
  optional,
  otherwise,
  positive,
  record,
  type Taken,
  tuple,
  whichShells,
  whole,
} from '../../params.ts';
import { SPREADS } from './homes.ts';
import { KINDS } from './kinds.ts';
import type { PackWork } from './packWork.ts';

/** Rounds that take about as long as an artist waits without being asked. */
const STEPS = 24;

export const packParams = record({
  shells: about('which shells are packed; the others stay, and are gone round', whichShells),
  turning: about(
    'how shells may be turned: not at all, by a half, a quarter or an eighth of a turn, freely, or along their grain',
    otherwise(choice('none', 'half', 'quarter', 'eighth', 'free', 'grain'), 'quarter'),
  ),
  equalDensity: about('whether all shells come to one texture scale, in all tiles', otherwise(flag(), true)),
  start: about(
    'whether the layout begins afresh, or here: from where shells lie, not turned and moved no farther than they must be',
    otherwise(choice('afresh', 'here'), 'afresh'),
  ),
  near: about(
    'which shells are laid near each other: those of a part, of a material or of a patch',
    otherwise(choice('none', ...KINDS), 'none'),
  ),
  region: about(
    'what is filled instead of the tiles: left, low, right and high of a box in one of them, in heights of a tile',
    optional(tuple(4)),
  ),
  density: about(
    'texture scale that all come to, in as many tiles as that needs; as large as they go when absent',
    optional(positive()),
    'texels a unit',
  ),
  spread: about(
    'to which tile each shell goes: where it lies, or evenly over all, one by one or by part, material or patch',
    otherwise(choice(...SPREADS), 'stay'),
  ),
  steps: about('rounds in which the layout is made better', otherwise(whole(0, 1_000_000), STEPS)),
  seconds: about('when it stops and keeps the best so far', optional(positive()), 's'),
  seed: about('where the search begins: another number, another layout', otherwise(whole(0, 1_000_000), 1)),
});

/** How a document is packed, and what of it. */
export interface PackSettings extends Taken<typeof packParams> {
  readonly document: HemDocument;
  readonly work: PackWork;
}
