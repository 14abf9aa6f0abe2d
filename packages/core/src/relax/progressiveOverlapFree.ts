import { HemError } from '../errors.ts';
import type { Context } from '../progress.ts';
import { borders } from '../surface/borders.ts';
import { restTriangles } from '../surface/restTriangles.ts';
import { type Shell, shellFromTriangles } from '../surface/shell.ts';
import { type AreaTerm, dirichletParts } from './distortion.ts';
import { easeWorst } from './easeWorst.ts';
import { emptyBeside } from './emptyBeside.ts';
import { fromCoarse } from './fromCoarse.ts';
import { intoDisc } from './intoDisc.ts';
import { newtonOverlapFree } from './newtonOverlapFree.ts';
import type { Part } from './onItsOwn.ts';
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
          const middleBeyond = emptyBeside(coarse.triangles, uv);
          if (!middleBeyond) throw new NoRoomError();
          return (star) => {
            const sides = borderNeighbours(star);
            if (!sides) return placeInStar(star, uv, term);
            const middle = middleBeyond(...sides);
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
