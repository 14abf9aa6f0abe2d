import { isLocked } from '../../document/constraints.ts';
import { type HemDocument, shellOf, shellsOf, shellUv } from '../../document/document.ts';
import { hasGrain, turnedAlongGrain } from '../../document/grain.ts';
import { groupOf } from '../../document/groups.ts';
import { shellBoxes } from '../../document/layout.ts';
import { LockedError } from '../../document/locks.ts';
import { weightOfFaces } from '../../document/patchWeights.ts';
import { chosenShells, nameOfShell } from '../../document/shellChoice.ts';
import { HemError } from '../../errors.ts';
import { joinFlats } from '../../pack/freePlaces.ts';
import type { PackShell } from '../../pack/packShell.ts';
import { asItLies, type Placement, placedUv } from '../../pack/placement.ts';
import type { WhichShells } from '../../params.ts';
import { surfaceArea } from '../../surface/areas.ts';
import { coveredArea } from '../../surface/flatArea.ts';
import { facesOfShell } from '../../surface/shells.ts';
import type { UvBox } from '../../surface/uvBox.ts';
import type { Guest } from './homes.ts';
import { type Kind, kindOf } from './kinds.ts';

/** Angles by which shells may be turned, radians; those of a grain line were turned along it before. */
const TURNINGS = {
  none: [0],
  half: turns(2),
  quarter: turns(4),
  eighth: turns(8),
  free: 'free',
  grain: [0],
} as const satisfies Record<string, PackShell['turning']>;

function turns(count: number): readonly number[] {
  return Array.from({ length: count }, (_, i) => (2 * Math.PI * i) / count);
}

/** How it is to be packed. */
interface Given {
  readonly shells: WhichShells;
  readonly turning: keyof typeof TURNINGS;
  readonly equalDensity: boolean;
  readonly density?: number;
  readonly near: Kind | 'none';
  readonly start: 'afresh' | 'here';
}

/** One shell, or several that are kept together, at the scale it has to the others. */
export interface Packed extends PackShell, Guest {
  /** How much finer than the rest its texture is to be. */
  readonly weight: number;
  /** Each shell of it, and how many of its vertices are that one's. */
  readonly members: readonly { readonly s: number; readonly vertices: number }[];
  /** Where the middle of its box lies now, and the area that it takes. */
  readonly now: { readonly u: number; readonly v: number; readonly area: number };
}

export interface PackWork {
  readonly packed: readonly Packed[];
  /** What stays where it is. */
  readonly around: readonly Packed[];
  readonly boxes: readonly (UvBox | undefined)[];
}

/** What of a document is packed, and what stays. @throws HemError when there is nothing to pack */
export function packWork(document: HemDocument, given: Given): PackWork {
  const boxes = shellBoxes(document);
  const chosen = new Set(chosenShells(document, given.shells));
  const flat = [...boxes.keys()].filter((s) => boxes[s]);
  const locked = new Set(flat.filter((s) => isLocked(document, s)));
  const blocks = blocksOf(document, flat);
  // What is kept together goes where one of it does, and stays where one of it is locked.
  const packed = blocks.filter(
    (block) => block.some((s) => chosen.has(s)) && !block.some((s) => locked.has(s)),
  );
  if (packed.length === 0 && locked.size > 0)
    throw new LockedError([...locked].map((s) => nameOfShell(document, s)));
  if (packed.length === 0) throw new HemError('nothing-unfolded', 'Nothing to pack: unfold a shell first.');
  const isPacked = new Set(packed.flat());
  return {
    packed: packed.map((block) => scaled(document, laid(document, block), given)),
    around: flat.filter((s) => !isPacked.has(s)).map((s) => ({ ...laid(document, [s]), locked: true })),
    boxes,
  };
}

/** Shells that are kept together, each group a list; others by themselves. */
function blocksOf(document: HemDocument, shells: readonly number[]): number[][] {
  const groups = new Map<number, number[]>();
  for (const s of shells) {
    const key = groupOf(document, s) || -1 - s;
    const group = groups.get(key);
    if (group) group.push(s);
    else groups.set(key, [s]);
  }
  return [...groups.values()];
}

/** Shells as they lie, those of a block as one mesh. */
function laid(document: HemDocument, block: readonly number[]): Packed {
  const shells = block.map((s) => shellOf(document, s));
  const uvs = shells.map((shell) => shellUv(document, shell) as Float64Array);
  const members = block.map((s, i) => ({ s, vertices: uvs[i].length / 2 }));
  const areas = shells.map(({ positions, triangles }) => surfaceArea(positions, triangles));
  const area = areas.reduce((sum, each) => sum + each, 0);
  const weighted = block.reduce(
    (sum, s, i) => sum + areas[i] * weightOfFaces(document, facesOfShell(shellsOf(document), s)),
    0,
  );
  const weight = area > 0 ? weighted / area : 1;
  const own = { s: block[0], members, area, weight, turning: [0] };
  if (block.length === 1) return withPlace({ ...own, triangles: shells[0].triangles, uv: uvs[0] });
  let first = 0;
  const triangles = shells.map((shell, i) => {
    const numbered = shell.triangles.map((v) => v + first);
    first += members[i].vertices;
    return numbered;
  });
  return withPlace({
    ...own,
    triangles: Uint32Array.from(triangles.flatMap((list) => [...list])),
    uv: joinFlats(uvs),
  });
}

function withPlace(shell: Omit<Packed, 'now'>): Packed {
  const { u, v } = asItLies(shell.uv);
  return { ...shell, now: { u, v, area: coveredArea(shell.triangles, shell.uv) } };
}

/** What is packed, as it may be turned, at its size on the model where all come to one scale. */
function scaled(document: HemDocument, packed: Packed, given: Given): Packed {
  const { s, members, uv, area, weight, now } = packed;
  const isTurned = given.start === 'afresh';
  const isAlone = members.length === 1;
  // A grain line that was drawn is kept to however the others are turned.
  const turning = isAlone && hasGrain(document, s) ? 'grain' : given.turning;
  const turned =
    isTurned && turning === 'grain' && isAlone ? turnedAlongGrain(document, s, shellOf(document, s), uv) : uv;
  const isScaled = given.equalDensity || given.density !== undefined;
  const factor = isScaled && now.area > 0 && area > 0 ? weight * Math.sqrt(area / now.area) : 1;
  return {
    ...packed,
    uv: turned.map((x) => x * factor),
    turning: isTurned ? TURNINGS[turning] : TURNINGS.none,
    near: given.near === 'none' ? undefined : kindOf(document, s, given.near),
  };
}

/** Where shells lie now, all at the scale at which they take the room that they take now. */
export function placesNow(shells: readonly Packed[]): Placement[] {
  const taken = shells.reduce((sum, { now }) => sum + now.area, 0);
  const scale =
    Math.sqrt(taken / shells.reduce((sum, shell) => sum + coveredArea(shell.triangles, shell.uv), 0)) || 1;
  return shells.map(({ now: { u, v } }) => ({ u, v, angle: 0, scale }));
}

/** New UVs of each shell of what was packed. */
export function* placedMembers(
  { members, uv }: Packed,
  placement: Placement,
): Generator<[s: number, uv: Float64Array]> {
  const all = placedUv(uv, placement);
  let first = 0;
  for (const { s, vertices } of members) {
    yield [s, all.slice(first, first + 2 * vertices)];
    first += 2 * vertices;
  }
}

/** Flat length per length on the model of shells together. */
export function densityOf(shells: readonly Packed[]): number {
  const [area, flat] = shells.reduce(
    ([area, flat], shell) => [area + shell.area * shell.weight ** 2, flat + shell.now.area],
    [0, 0],
  );
  return area > 0 && flat > 0 ? Math.sqrt(flat / area) : 1;
}
