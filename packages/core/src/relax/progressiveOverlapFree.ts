import { HemError } from '../errors.ts';
import type { Context } from '../progress.ts';
import { borders } from '../surface/borders.ts';
import type { IntrinsicTriangles } from '../surface/coarsen.ts';
import { restTriangles } from '../surface/restTriangles.ts';
import { type Shell, shellFromTriangles } from '../surface/shell.ts';
import { type AreaTerm, dirichletParts } from './distortion.ts';
import { fromCoarse } from './fromCoarse.ts';
import { intoDisc } from './intoDisc.ts';
import { newtonOverlapFree } from './newtonOverlapFree.ts';
import type { Part } from './onItsOwn.ts';
import { outerTriangles } from './outerTriangles.ts';
import { borderNeighbours, placeAtBorder } from './placeAtBorder.ts';
import { placeInStar } from './placeInStar.ts';

/** Triangles on which the map is found, and more than which are worth the way. */
const ENOUGH = 1500;
const [AT_FIRST, ON_THE_WAY] = [
  { steps: 150, tolerance: 1e-4 },
  { steps: 10, tolerance: 3e-3 },
];
const GROWTH = 3;

/** Whether the way by a coarse shell is worth it. */
export const isWorthCoarsening = ({ triangles }: Shell): boolean => triangles.length > 2 * 3 * ENOUGH;

/**
 * A map that neither flips a triangle nor lies on itself, near the least of an energy, by way of a coarse shell: it is laid out from a disc, and its
 * vertices come back each into its star, those of borders into what is empty beside them.
 *
 * @returns `2 × vertexCount`, at the scale of the model; undefined where there is no room for some vertex, or borders touch
 * @throws StoppedError
 */
export function progressiveOverlapFree(
  shell: Shell,
  term: AreaTerm,
  context: Context,
): Float64Array | undefined {
  const { positions, triangles } = shell;
  const quiet = { signal: context.signal, report: () => undefined };
  const evened = (part: Part, uv: Float64Array, options: typeof AT_FIRST): Float64Array => {
    const { loops } = borders(part.triangles, part.positions.length / 3);
    const { stretch, shrink } = dirichletParts(part.triangles, part.rest, uv);
    const scale = (shrink / stretch) ** 0.25;
    const sized = uv.map((x) => x * scale);
    return newtonOverlapFree(part, loops, sized, { term, ...options }, quiet).uv;
  };
  try {
    return fromCoarse(
      shell,
      restTriangles(positions, triangles),
      {
        enough: ENOUGH,
        embed: (part) =>
          evened(
            part,
            intoDisc(shellFromTriangles(part.positions, part.triangles), context.signal),
            AT_FIRST,
          ),
        placing(coarse, uv) {
          const middles = middlesBeyond(coarse, uv);
          return (star) => {
            const sides = borderNeighbours(star);
            if (!sides) return placeInStar(star, uv, term);
            const middle = middles.get(keyOf(...sides));
            if (!middle || !placeAtBorder(star, sides, middle, uv, term)) throw new NoRoomError();
          };
        },
        growth: GROWTH,
        finest: false,
        relax: (part, uv) => evened(part, uv, ON_THE_WAY),
      },
      context.signal,
    );
  } catch (error) {
    if (error instanceof NoRoomError) return undefined;
    throw error;
  }
}

class NoRoomError extends HemError {
  constructor() {
    super('no-room', 'There is no room beside the border of this shell.');
  }
}

const keyOf = (a: number, b: number): string => `${a} ${b}`;

/** The middle of the empty triangle beyond each side of the border of a map. @throws NoRoomError where borders touch */
function middlesBeyond(
  { triangles }: IntrinsicTriangles,
  uv: Float64Array,
): ReadonlyMap<string, readonly [number, number]> {
  const { loops } = borders(triangles, uv.length / 2);
  // Over the vertices of the borders alone.
  const border = loops.flatMap((loop) => [...loop]);
  let first = 0;
  const own = loops.map((loop) => Uint32Array.from(loop, () => first++));
  const places = Float64Array.from({ length: 2 * border.length }, (_, i) => uv[2 * border[i >> 1] + (i & 1)]);
  const outer = outerTriangles(places, own);
  if (!outer) throw new NoRoomError();
  const placeOf = (v: number, k: number): number =>
    2 * v < places.length ? places[2 * v + k] : outer.added[2 * v - places.length + k];
  const middles = new Map<string, readonly [number, number]>();
  for (let t = 0; t < outer.triangles.length; t += 3) {
    const corners = outer.triangles.subarray(t, t + 3);
    const [x, y] = [0, 1].map((k) => corners.reduce((sum, v) => sum + placeOf(v, k), 0) / 3);
    for (let k = 0; k < 3; k++) {
      const [from, to] = [corners[k], corners[(k + 1) % 3]];
      // What is empty has the sides the other way round.
      if (Math.max(from, to) < border.length) middles.set(keyOf(border[to], border[from]), [x, y]);
    }
  }
  return middles;
}
