import { HemError, StoppedError } from '../../errors.ts';
import type { PackOptions, PackShell } from '../../pack/packShell.ts';
import { type Placement, placementsIn } from '../../pack/placement.ts';
import type { Progress, StopSignal } from '../../progress.ts';
import { aspectOf, gapOf, type Tile } from '../../surface/tiles.ts';
import type { OperationContext } from '../operation.ts';
import type { Place } from './homes.ts';

export interface Effort {
  /** Rounds of moves that each chain makes. */
  readonly steps: number;
  /** Seconds after which it is stopped, which a fraction is told of. */
  readonly seconds?: number;
  readonly seed: number;
}

/** Chains of moves that start from one layout and go different ways; the best of them goes on. As many on every machine, so that all come to the same. */
const CHAINS = 2;
/** Rounds until the chains are compared for the first time; then twice as many each time. */
const FIRST_LEG = 25;
/** So many rounds are meant to go on until they are stopped: no fraction is told. */
const ENDLESS = 100_000;
/** Milliseconds between pictures, at least: better layouts come by the dozen at first. */
const BETWEEN = 150;
/** Gaps are kept in a file of six digits, too: both ends are off by as much at most. */
const SIX_DIGITS = 2e-6;

/** What is filled, and how far apart shells are there. */
export const placeOptions = ({ tile, frame }: Place): PackOptions => ({
  frame,
  gap: gapOf(tile) + 2 * SIX_DIGITS,
  texel: 1 / tile.height,
});

/**
 * Lays shells into a tile as large as they go, better the longer it may take; a Stop keeps the best so far.
 *
 * @param shells  those that are packed, at the scales they shall have to one another, and locked ones as they lie
 * @param start  where all of them lie, if they are to be moved no farther than they must be; undefined for a layout anew
 * @param most  scale that is not exceeded
 * @param untilLaid  ends the first layout, before which there is nothing to keep
 * @param show  called with every better layout
 * @returns a placement a shell
 */
export async function layTile(
  shells: readonly PackShell[],
  start: readonly Placement[] | undefined,
  place: Place,
  most: number,
  { steps, seconds, seed }: Effort,
  context: OperationContext,
  untilLaid: StopSignal,
  show: (placements: readonly Placement[]) => void,
): Promise<readonly Placement[]> {
  const { jobs, signal } = context;
  const { tile, frame } = place;
  const options = { ...placeOptions(place), most, stay: start !== undefined };
  const first = { signal: untilLaid, report() {} };
  let best = start
    ? await jobs.run('pack-from', { shells, start, options: { ...options, seed } }, first)
    : await jobs.run('pack-first', { shells, options }, first);
  if (!best) {
    if (shells.some(({ near }) => near !== undefined)) throw new NotNearError();
    throw shells.some(({ locked }) => locked)
      ? new NoRoomError()
      : new TooMuchPaddingError(shells.length, tile);
  }
  show(best);
  const moved = shells.findIndex(({ locked }) => !locked);
  const scaleOf = (placements: readonly Placement[]): number => placements[moved].scale;
  let shown = scaleOf(best);
  let used: number | undefined;
  let since = Date.now();
  let done = 0;
  const begun = Date.now();
  /** Of the tile that is filled. */
  const part = ((frame[2] - frame[0]) * (frame[3] - frame[1])) / aspectOf([tile]);
  const fraction = () => {
    if (seconds !== undefined) return Math.min(1, (Date.now() - begun) / 1000 / seconds);
    return steps < ENDLESS ? done / steps : undefined;
  };
  const report = ({ figure, places }: Progress) => {
    if (!places || signal.aborted) return;
    const placements = placementsIn(places);
    if (scaleOf(placements) <= shown) return;
    shown = scaleOf(placements);
    used = figure && figure * part;
    context.report({ figure: used, fraction: fraction() });
    if (Date.now() - since < BETWEEN) return;
    since = Date.now();
    show(placements);
  };
  for (let leg = 0; done < steps && !signal.aborted; leg++) {
    const rounds = Math.min(steps - done, FIRST_LEG * 2 ** leg);
    const from: readonly Placement[] = best;
    const ends = await Promise.all(
      Array.from({ length: CHAINS }, (_, chain) => {
        const leap = { ...options, rounds, seed: seed + 1000 * leg + chain };
        return jobs
          .run('pack-better', { shells, start: from, options: leap }, { signal, report })
          .catch((error) => {
            // One that was stopped before it began.
            if (error instanceof StoppedError) return { placements: from, isGreatest: false };
            throw error;
          });
      }),
    );
    const end = ends.reduce((a, b) => (scaleOf(b.placements) > scaleOf(a.placements) ? b : a));
    best = end.placements;
    done += rounds;
    if (!signal.aborted) context.report({ figure: used, fraction: fraction(), rounds: done });
    if (end.isGreatest) break;
  }
  return best;
}

/** The gaps alone fill the tile. */
export class TooMuchPaddingError extends HemError {
  constructor(count: number, { width, height, padding }: Tile) {
    super(
      'too-much-padding',
      `${count} shells with ${padding} px between them do not fit a tile of ${width} × ${height} px: lower the padding or raise the texture size.`,
    );
    this.name = 'TooMuchPaddingError';
  }
}

/** What stays fills the tile. */
export class NoRoomError extends HemError {
  constructor() {
    super('no-room', 'What stays leaves no room for the others: unlock or choose more, or add a tile.');
    this.name = 'NoRoomError';
  }
}

/** Not every cluster finds a region that takes it. */
export class NotNearError extends HemError {
  constructor() {
    super(
      'not-near',
      'There is no room for shells of one kind near each other: pack them without that, lower the padding or raise the texture size.',
    );
    this.name = 'NotNearError';
  }
}
