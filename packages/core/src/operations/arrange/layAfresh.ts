import { constrainedShells } from '../../document/constraints.ts';
import { type HemDocument, shellsOf } from '../../document/document.ts';
import { flatTriangles, shellBoxes } from '../../document/layout.ts';
import { joinFlats, shrunkPlaces } from '../../pack/freePlaces.ts';
import { tidyTile } from '../../pack/tidyTile.ts';
import { plural } from '../../plural.ts';
import { facesOfShell } from '../../surface/shells.ts';
import { frameOfAll } from '../../surface/tiles.ts';
import { boxesMeet, type UvBox } from '../../surface/uvBox.ts';

/** How far right of the tiles shells wait. */
const AWAY = 0.03;

/** Left edge of where shells wait. */
export const parkingU = ({ tiles }: Pick<HemDocument, 'tiles'>): number => frameOfAll(tiles)[2] + AWAY;

export const describeParked = (count: number): string =>
  `${plural(count, 'shell')} ${count === 1 ? 'does' : 'do'} not fit where ${count === 1 ? 'it' : 'they'} would lie and ${
    count === 1 ? 'waits' : 'wait'
  } beside the tile: move or pack ${count === 1 ? 'it' : 'them'}.`;

/**
 * Lays all shells that nothing holds into the first tile, at the scales they have to one another, round those that are held.
 *
 * @param uv  of every corner; the places of those shells are written over
 * @param firmShells  besides those that are pinned or locked
 * @returns what the artist should hear
 */
export function layAfresh(
  document: HemDocument,
  uv: Float64Array,
  firmShells: Iterable<number> = [],
): string[] {
  const boxes = shellBoxes(document, uv);
  const firm = new Set([...constrainedShells(document), ...firmShells]);
  const loose = [...boxes.keys()].filter((s) => boxes[s] && !firm.has(s));
  const staying = [...firm].filter((s) => boxes[s]);
  if (staying.length > 0) return layRound(document, uv, loose, staying);
  const { scale, moves } = tidyTile(
    loose.map((s) => boxes[s] as UvBox),
    document.tiles[0],
  );
  loose.forEach((s, i) => {
    moveShell(document, uv, s, scale, moves[i]);
  });
  return [];
}

/** Lays shells round others that stay, at the scale of the rest or, where they do not fit so, all smaller alike. */
export function layRound(
  document: HemDocument,
  uv: Float64Array,
  loose: readonly number[],
  staying: readonly number[],
  tiles = document.tiles,
): string[] {
  const boxes = shellBoxes(document, uv);
  const order = loose
    .map((s) => ({ s, box: boxes[s] as UvBox }))
    .sort((a, b) => sizeOf(b.box) - sizeOf(a.box) || a.s - b.s);
  const found = shrunkPlaces(
    flatOf(document, staying, uv),
    order.map(({ s }) => flatTriangles(document, s, uv)),
    tiles,
  );
  if (!found) {
    parkShells(document, uv, loose, boxes);
    return [describeParked(loose.length)];
  }
  const { scale, places } = found;
  order.forEach(({ s, box }, i) => {
    moveShell(document, uv, s, scale, [places[i][0] - scale * box[0], places[i][1] - scale * box[1]]);
  });
  return scale > 0.99 || loose.length === 0
    ? []
    : [
        `${plural(loose.length, 'shell')} had to be laid at ${Math.round(100 * scale)} % of their size to fit beside what is held.`,
      ];
}

const sizeOf = ([a, b, c, d]: UvBox): number => (c - a) * (d - b);

/** Triangles of shells as they lie, `6 × triangleCount`. */
export function flatOf(document: HemDocument, shells: readonly number[], uv: Float64Array): Float64Array {
  return joinFlats(shells.map((s) => flatTriangles(document, s, uv)));
}

/** Shells in a block of their own right of the tiles and of all that lies there, as large as they are. */
export function parkShells(
  document: HemDocument,
  uv: Float64Array,
  parked: readonly number[],
  boxes: readonly (UvBox | undefined)[],
): void {
  const { scale, moves } = tidyTile(parked.map((s) => boxes[s] as UvBox));
  const size = 1 / scale;
  const beside = parkingU(document);
  const isParked = new Set(parked);
  const others = boxes.filter((box, s): box is UvBox => box !== undefined && !isParked.has(s));
  const isFree = !others.some((box) => boxesMeet(box, [beside, 0, beside + size, size]));
  const left = isFree ? beside : others.reduce((most, box) => Math.max(most, box[2] + AWAY), beside);
  parked.forEach((s, i) => {
    moveShell(document, uv, s, 1, [left + moves[i][0] * size, moves[i][1] * size]);
  });
}

/** Scales a shell about the origin and moves it. */
export function moveShell(
  document: HemDocument,
  uv: Float64Array,
  shell: number,
  scale: number,
  [mu, mv]: readonly [number, number],
): void {
  const { faceStart } = document.model.mesh;
  for (const f of facesOfShell(shellsOf(document), shell)) {
    for (let c = faceStart[f]; c < faceStart[f + 1]; c++) {
      uv[2 * c] = scale * uv[2 * c] + mu;
      uv[2 * c + 1] = scale * uv[2 * c + 1] + mv;
    }
  }
}
