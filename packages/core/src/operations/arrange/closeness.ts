import Flatbush from 'flatbush';
import { current, type HemDocument, shellsOf } from '../../document/document.ts';
import { flatTriangles, shellBoxes } from '../../document/layout.ts';
import { flatBorder } from '../../document/nearShells.ts';
import { nearGroups } from '../../measure/nearness.ts';
import { shellsOverlap } from '../../measure/overlap.ts';
import { plural } from '../../plural.ts';
import { facesOfShell } from '../../surface/shells.ts';
import { gapOf, isOutside, tileOf, tooNearAt } from '../../surface/tiles.ts';
import type { UvBox } from '../../surface/uvBox.ts';

/** How shells have come nearer to one another. */
export interface Closeness {
  hadPlace(shell: number): boolean;
  wasOutside(shell: number): boolean;
  /** Whether a shell has come to lie on another, or too near to it, and did not before. */
  growsCloser(shell: number, counts: (other: number) => boolean): boolean;
  /** All others of which that is so. */
  closerTo(shell: number, counts?: (other: number) => boolean): number[];
}

/**
 * How shells lie to one another in a document, and how they would with other UVs.
 *
 * @param uv  of every corner
 * @param boxes  of shells with those
 */
export function closeness(
  document: HemDocument,
  uv: Float64Array,
  boxes: readonly (UvBox | undefined)[] = shellBoxes(document, uv),
): Closeness {
  const { tiles } = document;
  const widest = Math.max(...tiles.map(gapOf));
  const gapAt = (s: number) => tooNearAt(tileOf(tiles, boxes[s] as UvBox) ?? tiles[0]);
  const { uv: old } = current(document);
  const before = shellBoxes(document);
  const all = [...boxes.keys()].filter((s) => boxes[s]);
  const index = new Flatbush(Math.max(1, all.length), 16, Float64Array);
  if (all.length === 0) index.add(0, 0, 0, 0);
  for (const s of all) index.add(...(boxes[s] as UvBox));
  index.finish();
  const [now, then] = [shapes(document, uv), shapes(document, old)];
  /** 0 for clear of each other, 1 for too near, 2 for lying on each other. */
  const nearness = ({ flat, border }: Shapes, a: number, b: number): number => {
    if (shellsOverlap(flat(a), flat(b))) return 2;
    const [p, q] = [border(a), border(b)];
    const segments = new Float64Array(p.length + q.length);
    segments.set(p);
    segments.set(q, p.length);
    const groups = new Uint32Array(segments.length / 4).fill(1, p.length / 4);
    return nearGroups(segments, groups, gapAt(a)).length > 0 ? 1 : 0;
  };
  /** What was sewn and not laid anew yet is drawn out between its old places: that it lies on others so is no excuse. */
  const isStale = (s: number): boolean => document.stale[facesOfShell(shellsOf(document), s)[0]] === 1;
  const isCloser = (a: number, b: number): boolean => {
    const close = nearness(now, a, b);
    if (close === 0 || !before[a] || !before[b]) return close > 0;
    const most = isStale(a) || isStale(b) ? 1 : 2;
    return close > Math.min(most, nearness(then, a, b));
  };
  const around = (s: number): number[] => {
    if (!boxes[s]) return [];
    const [minU, minV, maxU, maxV] = boxes[s];
    return index
      .search(minU - widest, minV - widest, maxU + widest, maxV + widest)
      .map((i) => all[i])
      .filter((other) => other !== s);
  };
  return {
    hadPlace: (s) => before[s] !== undefined,
    wasOutside: (s) => before[s] !== undefined && isOutside(tiles, before[s] as UvBox),
    growsCloser: (s, counts) => around(s).some((other) => counts(other) && isCloser(s, other)),
    closerTo: (s, counts = () => true) => around(s).filter((other) => counts(other) && isCloser(s, other)),
  };
}

interface Shapes {
  flat(shell: number): Float64Array;
  border(shell: number): Float64Array;
}

/** Triangles and borders of shells as they lie, each worked out once. */
function shapes(document: HemDocument, uv: Float64Array): Shapes {
  const remembered = (find: (s: number) => Float64Array) => {
    const known = new Map<number, Float64Array>();
    return (s: number): Float64Array => {
      const found = known.get(s) ?? find(s);
      known.set(s, found);
      return found;
    };
  };
  return {
    flat: remembered((s) => flatTriangles(document, s, uv)),
    border: remembered((s) => flatBorder(document, s, uv)),
  };
}

/** What is said of shells that lie where they were put, on others or too near to them. */
export function toldLanded(close: Closeness, shells: readonly number[]): string[] {
  const landed = shells.filter((s) => close.growsCloser(s, () => true));
  if (landed.length === 0) return [];
  return [
    `${plural(landed.length, 'shell')} ${landed.length === 1 ? 'has' : 'have'} come to lie on another, or too near to it.`,
  ];
}
