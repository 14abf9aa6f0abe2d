import Joi from 'joi';
import type { UvBox } from './uvBox.ts';

/**
 * Tiles of a UV set. UVs of a document are told in heights of a tile, so that a texel is as wide as it is high whatever the shape of the
 * texture: a tile is 1 high and `aspectOf` wide. Files tell both from 0 to 1; see `toFile`.
 */

/** One tile, and the texture that lies on it. */
export interface Tile {
  /** 1001 + column + 10 × row, columns 0 to 9, as the open UDIM convention counts them. */
  readonly number: number;
  /** Size of the texture, texels. */
  readonly width: number;
  readonly height: number;
  /** How far shells should be apart on it, texels. */
  readonly padding: number;
}

const FIRST_NUMBER = 1001;
const COLUMNS = 10;
const LAST_NUMBER = 9999;
/** Most tiles that a UV set has. */
export const MOST_TILES = 400;
/** Both ends of a gap are off by as much at most, in a file of six digits. */
const SIX_DIGITS = 2e-6;
/** What leaves a tile by less is rounding. */
const ROUNDING = 1e-9;

/** The tile of a UV set of which nothing is known. */
export const FIRST_TILE: Tile = { number: FIRST_NUMBER, width: 2048, height: 2048, padding: 8 };

/** Tiles of one UV set: at least one, their textures of one shape, in the order of their numbers. */
export const tilesShape = Joi.array()
  .min(1)
  .max(MOST_TILES)
  .unique('number')
  .items(
    Joi.object({
      number: Joi.number().integer().min(FIRST_NUMBER).max(LAST_NUMBER).required(),
      width: Joi.number().integer().min(16).max(65_536).required(),
      height: Joi.number().integer().min(16).max(65_536).required(),
      padding: Joi.number().min(0).max(512).required(),
    }),
  )
  .custom((tiles: Tile[], helpers) =>
    tiles.every((tile) => tile.width * tiles[0].height === tile.height * tiles[0].width)
      ? tiles.toSorted((a, b) => a.number - b.number)
      : helpers.message({ custom: 'textures of one UV set have one shape: all as wide for their height' }),
  )
  .required();

/** Width of every tile for its height. */
export const aspectOf = ([{ width, height }]: readonly Tile[]): number => width / height;

/** How far shells should be apart on a tile, in heights of it. */
export const gapOf = ({ padding, height }: Pick<Tile, 'padding' | 'height'>): number => padding / height;

/** “2048”, or “4096 × 2048” of a texture that is not square. */
export const sizeInWords = ({ width, height }: Pick<Tile, 'width' | 'height'>): string =>
  width === height ? `${height}` : `${width} × ${height}`;

/** Shells nearer than this, heights of a tile, are too near: what six digits of a file lose of the gap is put up with. */
export const tooNearAt = (tile: Pick<Tile, 'padding' | 'height'>): number => gapOf(tile) - SIX_DIGITS;

/** Column and row of a tile. */
export const placeOfTile = ({ number }: Pick<Tile, 'number'>): readonly [column: number, row: number] => [
  (number - FIRST_NUMBER) % COLUMNS,
  Math.floor((number - FIRST_NUMBER) / COLUMNS),
];

/** Where a tile lies. */
export function frameOf(tile: Tile): UvBox {
  const [column, row] = placeOfTile(tile);
  const width = aspectOf([tile]);
  return [column * width, row, (column + 1) * width, row + 1];
}

/** Where all tiles lie together. */
export function frameOfAll(tiles: readonly Tile[]): UvBox {
  const frames = tiles.map(frameOf);
  return [
    Math.min(...frames.map(([left]) => left)),
    Math.min(...frames.map(([, low]) => low)),
    Math.max(...frames.map(([, , right]) => right)),
    Math.max(...frames.map(([, , , high]) => high)),
  ];
}

/** The tile in which the middle of a box lies; undefined where there is none. */
export function tileOf(tiles: readonly Tile[], [minU, minV, maxU, maxV]: UvBox): Tile | undefined {
  const [u, v] = [(minU + maxU) / 2, (minV + maxV) / 2];
  const number = numberAt(Math.floor(u / aspectOf(tiles)), Math.floor(v));
  return tiles.find((tile) => tile.number === number);
}

/** Texels of a height of the tile in which a box lies, or would: those of the first where it lies in none. */
export const texelsAt = (tiles: readonly Tile[], box: UvBox | undefined): number =>
  ((box && tileOf(tiles, box)) ?? tiles[0]).height;

/** Whether a box leaves every tile by more than rounding. */
export function isOutside(tiles: readonly Tile[], box: UvBox): boolean {
  const tile = tileOf(tiles, box);
  return !tile || leaves(frameOf(tile), box);
}

const leaves = (frame: UvBox, box: UvBox): boolean =>
  box[0] < frame[0] - ROUNDING ||
  box[1] < frame[1] - ROUNDING ||
  box[2] > frame[2] + ROUNDING ||
  box[3] > frame[3] + ROUNDING;

/** The number of a tile; undefined where the convention has none. */
function numberAt(column: number, row: number): number | undefined {
  if (column < 0 || column >= COLUMNS || row < 0) return undefined;
  const number = FIRST_NUMBER + column + COLUMNS * row;
  return number > LAST_NUMBER ? undefined : number;
}

/** The next number that a set of tiles has not. */
export function nextNumber(tiles: readonly Tile[]): number {
  const taken = new Set(tiles.map(({ number }) => number));
  let number = FIRST_NUMBER;
  while (taken.has(number)) number++;
  return number;
}

/** The tiles in which whole shells lie, or the first where there are none. What lies across several asks for none. */
export function tilesAround(boxes: Iterable<UvBox | undefined>): readonly Tile[] {
  const numbers = new Set<number>();
  for (const box of boxes) {
    if (!box) continue;
    const number = numberAt(Math.floor((box[0] + box[2]) / 2), Math.floor((box[1] + box[3]) / 2));
    if (number !== undefined && !leaves(frameOf({ ...FIRST_TILE, number }), box)) numbers.add(number);
  }
  if (numbers.size === 0 || numbers.size > MOST_TILES) return [FIRST_TILE];
  return [...numbers].sort((a, b) => a - b).map((number) => ({ ...FIRST_TILE, number }));
}

/** UVs as files have them, of those of a document: the same list where the texture is square. */
export const toFile = (uv: Float64Array, tiles: readonly Tile[]): Float64Array =>
  acrossTimes(uv, 1 / aspectOf(tiles));

/** UVs with every u times a factor. */
export const acrossTimes = (uv: Float64Array, factor: number): Float64Array =>
  factor === 1 ? uv : uv.map((x, i) => (i % 2 === 0 ? x * factor : x));
