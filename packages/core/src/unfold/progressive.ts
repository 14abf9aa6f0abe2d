import { type Context, heedStop } from '../progress.ts';
import { type AreaTerm, dirichletParts } from '../relax/distortion.ts';
import { projectedNewton } from '../relax/projectedNewton.ts';
import { tutteEmbedding } from '../relax/tutte.ts';
import type { WeightedTriangles } from '../surface/anyDiagonal.ts';
import { coarsen, type IntrinsicTriangles } from '../surface/coarsen.ts';
import type { RestTriangles } from '../surface/restTriangles.ts';
import type { Shell } from '../surface/shell.ts';
import { apexOver, placeInStar, starsOf } from './placeInStar.ts';

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
  const { positions, triangles } = shell;
  const { signal } = context;
  const { levels, base } = coarsen(triangles, rest, positions.length / 3, signal);
  const uv = new Float64Array((positions.length / 3) * 2);
  onItsOwn(positions, base, uv, (part) =>
    relaxed(part, tutteEmbedding({ ...shell, ...part }, part.rest.totalArea, signal), term, context),
  );
  for (let l = levels.length - 1; l >= 0; l--) {
    heedStop(signal);
    const { fine, removed, into } = levels[l];
    const stars = starsOf(fine.triangles, removed, positions.length / 3);
    for (let i = 0; i < removed.length; i++) placeInStar(fine, stars, i, removed[i], into[i], uv, term);
    onItsOwn(positions, fine, uv, (part, own) => relaxed(part, own, term, context));
  }
  return uv;
}

/** Part of a shell by vertices of its own. */
interface Part extends WeightedTriangles {
  readonly positions: Float64Array;
}

/** Gives a part of the shell vertices without gaps, and takes back what is made of their UVs. */
function onItsOwn(
  positions: Float64Array,
  { triangles, lengths }: IntrinsicTriangles,
  uv: Float64Array,
  make: (part: Part, uv: Float64Array) => Float64Array,
): void {
  const number = new Int32Array(positions.length / 3).fill(-1);
  const vertices: number[] = [];
  const own = triangles.map((v) => {
    if (number[v] < 0) number[v] = vertices.push(v) - 1;
    return number[v];
  });
  const places = new Float64Array(3 * vertices.length);
  const flat = new Float64Array(2 * vertices.length);
  vertices.forEach((v, i) => {
    for (let k = 0; k < 3; k++) places[3 * i + k] = positions[3 * v + k];
    for (let k = 0; k < 2; k++) flat[2 * i + k] = uv[2 * v + k];
  });
  const made = make({ positions: places, triangles: own, rest: restOf(lengths) }, flat);
  vertices.forEach((v, i) => {
    for (let k = 0; k < 2; k++) uv[2 * v + k] = made[2 * i + k];
  });
}

/** Triangles by the lengths of their sides, each in its own plane. */
function restOf(lengths: Float64Array): RestTriangles {
  const local = new Float64Array(lengths.length);
  const area = new Float64Array(lengths.length / 3);
  let totalArea = 0;
  for (let t = 0; t < area.length; t++) {
    const [x, y, height] = apexOver(lengths[3 * t], lengths[3 * t + 1], lengths[3 * t + 2]);
    local.set([x, y, height], 3 * t);
    area[t] = 0.5 * x * height;
    totalArea += area[t];
  }
  return { local, area, totalArea };
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
