import { type Context, heedStop } from '../progress.ts';
import { collapsedFaces } from './collapsedFaces.ts';
import { densityOutliers } from './densityOutliers.ts';
import { foldedFaces } from './foldedFaces.ts';
import { describeFinding, type Inspection, type LayoutFinding } from './inspection.ts';
import { notUnfolded } from './notUnfolded.ts';
import { outOfDate } from './outOfDate.ts';
import { outsideTile } from './outsideTile.ts';
import { overlapBetween } from './overlapBetween.ts';
import { overlapWithin } from './overlapWithin.ts';
import { stackedShells } from './stackedShells.ts';
import { stretchedShells } from './stretchedShells.ts';
import type { Subject } from './subject.ts';
import { tooNear } from './tooNear.ts';
import { tooSmall } from './tooSmall.ts';
import { flippedFaces, mirroredShells } from './upsideDownFaces.ts';
import { upsideDownShells } from './upsideDownShells.ts';

/** All inspections, the gravest first. */
export const INSPECTIONS: readonly Inspection[] = [
  notUnfolded,
  flippedFaces,
  collapsedFaces,
  foldedFaces,
  mirroredShells,
  overlapWithin,
  overlapBetween,
  outsideTile,
  tooNear,
  outOfDate,
  stretchedShells,
  densityOutliers,
  upsideDownShells,
  tooSmall,
  stackedShells,
];

/**
 * What is wrong with how a model lies flat.
 *
 * @throws StoppedError
 */
export function inspect(subject: Subject, { signal }: Pick<Context, 'signal'>): LayoutFinding[] {
  return INSPECTIONS.flatMap((inspection) => {
    heedStop(signal);
    const found = inspection.find(subject);
    return found ? [describeFinding(inspection, found)] : [];
  });
}
