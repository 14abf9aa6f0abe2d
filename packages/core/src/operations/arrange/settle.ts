import { constrainedShells } from '../../document/constraints.ts';
import { type HemDocument, shellsOf } from '../../document/document.ts';
import { flatTriangles, shellBoxes } from '../../document/layout.ts';
import { freePlaces } from '../../pack/freePlaces.ts';
import { plural } from '../../plural.ts';
import { facesOfShell } from '../../surface/shells.ts';
import { isOutside } from '../../surface/tiles.ts';
import type { UvBox } from '../../surface/uvBox.ts';
import { closeness, toldLanded } from './closeness.ts';
import { describeParked, flatOf, layAfresh, moveShell, parkShells } from './layAfresh.ts';

/**
 * Finds places for shells that were laid flat anew while others keep theirs. One that is clear where it lies, or no worse than it was
 * before, stays; another goes to the nearest free place of the tile. Where there is none, all that nothing holds is laid out afresh on a Board on
 * which nothing was placed by hand; otherwise the shell stays as long as it only reaches out of the tile, and waits beside it where it
 * would lie on another.
 *
 * @param uv  of every corner; places are written over
 * @param uvOf  the shells that were laid anew and may be moved, by number
 * @param firm  those that must lie where they are
 * @returns what the artist should hear
 */
export function settle(
  document: HemDocument,
  uv: Float64Array,
  uvOf: ReadonlyMap<number, unknown>,
  firm: ReadonlyMap<number, unknown>,
): string[] {
  const held = constrainedShells(document);
  const boxes = shellBoxes(document, uv);
  const flat = [...boxes.keys()].filter((s) => boxes[s]);
  const close = closeness(document, uv, boxes);
  const faces = (s: number) => facesOfShell(shellsOf(document), s).length;
  const isLoose = (s: number) => !firm.has(s) && !held.has(s);
  const isTidy = document.placed === 0;
  // Those that have not changed come first: the others give way to them. Of those the largest.
  const moving = flat
    .filter((s) => isLoose(s) && (isTidy || uvOf.has(s)))
    .sort((a, b) => Number(uvOf.has(a)) - Number(uvOf.has(b)) || faces(b) - faces(a) || a - b);
  const unsettled = new Set(moving);
  const isMisfit = new Set<number>();
  for (const s of moving) {
    unsettled.delete(s);
    const isIn = !isOutside(document.tiles, boxes[s] as UvBox) || (!isTidy && close.wasOutside(s));
    if (!isIn || close.growsCloser(s, (other) => !unsettled.has(other) && !isMisfit.has(other)))
      isMisfit.add(s);
  }
  const misfits = [...isMisfit];
  const notes: string[] = [];
  if (misfits.length > 0) notes.push(...placeMisfits(document, uv, misfits, boxes, firm));
  const unmoved = [...firm.keys(), ...[...uvOf.keys()].filter((s) => held.has(s))];
  const now = misfits.length > 0 ? closeness(document, uv) : close;
  return [...notes, ...toldLanded(now, unmoved)];
}

function placeMisfits(
  document: HemDocument,
  uv: Float64Array,
  misfits: readonly number[],
  boxes: readonly (UvBox | undefined)[],
  firm: ReadonlyMap<number, unknown>,
): string[] {
  const out = new Set(misfits);
  const staying = [...boxes.keys()].filter((s) => boxes[s] && !out.has(s));
  const places = freePlaces(
    flatOf(document, staying, uv),
    misfits.map((s) => flatTriangles(document, s, uv)),
    document.tiles,
    misfits.map((s) => [(boxes[s] as UvBox)[0], (boxes[s] as UvBox)[1]] as const),
    'nearest',
  );
  const homeless = misfits.filter((_, i) => !places[i]);
  if (homeless.length > 0 && document.placed === 0) return layAfresh(document, uv, firm.keys());
  misfits.forEach((s, i) => {
    const [place, box] = [places[i], boxes[s] as UvBox];
    if (place) moveShell(document, uv, s, 1, [place[0] - box[0], place[1] - box[1]]);
  });
  // Out of the tile where it was is better than far from it, as long as it is clear there.
  const close = closeness(document, uv);
  const undecided = new Set(homeless);
  const waiting: number[] = [];
  for (const s of homeless)
    if (!close.hadPlace(s) || close.growsCloser(s, (other) => !undecided.has(other))) waiting.push(s);
    else undecided.delete(s);
  const reaching = homeless.length - waiting.length;
  if (waiting.length > 0) parkShells(document, uv, waiting, shellBoxes(document, uv));
  return [
    ...(waiting.length > 0 ? [describeParked(waiting.length)] : []),
    ...(reaching > 0
      ? [
          `${plural(reaching, 'shell')} ${reaching === 1 ? 'reaches' : 'reach'} out of the tile, which has no room for ${reaching === 1 ? 'it' : 'them'}: pack, or scale ${reaching === 1 ? 'it' : 'them'}.`,
        ]
      : []),
  ];
}
