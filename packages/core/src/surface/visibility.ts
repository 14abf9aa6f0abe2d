import type { Connectivity } from '../mesh/connectivity.ts';
import type { Mesh } from '../mesh/mesh.ts';
import { vertexNormals } from '../mesh/normals.ts';
import { frontOf, type Stance, upOf } from '../mesh/stance.ts';
import { type Context, heedStop } from '../progress.ts';
import type { RayCaster } from './rays.ts';
import { fibonacciSphere } from './sphere.ts';
import { spread } from './spread.ts';

/** From where a model is going to be looked at. */
export const VIEWS = ['mostly from the front', 'all round', 'from the front', 'from above'] as const;
export type View = (typeof VIEWS)[number];
/** Unless it is said: faces are looked at, and seams lie at the back (common practice). */
export const USUAL_VIEW: View = 'mostly from the front';

/** Directions from which it is looked at. */
const DIRECTIONS = 64;
/** Points from which rays are cast; on denser meshes the others follow from their neighbours. */
const MOST_POINTS = 10_000;
/** Rays start this part of the model's size above the surface, so as not to meet it. */
const LIFT = 1e-3;
/** A model stands on something: from straight below it is seen this much as often as from the side. */
const FROM_BELOW = 0.2;
/** One that is mostly looked at from the front is seen this much as often from straight behind. */
const FROM_BEHIND = 0.5;

/**
 * How much is seen of every vertex from far away, 0 to 1: the part of the directions of view, each weighed by how often the model is
 * looked at from there and by the slant at which the surface is seen, that nothing hides; 1 is the surface seen best of all, with nothing
 * before it.
 *
 * @param cast  at the faces of the mesh
 * @param size  of the model, the diagonal of its box
 * @param stance  what points up, and where its front is
 * @returns `vertexCount`
 * @throws StoppedError
 */
export function vertexVisibility(
  mesh: Mesh,
  connectivity: Pick<Connectivity, 'edgeVertices'>,
  cast: RayCaster,
  size: number,
  view: View,
  stance: Stance,
  context: Context,
): Float32Array {
  const count = mesh.positions.length / 3;
  const normals = vertexNormals(mesh);
  const directions = fibonacciSphere(DIRECTIONS).map(([x, y, z]) =>
    stance.upAxis === 1 ? [x, -z, y] : [x, y, z],
  );
  const weights = directions.map((d) => frequency(d, view, stance));
  const slanted = (normal: ArrayLike<number>, each: (d: number, weight: number) => boolean): number => {
    let sum = 0;
    for (let d = 0; d < DIRECTIONS; d++) {
      const [x, y, z] = directions[d];
      const slant = x * normal[0] + y * normal[1] + z * normal[2];
      if (slant > 0 && weights[d] > 0 && each(d, slant)) sum += weights[d] * slant;
    }
    return sum;
  };
  const most = Math.max(...directions.map((d) => slanted(d, () => true)));
  const stride = Math.max(1, Math.ceil(count / MOST_POINTS));
  const seen = new Float32Array(count).fill(-1);
  const origin = [0, 0, 0];
  for (let v = 0; v < count; v += stride) {
    if (v % (64 * stride) === 0) {
      heedStop(context.signal);
      context.report({ fraction: v / count });
    }
    const normal = normals.subarray(3 * v, 3 * v + 3);
    for (let k = 0; k < 3; k++) origin[k] = mesh.positions[3 * v + k] + LIFT * size * normal[k];
    seen[v] = Math.min(1, slanted(normal, (d) => !cast(origin, directions[d])) / most);
  }
  return spread(seen, connectivity, 1);
}

/** How often a model is looked at from a direction, 0 to 1. */
function frequency(direction: readonly number[], view: View, stance: Stance): number {
  const along = (axis: readonly number[]) => axis.reduce((sum, x, k) => sum + x * direction[k], 0);
  const up = along(upOf(stance));
  const ahead = along(frontOf(stance));
  const standing = up > 0 ? 1 : FROM_BELOW + (1 - FROM_BELOW) * (1 + up);
  switch (view) {
    case 'all round':
      return standing;
    case 'mostly from the front':
      return standing * (FROM_BEHIND + ((1 - FROM_BEHIND) * (1 + ahead)) / 2);
    case 'from the front':
      return ((1 + ahead) / 2) ** 2;
    case 'from above':
      return ((1 + up) / 2) ** 2;
  }
}

/** Of every edge the mean of its ends. */
export const edgeVisibility = (
  { edgeVertices }: Pick<Connectivity, 'edgeVertices'>,
  visibility: Float32Array,
): Float32Array =>
  Float32Array.from(
    { length: edgeVertices.length / 2 },
    (_, e) => 0.5 * (visibility[edgeVertices[2 * e]] + visibility[edgeVertices[2 * e + 1]]),
  );
