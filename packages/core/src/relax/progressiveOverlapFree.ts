import { HemError } from '../errors.ts';
import type { Context } from '../progress.ts';
import { borders } from '../surface/borders.ts';
import type { IntrinsicTriangles } from '../surface/coarsen.ts';
import { restTriangles } from '../surface/restTriangles.ts';
import { type Shell, shellFromTriangles } from '../surface/shell.ts';
import { type AreaTerm, dirichletParts } from './distortion.ts';
import { easeWorst } from './easeWorst.ts';
import { fromCoarse } from './fromCoarse.ts';
import { intoDisc } from './intoDisc.ts';
import { newtonOverlapFree } from './newtonOverlapFree.ts';
import type { Part } from './onItsOwn.ts';
import { outerTriangles } from './outerTriangles.ts';
import { borderNeighbours, placeAtBorder } from './placeAtBorder.ts';
import { placeInStar } from './placeInStar.ts';

/** Triangles that are few enough to be laid out from a disc, in which nothing of them is much too small; and steps that this takes at most. */
const ENOUGH = 60;
const AT_FIRST = { steps: 150, tolerance: 1e-3 };
/** Up to so many triangles the map is evened out after each step, then each time there are so many times as many. */
const [FEW, GROWTH] = [1000, 2];
const ON_THE_WAY = { steps: 10, tolerance: 3e-3 };
/** Triangles of a shell that is worth the way. */
const MANY = 3000;

/** Whether the way by a coarse shell is worth it. */
export const isWorthCoarsening = ({ triangles }: Shell): boolean => triangles.length > 3 * MANY;

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
  const loopsOf = (part: Part) => borders(part.triangles, part.positions.length / 3).loops;
  const sized = (part: Part, uv: Float64Array): Float64Array => {
    const { stretch, shrink } = dirichletParts(part.triangles, part.rest, uv);
    const scale = (shrink / stretch) ** 0.25;
    return uv.map((x) => x * scale);
  };
  const evened = (part: Part, uv: Float64Array, options: typeof AT_FIRST): Float64Array =>
    newtonOverlapFree(part, loopsOf(part), sized(part, uv), { term, ...options }, quiet).uv;
  // As large as the step before has left it: a few bad triangles would say otherwise.
  const eased = (part: Part, uv: Float64Array): Float64Array =>
    easeWorst(part, loopsOf(part), uv, term, quiet);
  let last = 0;
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
        relax(part, uv, isFinest) {
          const near = eased(part, uv);
          const count = part.triangles.length;
          if (isFinest || (count > 3 * FEW && count < GROWTH * last)) return near;
          last = count;
          return evened(part, near, ON_THE_WAY);
        },
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
