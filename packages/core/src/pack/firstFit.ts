import type { StopSignal } from '../progress.ts';
import type { Frame } from './frame.ts';
import type { FieldShape } from './pieces.ts';
import { copyPlaces, type Places, placesFor } from './places.ts';
import { emptyRaster, type Mask, maskOf } from './raster.ts';

export interface FitOptions {
  readonly frame: Frame;
  readonly gap: number;
  /** Angles that are tried for each piece. */
  readonly angles: readonly (readonly number[])[];
  /** Pieces that lie where they are, as they are. */
  readonly locked: readonly boolean[];
  /** Side of a cell of the raster. */
  readonly cell: number;
}

export interface FirstFitOptions extends FitOptions {
  /** Scale that is not exceeded, and one that is not gone below: fields do not reach the gaps of smaller ones. */
  readonly most: number;
  readonly least: number;
}

/** So many passes are made, or fewer where one fills the frame but for a part of its height; more only until one fits. */
const [PASSES, FULL] = [4, 0.985];
/** Part of a frame that a pass usually fills with pieces grown by half the gap. */
const USUAL = 0.62;

/**
 * A first layout: the largest piece first, each at the lowest and then leftmost place that is free in a raster, with its holes and bays (bottom-left fill: Burke, Hellier,
 * Kendall and Whitwell 2006). How high a pass fills the frame tells the scale of the next.
 *
 * @param places  where locked ones lie; takes the layout
 * @returns the scale of those that are not locked; undefined where none was found down to the least
 */
export function firstFit(
  pieces: readonly FieldShape[],
  places: Places,
  options: FirstFitOptions,
  signal: StopSignal,
): number | undefined {
  const { frame, gap, locked, most, least } = options;
  const order = largestFirst(pieces, locked);
  const room = (frame[2] - frame[0]) * (frame[3] - frame[1]);
  // Area of all grown by half the gap, a s² + b s + c by the scale s.
  const a = order.reduce((sum, i) => sum + pieces[i].area, 0);
  const b = (order.reduce((sum, i) => sum + pieces[i].border, 0) * gap) / 2;
  const c = (order.length * Math.PI * gap * gap) / 4;
  const grown = (scale: number) => (a * scale + b) * scale + c;
  const scaleFor = (wanted: number) =>
    a > 0 ? (Math.sqrt(b * b + 4 * a * Math.max(0, wanted - c)) - b) / (2 * a) : 1;
  let scale = Math.min(most, Math.max(least, scaleFor(USUAL * room)));
  let [best, tooLarge] = [0, Infinity];
  const trial = placesFor(pieces.length);
  for (let pass = 0; !(best > 0 && pass >= PASSES) && !signal.aborted; pass++) {
    copyPlaces(places, trial);
    for (const i of order) trial.scale[i] = scale;
    const height = fill(pieces, trial, order, options, signal);
    if (height <= 1) {
      best = scale;
      copyPlaces(trial, places);
      if (scale >= most || height > FULL || tooLarge / best < 2 - FULL) break;
    } else tooLarge = Math.min(tooLarge, scale);
    // What would fill the frame if it were filled as well as now.
    const next = Number.isFinite(height) ? scaleFor((grown(scale) / height) * 0.995) : 0.8 * scale;
    scale = Math.min(most, next);
    if (scale >= tooLarge) scale = best > 0 ? (best + tooLarge) / 2 : 0.93 * tooLarge;
    if (scale < least) return best > 0 ? best : undefined;
  }
  return best > 0 ? best : undefined;
}

/**
 * Lays as many pieces as fit at a scale, in the way of `firstFit`.
 *
 * @param places  where locked ones lie; takes the layout
 * @returns those that do not fit
 */
export function fitSome(
  pieces: readonly FieldShape[],
  places: Places,
  scale: number,
  options: FitOptions,
  signal: StopSignal,
): Set<number> {
  const order = largestFirst(pieces, options.locked);
  for (const i of order) places.scale[i] = scale;
  const left = new Set<number>();
  fill(pieces, places, order, options, signal, left);
  return left;
}

function largestFirst(pieces: readonly FieldShape[], locked: readonly boolean[]): number[] {
  const free = pieces.flatMap((_, i) => (locked[i] ? [] : [i]));
  return free.sort((a, b) => longest(pieces[b]) - longest(pieces[a]) || a - b);
}

const longest = ({ halfWidth, halfHeight }: FieldShape): number => Math.max(halfWidth, halfHeight);

/**
 * Lays pieces one after the other.
 *
 * @param left  takes those that do not fit below the top of the frame, if they may be left out
 * @returns the height of what they take in heights of the frame, Infinity where one is wider than the frame
 */
function fill(
  pieces: readonly FieldShape[],
  places: Places,
  order: readonly number[],
  { frame, gap, angles, locked, cell }: FitOptions,
  signal: StopSignal,
  left?: Set<number>,
): number {
  const tall = frame[3] - frame[1];
  const rows = tall / cell;
  const columns = Math.floor((frame[2] - frame[0]) / cell + 1e-6);
  const widest = order.reduce((most, i) => Math.max(most, longest(pieces[i]) * places.scale[i]), 0);
  const raster = emptyRaster(columns, 2 * Math.ceil(rows), (3 * widest + 2 * gap) / cell + 4);
  pieces.forEach((piece, i) => {
    if (!locked[i]) return;
    const mask = maskOf(piece, places.angle[i], places.scale[i], gap, cell);
    // Where it lies off the raster by part of a cell, the cells beside are taken too.
    const [c, r] = [(places.u[i] - frame[0]) / cell - 0.5, (places.v[i] - frame[1]) / cell - 0.5];
    for (const column of new Set([Math.floor(c), Math.ceil(c)]))
      for (const row of new Set([Math.floor(r), Math.ceil(r)])) raster.take(mask, column, row);
  });
  let height = 0;
  /** The row at which the last of about this size was laid: those below are mostly full. */
  const rowFor = new Map<number, number>();
  for (const i of order) {
    if (signal.aborted) return Infinity;
    let best: { mask: Mask; angle: number; column: number; row: number } | undefined;
    const size = Math.round(2 * Math.log2(longest(pieces[i]) * places.scale[i]));
    const from = order.length > MANY ? (rowFor.get(size) ?? 0) : 0;
    for (const angle of angles[i]) {
      const mask = maskOf(pieces[i], angle, places.scale[i], gap, cell);
      const top = left ? Math.floor(rows - gap / cell - mask.high - 0.5) + 1 : 2 * Math.ceil(rows);
      const found = raster.lowest(
        mask,
        from,
        best ? Math.min(top, best.row + best.mask.high - mask.high) : top,
      );
      if (!found) continue;
      const [column, row] = found;
      if (!best || row + mask.high < best.row + best.mask.high) best = { mask, angle, column, row };
    }
    if (!best && left) {
      left.add(i);
      continue;
    }
    if (!best) return Infinity;
    const { mask, angle, column, row } = best;
    raster.take(mask, column, row);
    rowFor.set(size, Math.max(0, row - mask.tall));
    places.u[i] = frame[0] + (column + 0.5) * cell;
    places.v[i] = frame[1] + (row + 0.5) * cell;
    places.angle[i] = angle;
    height = Math.max(height, ((row + 0.5) * cell + mask.high * cell + gap) / tall);
  }
  return height;
}

/** From so many pieces on, the search for a place begins where the last one of its size was found. */
const MANY = 150;
