import { HemError, StoppedError } from '../errors.ts';
import { type Context, heedStop, type StopSignal } from '../progress.ts';
import { aspectOf, frameOf, gapOf, type Tile } from '../surface/tiles.ts';

/** Triangles of one flat shell: UV of three corners each, `6 × triangleCount`. */
export type FlatShell = Float64Array;

export interface PackOptions {
  /** Its texture, and the least gap between shells and to its edge. */
  readonly tile: Tile;
  /** Whether shells may be turned by quarters. */
  readonly turning: 'quarter' | 'none';
  /** Scale that is not exceeded. */
  readonly most?: number;
}

/** Where a shell goes: turned by quarters anticlockwise about the origin, then scaled, then moved. */
export interface Placement {
  readonly quarterTurns: 0 | 1 | 2 | 3;
  readonly scale: number;
  readonly moveU: number;
  readonly moveV: number;
}

/** Columns in the height of the tile, in which outlines are compared. */
const COLUMNS = 512;

/**
 * Packs flat shells into a tile, all scaled alike, as large as they go: shells are dropped from above,
 * largest first, each where it wastes least, against the outline of those below (Lévy, Petitjean, Ray,
 * Maillot 2002, section 4.2). The common scale is found by bisection.
 *
 * @param shells  at the relative scales they shall keep
 * @returns a placement a shell, in order
 * @throws StoppedError
 */
export function packShells(
  shells: readonly FlatShell[],
  options: PackOptions,
  context: Context,
): Placement[] {
  const gap = gapOf(options.tile);
  const turns: readonly (0 | 1 | 2 | 3)[] = options.turning === 'quarter' ? [0, 1, 2, 3] : [0];
  const rooms = shells.map((shell) => {
    heedStop(context.signal);
    return turns.map((t) => turned(shell, t));
  });
  const order = shells.map((_, i) => i).sort((a, b) => rooms[b][0].longest - rooms[a][0].longest || a - b);

  const wide = aspectOf([options.tile]);
  if (rooms.length === 1) return inTile([aloneInTile(rooms[0], wide, options)], options.tile);

  const area = rooms.reduce((sum, [room]) => sum + room.area, 0);
  let high = Math.min(area > 0 ? Math.sqrt(wide / area) : 1, options.most ?? Infinity);
  let low = high;
  let best: Placement[] | undefined;
  // Shrink until it fits, then halve between what fits and what does not.
  const smallest = 1e-4 * high;
  while (!best && low > smallest && !context.signal.aborted) {
    context.report({ figure: (area * low * low) / wide });
    best = dropAll(rooms, turns, order, low, { gap, wide }, context.signal);
    if (!best) {
      high = low;
      low *= 0.8;
    }
  }
  if (!best)
    throw context.signal.aborted ? new StoppedError() : new TooMuchPaddingError(shells.length, options);
  while (high - low > 0.002 * high && !context.signal.aborted) {
    context.report({ figure: (area * low * low) / wide });
    const scale = 0.5 * (low + high);
    const placed = dropAll(rooms, turns, order, scale, { gap, wide }, context.signal);
    if (placed) {
      best = placed;
      low = scale;
    } else high = scale;
  }
  return inTile(best, options.tile);
}

/** Where they go in a tile that is not the first. */
function inTile(placements: Placement[], tile: Tile): Placement[] {
  const [left, low] = frameOf(tile);
  return placements.map((each) => ({ ...each, moveU: each.moveU + left, moveV: each.moveV + low }));
}

/** One shell fills the tile as far as its sides let it, turned where it is larger so. */
function aloneInTile(turns: readonly Room[], wide: number, options: PackOptions): Placement {
  const gap = gapOf(options.tile);
  const fits = ({ width, height }: Room): number =>
    Math.min((wide - 2 * gap) / (width || 1), (1 - 2 * gap) / (height || 1), options.most ?? Infinity);
  const room = turns.reduce((best, each) => (fits(each) > fits(best) ? each : best));
  const scale = fits(room);
  if (!(scale > 0)) throw new TooMuchPaddingError(1, options);
  return {
    quarterTurns: room.quarterTurns,
    scale,
    moveU: gap - room.minU * scale,
    moveV: gap - room.minV * scale,
  };
}

/** The gaps alone fill the tile. */
export class TooMuchPaddingError extends HemError {
  constructor(count: number, { tile: { width, height, padding } }: PackOptions) {
    super(
      'too-much-padding',
      `${count} shells with ${padding} px between them do not fit a tile of ${width} × ${height} px: lower the padding or raise the texture size.`,
    );
    this.name = 'TooMuchPaddingError';
  }
}

interface Room {
  readonly uv: FlatShell;
  readonly quarterTurns: 0 | 1 | 2 | 3;
  readonly minU: number;
  readonly minV: number;
  readonly width: number;
  readonly height: number;
  readonly longest: number;
  readonly area: number;
}

function turned(shell: FlatShell, quarterTurns: 0 | 1 | 2 | 3): Room {
  const uv = new Float64Array(shell.length);
  const c = [1, 0, -1, 0][quarterTurns];
  const s = [0, 1, 0, -1][quarterTurns];
  let [minU, minV, maxU, maxV, area] = [Infinity, Infinity, -Infinity, -Infinity, 0];
  for (let i = 0; i < uv.length; i += 2) {
    uv[i] = c * shell[i] - s * shell[i + 1];
    uv[i + 1] = s * shell[i] + c * shell[i + 1];
    minU = Math.min(minU, uv[i]);
    minV = Math.min(minV, uv[i + 1]);
    maxU = Math.max(maxU, uv[i]);
    maxV = Math.max(maxV, uv[i + 1]);
  }
  for (let i = 0; i < uv.length; i += 6) {
    area +=
      Math.abs(
        (uv[i + 2] - uv[i]) * (uv[i + 5] - uv[i + 1]) - (uv[i + 3] - uv[i + 1]) * (uv[i + 4] - uv[i]),
      ) / 2;
  }
  const [width, height] = [maxU - minU, maxV - minV];
  return { uv, quarterTurns, minU, minV, width, height, longest: Math.max(width, height), area };
}

/** Drops every shell at one scale; undefined when they do not fit below the top of the tile, or it was stopped. */
function dropAll(
  rooms: readonly (readonly Room[])[],
  turns: readonly number[],
  order: readonly number[],
  scale: number,
  { gap, wide }: { readonly gap: number; readonly wide: number },
  signal: StopSignal,
): Placement[] | undefined {
  const columns = Math.floor(COLUMNS * wide);
  const skyline = new Float64Array(columns).fill(gap);
  const placements = new Array<Placement>(rooms.length);
  for (const index of order) {
    if (signal.aborted) return undefined;
    let best: { waste: number; column: number; base: number; outline: Outline; room: Room } | undefined;
    for (let t = 0; t < turns.length; t++) {
      const room = rooms[index][t];
      if (room.width * scale > wide - 2 * gap || room.height * scale > 1 - 2 * gap) continue;
      const outline = outlineOf(room, scale, gap);
      const span = outline.bottom.length;
      const highest = 1 - gap - room.height * scale;
      for (let column = 0; column + span <= columns; column++) {
        const found = restOn(skyline, outline, column, highest, best?.waste ?? Infinity);
        if (found) best = { ...found, column, outline, room };
      }
    }
    if (!best) return undefined;
    const { room, outline, column, base } = best;
    for (let i = 0; i < outline.top.length; i++) {
      skyline[column + i] = Math.max(skyline[column + i], base + outline.top[i] + gap);
    }
    placements[index] = {
      quarterTurns: room.quarterTurns,
      scale,
      moveU: column / COLUMNS + gap - room.minU * scale,
      moveV: base - room.minV * scale,
    };
  }
  return placements;
}

interface Outline {
  /** Least and greatest v over each column the shell or its padding covers, above the shell's lowest point. */
  readonly bottom: Float64Array;
  readonly top: Float64Array;
  readonly height: number;
}

/** The shell begins one gap right of its first column, so that padding sideways is in the columns. */
function outlineOf(room: Room, scale: number, gap: number): Outline {
  const width = room.width * scale;
  const span = Math.max(1, Math.ceil((width + 2 * gap) * COLUMNS));
  const bottom = new Float64Array(span).fill(Infinity);
  const top = new Float64Array(span).fill(-Infinity);
  const { uv } = room;
  for (let i = 0; i < uv.length; i += 6) {
    for (let k = 0; k < 3; k++) {
      const p = i + 2 * k;
      const q = i + 2 * ((k + 1) % 3);
      let [u0, v0] = [(uv[p] - room.minU) * scale + gap, (uv[p + 1] - room.minV) * scale];
      let [u1, v1] = [(uv[q] - room.minU) * scale + gap, (uv[q + 1] - room.minV) * scale];
      if (u0 > u1) [u0, v0, u1, v1] = [u1, v1, u0, v0];
      coverColumns(bottom, top, u0, v0, u1, v1, gap);
    }
  }
  return { bottom, top, height: room.height * scale };
}

function coverColumns(
  bottom: Float64Array,
  top: Float64Array,
  u0: number,
  v0: number,
  u1: number,
  v1: number,
  gap: number,
): void {
  const from = Math.max(0, Math.floor((u0 - gap) * COLUMNS));
  const to = Math.min(bottom.length - 1, Math.floor((u1 + gap) * COLUMNS));
  for (let column = from; column <= to; column++) {
    // The part of the side within a gap of this column. Parts of a whole, not slopes: a side may be all but upright.
    const left = Math.min(u1, Math.max(u0, column / COLUMNS - gap));
    const right = Math.min(u1, Math.max(u0, (column + 1) / COLUMNS + gap));
    const vLeft = u1 > u0 ? v0 + ((left - u0) / (u1 - u0)) * (v1 - v0) : v0;
    const vRight = u1 > u0 ? v0 + ((right - u0) / (u1 - u0)) * (v1 - v0) : v1;
    bottom[column] = Math.min(bottom[column], vLeft, vRight);
    top[column] = Math.max(top[column], vLeft, vRight);
  }
}

/**
 * How low the outline can lie from this column on, and how much room it wastes: the gap below and its height.
 *
 * @param highest  the greatest base that is of use
 * @param least  the waste to stay under
 * @returns undefined when it lies too high or wastes too much
 */
function restOn(
  skyline: Float64Array,
  { bottom, height }: Outline,
  column: number,
  highest: number,
  least: number,
): { base: number; waste: number } | undefined {
  const width = bottom.length / COLUMNS;
  // Most places are ruled out by the first columns alone.
  const limit = Math.min(highest, least / width - height);
  let base = 0;
  for (let i = 0; i < bottom.length; i++) {
    const rest = skyline[column + i] - bottom[i];
    if (rest <= base) continue;
    base = rest;
    if (base > limit) return undefined;
  }
  let below = 0;
  for (let i = 0; i < bottom.length; i++) {
    if (bottom[i] < Infinity) below += base + bottom[i] - skyline[column + i];
  }
  const waste = below / COLUMNS + (base + height) * width;
  return waste < least ? { base, waste } : undefined;
}
