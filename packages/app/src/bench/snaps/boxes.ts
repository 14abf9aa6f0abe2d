import { frameOf, gapOf } from '@blunt-hem/core/surface/tiles';
import type { UvBox } from '@blunt-hem/core/surface/uvBox';
import type { Hold, Moved, Snap } from './snap.ts';

/** Which line of a box: its lower side, its middle or its upper side. */
type Of = 0 | 1 | 2;

const placeOf = (box: UvBox, axis: 0 | 1, of: Of): number => ((2 - of) * box[axis] + of * box[axis + 2]) / 2;

/** Brings a line of a box onto a line that runs from one place to another along the other axis. */
function onLine(
  { box }: Moved,
  axis: 0 | 1,
  of: Of,
  at: number,
  what: string,
  from: number,
  to: number,
): Hold {
  const by = at - placeOf(box, axis, of);
  const across = 1 - axis;
  const [low, high] = [Math.min(from, box[across]), Math.max(to, box[across + 2])];
  return {
    by: axis === 0 ? [by, 0] : [0, by],
    far: Math.abs(by),
    guide: axis === 0 ? [at, low, at, high] : [low, at, high, at],
    what,
  };
}

/** The padding and the middle of the tile. */
export const tile: Snap = {
  name: 'tile',
  label: 'Tile',
  *lines(moved, axis) {
    const frame = frameOf(moved.tile);
    const gap = gapOf(moved.tile);
    const [from, to] = [frame[1 - axis], frame[3 - axis]];
    yield onLine(moved, axis, 0, frame[axis] + gap, 'padding of the tile', from, to);
    yield onLine(moved, axis, 2, frame[axis + 2] - gap, 'padding of the tile', from, to);
    yield onLine(moved, axis, 1, (frame[axis] + frame[axis + 2]) / 2, 'middle of the tile', from, to);
  },
};

/** Sides and middles of the boxes of other shells, and the padding beside them. */
export const boxes: Snap = {
  name: 'boxes',
  label: 'Boxes of shells',
  *lines(moved, axis) {
    const gap = gapOf(moved.tile);
    for (const other of moved.others) {
      const [from, to] = [other[1 - axis], other[3 - axis]];
      yield onLine(moved, axis, 0, other[axis + 2] + gap, 'padding of a shell', from, to);
      yield onLine(moved, axis, 2, other[axis] - gap, 'padding of a shell', from, to);
      yield onLine(moved, axis, 0, other[axis], 'side of a shell', from, to);
      yield onLine(moved, axis, 2, other[axis + 2], 'side of a shell', from, to);
      yield onLine(moved, axis, 1, (other[axis] + other[axis + 2]) / 2, 'middle of a shell', from, to);
    }
  },
};

/** Parts of the height of a tile at which the grid has its lines. */
const GRID = 8;

function* rounded(moved: Moved, axis: 0 | 1, step: number, what: string): Generator<Hold> {
  for (const of of [0, 2] as const) {
    const at = Math.round(placeOf(moved.box, axis, of) / step) * step;
    yield onLine(moved, axis, of, at, what, moved.box[1 - axis], moved.box[3 - axis]);
  }
}

/** Eighths of the tile. */
export const grid: Snap = {
  name: 'grid',
  label: 'Grid of eighths',
  lines: (moved, axis) => rounded(moved, axis, 1 / GRID, 'grid'),
};

/** Whole texels: the lower left corner of the box lies between two. */
export const texels: Snap = {
  name: 'texels',
  label: 'Whole texels',
  *lines(moved, axis) {
    // Texels are square: the height of the texture tells both ways.
    const [lower] = rounded(moved, axis, 1 / moved.tile.height, 'texel');
    yield lower;
  },
};
