import { type Context, heedStop, type StopSignal } from '../progress.ts';
import { boxAngles } from './boxAngles.ts';
import { type Places, placesFor } from './collider.ts';
import { type FitOptions, firstFit, fitSome } from './firstFit.ts';
import { type Frame, largestIn, turnedBox } from './frame.ts';
import { growTogether } from './growTogether.ts';
import type { FlatMesh } from './outline.ts';
import { type FieldShape, type Fineness, pieceOf, withField } from './pieces.ts';
import type { Placement } from './placement.ts';
import { type Shape, shapeOf } from './shape.ts';
import type { Turning } from './turning.ts';

/** One flat shell that is to be packed. */
export interface PackShell extends FlatMesh {
  /** How it may be turned: any way, by one of some angles (radians), or not at all where that is 0 alone. */
  readonly turning: 'free' | readonly number[];
  /** Whether it lies where it shall, at its scale: others go round it. */
  readonly locked?: boolean;
}

export interface PackOptions {
  readonly frame: Frame;
  /** Least distance between borders, and to the sides of the frame. */
  readonly gap: number;
  /** Height of a texel. */
  readonly texel: number;
  /** Scale that is not exceeded. */
  readonly most?: number;
}

export interface BetterOptions extends PackOptions {
  readonly seed: number;
  /** Rounds of moves; see `separate`. */
  readonly rounds: number;
}

export interface Better {
  readonly placements: readonly Placement[];
  /** Whether no layout whatever lets them be larger. */
  readonly isGreatest: boolean;
}

/** From so many shells on there are many, and up to so many there are few. */
const [FEW, MANY] = [100, 1000];
/** Cells in the height of the frame. */
const [COARSE, FINE, FINEST] = [256, 512, 1024];
/** Fields reach gaps of scales down to this part of the one that they are made for. */
const LEAST = 0.7;
/** Samples lie no farther apart than so many cells. */
const CELLS_BETWEEN = 12;
/** Part of a texel by which the search lets pieces come too near, before exact distances are seen to. */
const SLACK = 0.1;

/**
 * A first layout, made at once; see `firstFit`.
 *
 * @returns undefined where the shells fit at no scale that is of use
 * @throws StoppedError
 */
export function packFirst(
  shells: readonly PackShell[],
  options: PackOptions,
  { signal }: Context,
): Placement[] | undefined {
  const { frame, gap, most = Infinity } = options;
  // Grown by half the gap, each covers no less than a circle of that radius.
  const free = shells.filter(({ locked }) => !locked).length;
  if ((free * Math.PI * gap * gap) / 4 > (frame[2] - frame[0]) * (frame[3] - frame[1])) return undefined;
  const shapes = shells.map(shapeOf);
  if (shells.length === 1) return alone(shapes[0], turningOf(shells[0], shapes[0]), options);
  let reference = Math.min(most, referenceScale(shapes, shells, options));
  for (let tries = 0; tries < TRIES; tries++) {
    const pieces = withFields(shapes, shells, options, reference, signal);
    const places = lockedPlaces(pieces, shells);
    const fit = { ...fitOptions(shapes, shells, options), most, least: LEAST * reference };
    const scale = firstFit(pieces, places, fit, signal);
    if (scale !== undefined) return placements(places);
    heedStop(signal);
    reference *= LEAST;
  }
  return undefined;
}

/** One shell as large as it goes, in the lower left corner. */
function alone(
  shape: Shape,
  turning: Turning,
  { frame, gap, most = Infinity }: PackOptions,
): Placement[] | undefined {
  const { scale: fits, angle } = largestIn(shape, turning, frame, gap);
  if (!(fits > 0)) return undefined;
  const scale = Math.min(fits, most);
  const [left, low] = turnedBox(shape, angle);
  return [{ u: frame[0] + gap - scale * left, v: frame[1] + gap - scale * low, angle, scale }];
}

/** How often a smaller scale is tried where shells do not fit: down to a seventieth. */
const TRIES = 12;

/**
 * As many shells as go into a frame at the scale `most`, the largest first.
 *
 * @returns undefined for each shell that does not fit
 * @throws StoppedError
 */
export function packSome(
  shells: readonly PackShell[],
  options: PackOptions & { readonly most: number },
  { signal }: Context,
): (Placement | undefined)[] {
  const shapes = shells.map(shapeOf);
  const pieces = withFields(shapes, shells, options, options.most, signal);
  const places = lockedPlaces(pieces, shells);
  const left = fitSome(pieces, places, options.most, fitOptions(shapes, shells, options), signal);
  heedStop(signal);
  return placements(places).map((place, i) => (left.has(i) ? undefined : place));
}

/**
 * A layout made better for some rounds; see `growTogether`.
 *
 * @param start  clear of one another
 */
export function packBetter(
  shells: readonly PackShell[],
  start: readonly Placement[],
  options: BetterOptions,
  context: Context,
): Better {
  const { frame, gap, texel, most = Infinity, seed, rounds } = options;
  const first = shells.findIndex(({ locked }) => !locked);
  if (first < 0) return { placements: start, isGreatest: true };
  const shapes = shells.map(shapeOf);
  const fineness = finenessOf(
    shapes,
    shells,
    options,
    start[first].scale,
    shells.length > MANY ? FINEST : FINE,
  );
  const pieces = shapes.map((shape, i) => pieceOf(shape, fineness[i]));
  const places = placesFor(shells.length);
  start.forEach((each, i) => {
    places.u[i] = each.u;
    places.v[i] = each.v;
    places.angle[i] = each.angle;
    places.scale[i] = each.scale;
  });
  const area = shapes.reduce((sum, shape, i) => sum + (shells[i].locked ? 0 : shape.area), 0);
  const room = (frame[2] - frame[0]) * (frame[3] - frame[1]);
  const isGreatest = growTogether(
    pieces,
    places,
    {
      frame,
      gap,
      turning: shells.map((shell, i) => turningOf(shell, shapes[i])),
      locked: shells.map(({ locked }) => locked === true),
      most,
      seed,
      rounds,
      slack: SLACK * texel,
    },
    {
      signal: context.signal,
      report: ({ figure: scale = 0 }) =>
        context.report({ figure: (area * scale * scale) / room, places: flatPlaces(places) }),
    },
  );
  return { placements: placements(places), isGreatest };
}

/** Cells in the height of a frame for a first layout. */
const cellsFor = ({ length }: readonly PackShell[]): number =>
  length > MANY ? FINEST : length > FEW ? FINE : COARSE;

function withFields(
  shapes: readonly Shape[],
  shells: readonly PackShell[],
  options: PackOptions,
  reference: number,
  signal: StopSignal,
): FieldShape[] {
  const fineness = finenessOf(shapes, shells, options, reference, cellsFor(shells));
  return shapes.map((shape, i) => {
    heedStop(signal);
    return withField(shape, fineness[i]);
  });
}

const fitOptions = (
  shapes: readonly Shape[],
  shells: readonly PackShell[],
  { frame, gap }: PackOptions,
): FitOptions => ({
  frame,
  gap,
  angles: shells.map((shell, i) =>
    turningOf(shell, shapes[i]).angles.slice(0, shells.length > MANY ? FEW_ANGLES : undefined),
  ),
  locked: shells.map(({ locked }) => locked === true),
  cells: cellsFor(shells),
});

/** Of many shells each is tried at so many angles at first. */
const FEW_ANGLES = 2;

const turningOf = ({ turning }: PackShell, shape: Shape): Turning =>
  turning === 'free' ? { angles: boxAngles(shape), isFree: true } : { angles: turning, isFree: false };

/** Four numbers a shell, as they are reported. */
function flatPlaces({ u, v, angle, scale }: Places): Float64Array {
  const flat = new Float64Array(4 * u.length);
  for (let i = 0; i < u.length; i++) flat.set([u[i], v[i], angle[i], scale[i]], 4 * i);
  return flat;
}

const placements = ({ u, v, angle, scale }: Places): Placement[] =>
  Array.from(u, (_, i) => ({ u: u[i], v: v[i], angle: angle[i], scale: scale[i] }));

function lockedPlaces(pieces: readonly FieldShape[], shells: readonly PackShell[]): Places {
  const places = placesFor(pieces.length);
  pieces.forEach(({ middle }, i) => {
    if (!shells[i].locked) return;
    places.u[i] = middle[0];
    places.v[i] = middle[1];
  });
  return places;
}

/** The scale at which shells would fill most of the frame. */
function referenceScale(
  shapes: readonly Shape[],
  shells: readonly PackShell[],
  { frame, gap }: PackOptions,
): number {
  const room = (frame[2] - frame[0]) * (frame[3] - frame[1]);
  let [area, border] = [0, 0];
  shapes.forEach((shape, i) => {
    if (shells[i].locked) return;
    area += shape.area;
    border += shape.border;
  });
  // The greater root of area s² + border s gap / 2 = 0.6 room.
  const half = (border * gap) / 2;
  return area > 0 ? (Math.sqrt(half * half + 2.4 * area * room) - half) / (2 * area) : 1;
}

/** @param reference  about the scale at which shells will lie */
function finenessOf(
  shapes: readonly Shape[],
  shells: readonly PackShell[],
  { frame, gap }: PackOptions,
  reference: number,
  cells: number,
): Fineness[] {
  const cell = (frame[3] - frame[1]) / cells;
  const scales = shells.map(({ locked }) => (locked ? 1 : reference));
  // A strip no wider than this is felt wherever it lies across another.
  const thinnest = shapes.reduce(
    (least, { area, border }, i) => Math.min(least, (scales[i] * 2 * area) / (border || 1)),
    Infinity,
  );
  const spacing = Math.max(2 * cell, Math.min(0.8 * (thinnest + 2 * gap), CELLS_BETWEEN * cell));
  return scales.map((scale, i) => ({
    cell: cell / scale,
    reach: gap / (shells[i].locked ? 1 : LEAST * reference),
    spacing: spacing / scale,
  }));
}
