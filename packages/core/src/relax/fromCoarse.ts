import { type Context, heedStop } from '../progress.ts';
import { coarsen, type IntrinsicTriangles } from '../surface/coarsen.ts';
import type { RestTriangles } from '../surface/restTriangles.ts';
import type { Shell } from '../surface/shell.ts';
import { onItsOwn, type Part } from './onItsOwn.ts';
import { type Star, starAt, starsOf } from './placeInStar.ts';

/** How a map is made on a coarse shell, and brought up to the fine one. */
export interface FromCoarse {
  /** Triangles that are few enough to begin with. */
  readonly enough: number;
  /** The map of the coarsest. */
  embed(part: Part): Float64Array;
  /**
   * How the vertices of a step are placed, by the map of the step before.
   *
   * @returns gives the vertex of a star its place
   */
  placing(coarse: IntrinsicTriangles, uv: Float64Array): (star: Star, uv: Float64Array) => void;
  /** Evens a map out after each step, and whether that was the last. */
  relax(part: Part, uv: Float64Array, isFinest: boolean): Float64Array;
}

/**
 * A map of a shell by way of coarse ones: it is coarsened to a few triangles, these are embedded, and its vertices come back step by step, each into its star;
 * on the way the map is evened out. (Progressive embeddings: Shen, Jiang, Zorin, Panozzo 2019; hierarchies: Hormann, Greiner, Campagna 1999.)
 *
 * @returns `2 × vertexCount`
 * @throws StoppedError
 */
export function fromCoarse(
  { positions, triangles }: Shell,
  rest: RestTriangles,
  way: FromCoarse,
  signal: Context['signal'],
): Float64Array {
  const vertexCount = positions.length / 3;
  const { levels, base } = coarsen(triangles, rest, vertexCount, signal, way.enough);
  const uv = new Float64Array(2 * vertexCount);
  onItsOwn(positions, base, uv, (part) => way.embed(part));
  let coarse = base;
  for (let l = levels.length - 1; l >= 0; l--) {
    heedStop(signal);
    const { fine, removed, into } = levels[l];
    const stars = starsOf(fine.triangles, removed, vertexCount);
    const place = way.placing(coarse, uv);
    for (let i = 0; i < removed.length; i++) place(starAt(fine, stars, i, removed[i], into[i]), uv);
    onItsOwn(positions, fine, uv, (part, own) => way.relax(part, own, l === 0));
    coarse = fine;
  }
  return uv;
}
