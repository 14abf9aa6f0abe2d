import type { Connectivity } from '../mesh/connectivity.ts';
import type { Mesh } from '../mesh/mesh.ts';
import { vertexNormals } from '../mesh/normals.ts';
import { type Context, heedStop } from '../progress.ts';
import type { RayCaster } from './rays.ts';
import { fibonacciSphere } from './sphere.ts';
import { spread } from './spread.ts';

/** Directions over the whole sphere, of which a point sees half. */
const DIRECTIONS = 56;
/** Points from which rays are cast; on denser meshes the others follow from their neighbours. */
const MOST_POINTS = 14_000;
/** What a ray meets within this part of the model's size hides it, the less the farther off it is. */
const REACH = 0.5;
/** Rays start this part of the model's size above the surface, so as not to meet it. */
const LIFT = 1e-3;
/** How often what was found is evened out with the neighbours. */
const SMOOTHING = 2;

/**
 * How much of the sky every vertex sees, 0 to 1: the part of the half-sphere over it, weighed by cosine, that nothing near hides
 * (ambient occlusion; Zhukov, Iones, Kronin 1998). Rays go in the same directions from everywhere, spread evenly by golden angles.
 *
 * @param cast  at the faces of the mesh
 * @param size  of the model, the diagonal of its box
 * @returns `vertexCount`
 * @throws StoppedError
 */
export function vertexOcclusion(
  mesh: Mesh,
  connectivity: Pick<Connectivity, 'edgeVertices'>,
  cast: RayCaster,
  size: number,
  context: Context,
): Float32Array {
  const count = mesh.positions.length / 3;
  const normals = vertexNormals(mesh);
  const stride = Math.max(1, Math.ceil(count / MOST_POINTS));
  const seen = new Float32Array(count).fill(-1);
  for (let v = 0; v < count; v += stride) {
    heedStop(context.signal);
    const at = mesh.positions.subarray(3 * v, 3 * v + 3);
    seen[v] = occlusionAt(cast, at, normals.subarray(3 * v, 3 * v + 3), size);
    if (v % 512 === 0) context.report({ fraction: v / count });
  }
  return spread(seen, connectivity, SMOOTHING);
}

/** The part of the sky over a point that nothing near hides. */
export function occlusionAt(
  cast: RayCaster,
  at: ArrayLike<number>,
  normal: ArrayLike<number>,
  size: number,
): number {
  const origin = [0, 1, 2].map((k) => at[k] + LIFT * size * normal[k]);
  let [open, all] = [0, 0];
  for (const direction of SPHERE) {
    const weight = direction[0] * normal[0] + direction[1] * normal[1] + direction[2] * normal[2];
    if (weight <= 0) continue;
    all += weight;
    const hit = cast(origin, direction);
    open += weight * (hit ? Math.min(1, hit.distance / (REACH * size)) ** 0.5 : 1);
  }
  return all > 0 ? open / all : 1;
}

const SPHERE = fibonacciSphere(DIRECTIONS);
