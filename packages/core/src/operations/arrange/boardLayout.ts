import Flatbush from 'flatbush';
import { tidyTile } from '../../arrange/tidyTile.ts';
import { type HemDocument, shellsOf } from '../../document/document.ts';
import { flatTriangles, shellBoxes } from '../../document/layout.ts';
import { cornerUv, type UvChange, uvDifference } from '../../document/uvChange.ts';
import { shellsOverlap } from '../../measure/overlap.ts';
import type { Shell } from '../../surface/shell.ts';
import { facesOfShell } from '../../surface/shells.ts';
import { bestTurn, transformUv } from '../../surface/similarity.ts';
import { boxesMeet, boxOf, isOutside, type UvBox } from '../../surface/uvBox.ts';
import { plural } from '../operation.ts';

/** Left edge of where shells wait. */
const BESIDE = 1.03;

export interface BoardLayout {
  readonly change: UvChange;
  /** UV of every corner as it leaves them. */
  readonly corners: Float64Array;
  readonly notes: readonly string[];
}

/**
 * Where shells go that an act has laid flat anew. Until the artist has placed shells, all of them are laid out afresh, clear of one
 * another and inside the tile. From then on shells keep their places: one that has none, or would come to lie on another or outside
 * the tile although it did not before, waits beside it.
 *
 * @param uvOf  new UVs of shells, by number, where and as large as they would lie by themselves
 * @param firm  those of shells that must lie where they are given
 */
export function onBoard(
  document: HemDocument,
  uvOf: ReadonlyMap<number, Float64Array>,
  firm: ReadonlyMap<number, Float64Array> = new Map(),
): BoardLayout {
  const { mesh } = document.model;
  const old = document.uvSets[document.currentUv].uv;
  const next = cornerUv(document, new Map([...uvOf, ...firm]));
  if (!document.placed && uvOf.size > 0) layAfresh(document, next, firm);
  const waiting = document.placed || firm.size > 0 ? sendBeside(document, next, uvOf, firm) : 0;
  return {
    change: uvDifference(mesh, document.currentUv, old, next),
    corners: next,
    notes: waiting > 0 ? [beside(waiting)] : [],
  };
}

export const beside = (count: number): string =>
  `${plural(count, 'shell')} ${count === 1 ? 'does' : 'do'} not fit where ${count === 1 ? 'it' : 'they'} would lie and ${
    count === 1 ? 'waits' : 'wait'
  } beside the tile: move or pack ${count === 1 ? 'it' : 'them'}.`;

/** Lays all shells but the firm ones into the tile, at the scales they have to one another. */
export function layAfresh(
  document: HemDocument,
  uv: Float64Array,
  firm: ReadonlyMap<number, unknown> = new Map(),
): void {
  const boxes = shellBoxes(document, uv);
  const loose = [...boxes.keys()].filter((s) => boxes[s] && !firm.has(s));
  const { scale, moves } = tidyTile(loose.map((s) => boxes[s] as UvBox));
  loose.forEach((s, i) => {
    moveShell(document, uv, s, scale, moves[i]);
  });
}

/** Puts those of the new shells beside the tile that cannot lie where they do; tells how many. */
function sendBeside(
  document: HemDocument,
  uv: Float64Array,
  uvOf: ReadonlyMap<number, Float64Array>,
  firm: ReadonlyMap<number, unknown>,
): number {
  const before = shellBoxes(document);
  const boxes = shellBoxes(document, uv);
  const all = [...boxes.keys()].filter((s) => boxes[s]);
  const index = new Flatbush(Math.max(1, all.length), 16, Float64Array);
  if (all.length === 0) index.add(0, 0, 0, 0);
  for (const s of all) index.add(...(boxes[s] as UvBox));
  index.finish();
  const flats = new Map<string, Float64Array>();
  const flat = (s: number, of?: Float64Array) => {
    const key = `${s}${of ? '' : ' before'}`;
    const known = flats.get(key) ?? flatTriangles(document, s, of);
    flats.set(key, known);
    return known;
  };
  const lapped = (a: number, b: number): boolean => {
    const [one, other] = [before[a], before[b]];
    return Boolean(one && other && boxesMeet(one, other)) && shellsOverlap(flat(a), flat(b));
  };
  /** From the largest down, each giving way to those that stay and those before it. */
  const faces = (s: number) => facesOfShell(shellsOf(document), s).length;
  const moving = new Set(document.placed ? uvOf.keys() : all.filter((s) => !firm.has(s)));
  const waiting = new Set<number>();
  for (const s of [...moving].sort((a, b) => faces(b) - faces(a) || a - b)) {
    moving.delete(s);
    const [box, old] = [boxes[s], before[s]];
    if (!box) continue;
    const fits =
      (!document.placed || (old && (isOutside(old) || !isOutside(box)))) &&
      !index
        .search(...box)
        .map((i) => all[i])
        .some(
          (other) =>
            other !== s &&
            !moving.has(other) &&
            !waiting.has(other) &&
            boxesMeet(box, boxes[other] as UvBox) &&
            shellsOverlap(flat(s, uv), flat(other, uv)) &&
            !lapped(s, other),
        );
    if (!fits) waiting.add(s);
  }
  if (waiting.size > 0) stackBeside(document, uv, [...waiting], boxes);
  return waiting.size;
}

/** Shells in a block of their own right of the tile and of all that lies there, as large as they are. */
export function stackBeside(
  document: HemDocument,
  uv: Float64Array,
  waiting: readonly number[],
  boxes: readonly (UvBox | undefined)[],
): void {
  const { scale, moves } = tidyTile(waiting.map((s) => boxes[s] as UvBox));
  const size = 1 / scale;
  const others = boxes.filter((box, s): box is UvBox => box !== undefined && !waiting.includes(s));
  const isFree = !others.some((box) => boxesMeet(box, [BESIDE, 0, BESIDE + size, size]));
  const left = isFree ? BESIDE : Math.max(BESIDE, ...others.map((box) => box[2] + BESIDE - 1));
  waiting.forEach((s, i) => {
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

/**
 * A map at the texture scale of the rest, turned and moved to where its shell lies now; one that has no place yet stays as it is
 * turned and goes beside the tile.
 */
export function nearOldPlace(
  document: HemDocument,
  shell: Shell,
  uv: Float64Array,
  density: number,
): Float64Array {
  const { uv: old } = document.uvSets[document.currentUv];
  const before = new Float64Array(uv.length);
  shell.vertexCorner.forEach((c, v) => {
    before[2 * v] = old[2 * c];
    before[2 * v + 1] = old[2 * c + 1];
  });
  if (before.every(Number.isNaN)) {
    const upright = transformUv(uv, [density, 0, 0, density, 0, 0]);
    const [minU, minV] = boxOf(upright);
    return transformUv(upright, [1, 0, 0, 1, BESIDE - minU, -minV]);
  }
  return transformUv(uv, bestTurn(uv, before, density));
}
