import { type HemDocument, shellsOf } from '../../document/document.ts';
import { flatTriangles, shellBoxes } from '../../document/layout.ts';
import { freePlaces } from '../../pack/freePlaces.ts';
import { describeParked, flatOf, moveShell, parkShells } from './layAfresh.ts';

/**
 * Moves shells to where nothing lies, the largest first: inside the tile where there is room, beside it where there is none.
 *
 * @param uv  of every corner; the places of those shells are written over
 * @returns what the artist should hear
 */
export function clearPlaces(document: HemDocument, uv: Float64Array, shells: readonly number[]): string[] {
  const boxes = shellBoxes(document, uv);
  const moved = new Set(shells);
  const others = Array.from({ length: shellsOf(document).shellCount }, (_, s) => s).filter(
    (s) => boxes[s] && !moved.has(s),
  );
  const sized = shells.flatMap((s) => {
    const box = boxes[s];
    return box ? [{ s, box, size: (box[2] - box[0]) * (box[3] - box[1]) }] : [];
  });
  sized.sort((a, b) => b.size - a.size || a.s - b.s);
  const places = freePlaces(
    flatOf(document, others, uv),
    sized.map(({ s }) => flatTriangles(document, s, uv)),
    document.tiles,
    sized.map(({ box }) => [box[0], box[1]] as const),
    'lowest',
  );
  const waiting: number[] = [];
  sized.forEach(({ s, box }, i) => {
    const place = places[i];
    if (place) moveShell(document, uv, s, 1, [place[0] - box[0], place[1] - box[1]]);
    else waiting.push(s);
  });
  if (waiting.length === 0) return [];
  parkShells(document, uv, waiting, shellBoxes(document, uv));
  return [describeParked(waiting.length)];
}
