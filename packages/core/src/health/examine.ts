import { type Context, heedStop, share } from '../progress.ts';
import { bowTies } from './bowTies.ts';
import { bridgedPolygons } from './bridgedPolygons.ts';
import { type Check, type CheckOptions, DEFAULT_OPTIONS, type Finding, type Patient } from './check.ts';
import { coincidentFaces } from './coincidentFaces.ts';
import { concavePolygons } from './concavePolygons.ts';
import { cracks } from './cracks.ts';
import { crumbs } from './crumbs.ts';
import { duplicateFaces } from './duplicateFaces.ts';
import { facingInward } from './facingInward.ts';
import { farAway } from './farAway.ts';
import { hiddenFaces } from './hiddenFaces.ts';
import { insideOut } from './insideOut.ts';
import { loosePoints } from './loosePoints.ts';
import { lostPoints } from './lostPoints.ts';
import { manyCorners } from './manyCorners.ts';
import { nonManifoldEdges } from './nonManifoldEdges.ts';
import { repeatedCorners } from './repeatedCorners.ts';
import { smallTunnels } from './smallTunnels.ts';
import { thinFaces } from './thinFaces.ts';
import { tJunctions } from './tJunctions.ts';
import { mirroredTransform, unevenScale } from './transforms.ts';
import { warpedPolygons } from './warpedPolygons.ts';
import { mixedWinding } from './winding.ts';

/** All checks, in the order in which their repairs make sense: what is not there need not be joined, what is joined can be turned. */
export const CHECKS: readonly Check[] = [
  lostPoints,
  mirroredTransform,
  unevenScale,
  duplicateFaces,
  repeatedCorners,
  loosePoints,
  cracks,
  bowTies,
  bridgedPolygons,
  mixedWinding,
  insideOut,
  facingInward,
  nonManifoldEdges,
  coincidentFaces,
  tJunctions,
  hiddenFaces,
  crumbs,
  smallTunnels,
  concavePolygons,
  warpedPolygons,
  manyCorners,
  thinFaces,
  farAway,
];

export const checkOf = (kind: string): Check | undefined => CHECKS.find((check) => check.kind === kind);

export interface Diagnosis {
  readonly check: Check;
  readonly finding: Finding;
}

/**
 * What is wrong with a model.
 *
 * @throws StoppedError
 */
export function examine(
  patient: Patient,
  context: Context,
  options: CheckOptions = DEFAULT_OPTIONS,
): Diagnosis[] {
  return CHECKS.flatMap((check, i) => {
    heedStop(context.signal);
    const within = share(context, i / CHECKS.length, (i + 1) / CHECKS.length);
    within.report({ fraction: 0 });
    const finding = check.find(patient, options, within);
    return finding ? [{ check, finding }] : [];
  });
}
