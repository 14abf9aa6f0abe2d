import { type Context, heedStop, type StopSignal } from '../progress.ts';
import { areMany, cellIn, cellsAtFirst, finenessOf, LEAST_PART } from './fineness.ts';
import { type FitOptions, firstFit, fitSome } from './firstFit.ts';
import { largestIn, turnedBox } from './frame.ts';
import { haveClusters, packClusters } from './packClusters.ts';
import { type PackOptions, type PackShell, turningOf } from './packShell.ts';
import { type FieldShape, withField } from './pieces.ts';
import { type Placement, placementsOf } from './placement.ts';
import { type Places, placesFor } from './places.ts';
import { type Shape, shapeOf } from './shape.ts';
import type { Turning } from './turning.ts';

/**
 * A first layout, made at once; see `firstFit`, and `packClusters` where some shells are to lie near each other.
 *
 * @returns undefined where the shells fit at no scale that is of use
 * @throws StoppedError
 */
export function packFirst(
  shells: readonly PackShell[],
  options: PackOptions,
  context: Context,
): Placement[] | undefined {
  if (haveClusters(shells)) return packClusters(shells, options, context, packFirst);
  const { signal } = context;
  const { frame, gap, most = Infinity } = options;
  // Grown by half the gap, each covers no less than a circle of that radius.
  const free = shells.filter(({ locked }) => !locked).length;
  if ((free * Math.PI * gap * gap) / 4 > (frame[2] - frame[0]) * (frame[3] - frame[1])) return undefined;
  const shapes = shells.map(shapeOf);
  if (shells.length === 1) return alone(shapes[0], turningOf(shells[0], shapes[0]), options);
  // Where the gaps alone are as wide as the frame, nothing is tried.
  if (Math.min(frame[2] - frame[0], frame[3] - frame[1]) <= 2 * gap) return undefined;
  let reference = Math.min(most, referenceScale(shapes, shells, options));
  for (let tries = 0; tries < TRIES; tries++) {
    const pieces = withFields(shapes, shells, options, reference, signal);
    const places = lockedPlaces(pieces, shells);
    const fit = { ...fitOptions(shapes, shells, options), most, least: LEAST_PART * reference };
    const scale = firstFit(pieces, places, fit, signal);
    if (scale !== undefined) return placementsOf(places);
    heedStop(signal);
    reference *= LEAST_PART;
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
  return placementsOf(places).map((place, i) => (left.has(i) ? undefined : place));
}

function withFields(
  shapes: readonly Shape[],
  shells: readonly PackShell[],
  options: PackOptions,
  reference: number,
  signal: StopSignal,
): FieldShape[] {
  const fineness = finenessOf(shapes, shells, options, reference, cellsAtFirst(shells));
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
    turningOf(shell, shapes[i]).angles.slice(0, areMany(shells) ? FEW_ANGLES : undefined),
  ),
  locked: shells.map(({ locked }) => locked === true),
  cell: cellIn(frame, cellsAtFirst(shells)),
});

/** Of many shells each is tried at so many angles at first. */
const FEW_ANGLES = 2;

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
