import { pinsOf, staysOf } from '../../document/constraints.ts';
import { type HemDocument, shellUv } from '../../document/document.ts';
import { HemError } from '../../errors.ts';
import { distance } from '../../mesh/distance.ts';
import { surfaceArea } from '../../surface/areas.ts';
import type { Shell } from '../../surface/shell.ts';
import { transformUv } from '../../surface/similarity.ts';
import type { UnfoldOptions } from '../../unfold/unfold.ts';
import { findInShells, type Pin, type StayChain } from './handles.ts';

/** What a shell was asked, in model units, and tile units per model unit. */
export interface Wish {
  readonly options: UnfoldOptions;
  readonly density: number;
  /** Shell vertices and places of its pins, as they were given. */
  readonly pins: readonly (readonly [vertex: number, u: number, v: number])[];
}

/** What shells are asked to meet: pins and stays that are given, and those that last. */
export function wishesOf(
  document: HemDocument,
  shells: ReadonlyMap<number, Shell>,
  known: number | undefined,
  pins: readonly Pin[],
  stays: readonly StayChain[],
): Map<number, Wish> {
  const given = new Map<number, Wish['pins']>();
  for (const { vertex, face, uv } of pins) {
    const { shell, vertices } = findInShells(document, shells, [vertex], face);
    given.set(shell, [...(given.get(shell) ?? []), [vertices[0], ...uv]]);
  }
  const straight = new Map<number, Uint32Array[]>();
  for (const [s] of shells) {
    const lasting = staysOf(document, s).map(({ vertices }) => Uint32Array.from(vertices));
    if (lasting.length > 0) straight.set(s, lasting);
  }
  for (const { vertices, face } of stays) {
    const found = findInShells(document, shells, vertices, face);
    straight.set(found.shell, [...(straight.get(found.shell) ?? []), found.vertices]);
  }
  const wishes = new Map<number, Wish>();
  for (const [s, shell] of shells) {
    const own = [...(given.get(s) ?? []), ...lastingPins(document, shell, given.get(s) ?? [])];
    if (own.length === 0 && !straight.has(s)) continue;
    checkApart(own);
    const density = known ?? densityFrom(shells.get(s) as Shell, own);
    const options: UnfoldOptions = {
      stays: straight.get(s),
      pins:
        own.length > 0
          ? { vertices: own.map(([v]) => v), uv: own.flatMap(([, u, v]) => [u / density, v / density]) }
          : undefined,
    };
    wishes.set(s, { options, density, pins: own });
  }
  return wishes;
}

function checkApart(pins: Wish['pins']): void {
  const taken = new Set<string>();
  for (const [, u, v] of pins) {
    const place = `${u} ${v}`;
    if (taken.has(place))
      throw new HemError('pins-at-one-place', 'Two pins cannot lie at one place: move one of them.');
    taken.add(place);
  }
}

/** Places that are pinned where they lie, but for those that are asked elsewhere. */
function lastingPins(document: HemDocument, shell: Shell, asked: Wish['pins']): Wish['pins'] {
  const uv = shellUv(document, shell);
  const moved = new Set(asked.map(([v]) => v));
  return uv
    ? pinsOf(document, shell).flatMap((v) => (moved.has(v) ? [] : [[v, uv[2 * v], uv[2 * v + 1]] as const]))
    : [];
}

/** The density two pins ask for, or one that lets the shell fill a good part of the tile. */
function densityFrom({ positions, triangles }: Shell, pins: Wish['pins']): number {
  if (pins.length > 1) {
    const [[a, au, av], [b, bu, bv]] = pins;
    const density = Math.hypot(au - bu, av - bv) / distance(positions, a, b);
    if (density > 0 && Number.isFinite(density)) return density;
  }
  return 0.5 / Math.sqrt(surfaceArea(positions, triangles) || 1);
}

/** From model units to the tile, with pins on the very numbers they were given. */
export function toTile(uv: Float64Array, { density, pins }: Wish): Float64Array {
  const tile = transformUv(uv, [density, 0, 0, density, 0, 0]);
  for (const [vertex, u, v] of pins) {
    tile[2 * vertex] = u;
    tile[2 * vertex + 1] = v;
  }
  return tile;
}
