import { cornersBeside } from '../../document/constraints.ts';
import { applyDelta, type Delta, markChange } from '../../document/delta.ts';
import { current, type HemDocument, shellsOf, topologyOf } from '../../document/document.ts';
import { knownFaces } from '../../document/known.ts';
import { uvDifference } from '../../document/uvChange.ts';
import { HemError } from '../../errors.ts';
import { about, choice, otherwise } from '../../params.ts';
import { plural } from '../../plural.ts';
import { RELAX_STEPS } from '../../relax/steps.ts';
import type { Operation, OperationContext } from '../operation.ts';
import { cornerOf } from '../unfold/handles.ts';
import { relax } from '../unfold/relax.ts';
import { unfold } from '../unfold/unfold.ts';
import { placedChange, placingNotes } from './keepPlaces.ts';

/** Whether what lies between points that are moved stays where it is, or is laid flat anew round them. */
export const inside = about(
  'whether the rest of the shell stays where it is, or follows: it is laid flat anew round the points',
  otherwise(choice('stays', 'follows'), 'stays'),
);

/** A place of the flat: a vertex on the side of a face. */
export interface PlaceOfPoint {
  readonly vertex: number;
  readonly face: number;
}

/** A place of the flat, and where it comes to lie. */
export interface PointMove extends PlaceOfPoint {
  readonly uv: readonly [u: number, v: number];
}

/**
 * Where places of the flat lie.
 *
 * @throws HemError when there is no such place, or it lies nowhere
 */
export function pointsAt(
  document: HemDocument,
  places: readonly PlaceOfPoint[],
): (PlaceOfPoint & { readonly uv: readonly [number, number] })[] {
  const { mesh } = document.model;
  const { uv } = current(document);
  knownFaces(
    mesh,
    places.map(({ face }) => face),
  );
  return places.map(({ vertex, face }) => {
    const c = cornerOf(mesh, vertex, face);
    const at = [uv[2 * c], uv[2 * c + 1]] as const;
    if (Number.isNaN(at[0] + at[1]))
      throw new HemError(
        'nothing-unfolded',
        'These points lie nowhere on the Board: unfold their shell first.',
        [face],
      );
    return { vertex, face, uv: at };
  });
}

/** Moves places of the flat. */
export async function movedPoints(
  document: HemDocument,
  moves: readonly PointMove[],
  how: 'stays' | 'follows',
  context: OperationContext,
): Promise<Delta> {
  return how === 'stays' ? movedAlone(document, moves) : laidRound(document, moves, context);
}

function movedAlone(document: HemDocument, moves: readonly PointMove[]): Delta {
  const next = current(document).uv.slice();
  for (const { vertex, face, uv } of moves)
    for (const c of cornersBeside(document, cornerOf(document.model.mesh, vertex, face))) next.set(uv, 2 * c);
  return laidAs(document, next);
}

/** Lays all corners as a hand has them, and says what that spoils. */
export function laidAs(document: HemDocument, next: Float64Array): Delta {
  const { turned, flat } = spoilt(document, current(document).uv, next);
  return {
    changes: [uvDifference(document, next), placedChange(document, 1)],
    notes: [
      ...(turned + flat > 0
        ? [
            `${[
              ...(turned > 0 ? [`${plural(turned, 'triangle')} came to lie upside down`] : []),
              ...(flat > 0 ? [`${plural(flat, 'triangle')} came to have no area`] : []),
            ].join(', ')}: have the inside follow, or unfold the shell anew.`,
          ]
        : []),
      ...placingNotes(document),
    ],
  };
}

/** Triangles that had an area the right way up, and lie upside down now, or have none. */
function spoilt(document: HemDocument, before: Float64Array, after: Float64Array) {
  const { triangleCorners } = topologyOf(document.model).triangulation;
  const area = (uv: Float64Array, i: number): number => {
    const [a, b, c] = [0, 1, 2].map((k) => 2 * triangleCorners[i + k]);
    return (uv[b] - uv[a]) * (uv[c + 1] - uv[a + 1]) - (uv[b + 1] - uv[a + 1]) * (uv[c] - uv[a]);
  };
  let [turned, flat] = [0, 0];
  for (let i = 0; i < triangleCorners.length; i += 3) {
    const was = area(before, i);
    if (!(was > 0)) continue;
    const is = area(after, i);
    if (Math.abs(is) <= NO_AREA * was) flat++;
    else if (is < 0) turned++;
  }
  return { turned, flat };
}

/** Part of what it had, below which a triangle has no area. */
const NO_AREA = 1e-9;

/** Points that cannot be met are not called pins here: the artist has set none. */
function toldAsPoints(error: unknown): never {
  if (error instanceof HemError && error.code === 'cannot-meet-pins')
    throw new HemError(
      'cannot-follow',
      'The rest cannot follow there without flipping faces: move fewer points or not as far, or have the inside stay.',
    );
  throw error;
}

/** Lays the shells of points flat anew with the points pinned; one that was relaxed is relaxed again. */
async function laidRound(
  document: HemDocument,
  moves: readonly PointMove[],
  context: OperationContext,
): Promise<Delta> {
  const { faceShell } = shellsOf(document);
  const byShell = new Map<number, PointMove[]>();
  for (const move of moves) {
    const s = faceShell[move.face];
    byShell.set(s, [...(byShell.get(s) ?? []), move]);
  }
  const changes: Delta['changes'][number][] = [];
  const notes: string[] = [];
  let now = document;
  for (const pins of byShell.values()) {
    const [{ face }] = pins;
    const laid = await carried(now, unfold, { shells: [face], pins }).catch(toldAsPoints);
    changes.push(...laid.changes);
    notes.push(...laid.notes);
    now = applyDelta(now, laid);
    if (!document.relaxed[face]) continue;
    const corners = pins.flatMap(({ vertex, face: at }) =>
      cornersBeside(document, cornerOf(document.model.mesh, vertex, at)),
    );
    // They hold while it is relaxed, and are free after it.
    const held = applyDelta(now, { changes: [markChange(now, 'pins', corners, 1)], notes: [] });
    const settled = await carried(held, relax, { shells: [face], steps: RELAX_STEPS });
    changes.push(...settled.changes);
    now = applyDelta(now, settled);
  }
  return { changes, notes };

  async function carried<Out, In>(on: HemDocument, { params, run }: Operation<string, Out, In>, given: In) {
    return run(on, params.validate(given).value as Out, context);
  }
}
