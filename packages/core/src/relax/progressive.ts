import { type Context, heedStop } from '../progress.ts';
import type { WeightedTriangles } from '../surface/anyDiagonal.ts';
import type { RestTriangles } from '../surface/restTriangles.ts';
import type { Shell } from '../surface/shell.ts';
import { type AreaTerm, dirichletParts } from './distortion.ts';
import { fromCoarse } from './fromCoarse.ts';
import { placeInStar } from './placeInStar.ts';
import { projectedNewton } from './projectedNewton.ts';
import { tutteEmbedding } from './tutte.ts';

/** Relaxing on the way from coarse to fine: enough to stay near the best map. */
const ON_THE_WAY = { steps: 10, tolerance: 1e-2 };

/**
 * A flip-free map of any shell that can lie flat, near the least of an energy and never near a collapse: the shell is coarsened to a few
 * triangles, these are embedded (Tutte 1963), and its vertices come back step by step, each into the kernel of its star, where there is always
 * room beside the neighbour that had taken it over; after each step the map is relaxed. (Progressive embeddings: Shen, Jiang, Zorin, Panozzo
 * 2019; hierarchies: Hormann, Greiner, Campagna 1999.)
 *
 * A bare Tutte embedding of a horn shrinks from ring to ring by a factor, soon below any number; here no triangle of any step is far
 * from its size on the surface.
 *
 * @param term  of the energy
 * @returns `2 × vertexCount`, at the scale of least energy
 * @throws StoppedError
 */
export function progressiveEmbedding(
  shell: Shell,
  rest: RestTriangles,
  term: AreaTerm | undefined,
  context: Context,
): Float64Array {
  return fromCoarse(
    shell,
    rest,
    {
      enough: 0,
      embed: (part) =>
        relaxed(
          part,
          tutteEmbedding({ ...shell, ...part }, part.rest.totalArea, context.signal),
          term,
          context,
        ),
      placing: () => (star, uv) => placeInStar(star, uv, term),
      relax: (part, uv) => relaxed(part, uv, term, context),
    },
    context.signal,
  );
}

function relaxed(
  part: WeightedTriangles,
  uv: Float64Array,
  term: AreaTerm | undefined,
  { signal }: Context,
): Float64Array {
  const { stretch, shrink } = dirichletParts(part.triangles, part.rest, uv);
  const scale = (shrink / stretch) ** 0.25;
  const sized = uv.map((x) => x * scale);
  const found = projectedNewton(part, sized, { term, ...ON_THE_WAY }, { signal, report() {} });
  heedStop(signal);
  return found.uv;
}
