import type { Connectivity } from '../mesh/connectivity.ts';
import type { Mesh } from '../mesh/mesh.ts';
import type { Context } from '../progress.ts';
import { cutBetween, EITHER_SIDE, ONE_SIDE, OTHER_SIDE, OUTSIDE } from '../select/cutBetween.ts';
import { distanceFrom, farthestVertex } from '../surface/distanceFrom.ts';
import { distanceToFaces } from '../surface/distanceToFaces.ts';
import type { Shell } from '../surface/shell.ts';

/** On the way from one end of a shell to the other the seam lies between these parts. */
const [FROM, TO] = [0.3, 0.7];

/**
 * Edges that part a shell in two across its length, where they cost least: between the two ends that lie farthest from one another, in the
 * middle of the way, by a minimum cut.
 *
 * @param seams  1 for each edge that is cut
 * @param costOf  what a seam along an edge costs
 * @returns none where there is no way across
 * @throws StoppedError
 */
export function partShell(
  {
    mesh,
    connectivity,
    seams,
  }: { readonly mesh: Mesh; readonly connectivity: Connectivity; readonly seams: Uint8Array },
  shell: Shell,
  costOf: (edge: number) => number,
  signal?: Context['signal'],
): number[] {
  const faces = mesh.faceStart.length - 1;
  const distances = (v: number) => distanceFrom(shell.positions, shell.triangles, [v], signal);
  const fromOne = distances(farthestVertex(distances(shell.triangles[0])));
  const [one, other] = [fromOne, distances(farthestVertex(fromOne))].map((far) =>
    distanceToFaces(shell, far, faces),
  );
  const parts = one.map((d, f) => d / (d + other[f]));
  const side = Uint8Array.from(parts, (part) =>
    Number.isNaN(part) ? OUTSIDE : part < FROM ? ONE_SIDE : part > TO ? OTHER_SIDE : EITHER_SIDE,
  );
  // Of few faces none may lie so near to an end.
  side[indexOfBest(parts, (a, b) => a < b)] = ONE_SIDE;
  side[indexOfBest(parts, (a, b) => a > b)] = OTHER_SIDE;
  return cutBetween(connectivity, side, (e) => !seams[e], costOf, signal);
}

/** Where the best of some values is, NaN aside. */
const indexOfBest = (values: Float64Array, isBetter: (a: number, b: number) => boolean): number =>
  values.reduce(
    (best, value, i) => (isBetter(value, values[best]) || Number.isNaN(values[best]) ? i : best),
    0,
  );
