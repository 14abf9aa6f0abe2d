import { describe, expect, it } from 'vitest';
import {
  acrossTimes,
  aspectOf,
  FIRST_TILE,
  frameOf,
  frameOfAll,
  gapOf,
  isOutside,
  nextNumber,
  placeOfTile,
  texelsAt,
  tileOf,
  tilesAround,
  tilesShape,
  toFile,
} from './tiles.ts';

const tile = (number: number, width = 2048, height = 2048) => ({ number, width, height, padding: 8 });

describe('tiles', () => {
  // The open UDIM convention: 1001 + column + 10 × row, ten columns. From memory; the numbers are widely published.
  it.each([
    [1001, 0, 0],
    [1010, 9, 0],
    [1011, 0, 1],
    [1025, 4, 2],
  ])('%i lies in column %i of row %i', (number, column, row) => {
    expect(placeOfTile({ number })).toEqual([column, row]);
    expect(frameOf(tile(number))).toEqual([column, row, column + 1, row + 1]);
    expect(
      tileOf([tile(1001), tile(number)], [column + 0.4, row + 0.4, column + 0.6, row + 0.6])?.number,
    ).toBe(number);
  });

  it('are as wide as their texture is for its height', () => {
    const wide = [tile(1001, 4096), tile(1002, 2048, 1024)];
    expect(aspectOf(wide)).toBe(2);
    expect(frameOf(wide[1])).toEqual([2, 0, 4, 1]);
    expect(frameOfAll([...wide, tile(1021, 4096)])).toEqual([0, 0, 4, 3]);
    expect(gapOf(wide[1])).toBe(8 / 1024);
    expect(texelsAt(wide, [2.1, 0, 3, 1])).toBe(1024);
    expect(texelsAt(wide, [9, 9, 9.5, 9.5])).toBe(2048);
    expect(texelsAt(wide, undefined)).toBe(2048);
    // Files tell u from 0 to 1 across a tile.
    expect([...toFile(Float64Array.of(2, 0.5, 4, 1), wide)]).toEqual([1, 0.5, 2, 1]);
    const uv = Float64Array.of(0.1, 0.2);
    expect(toFile(uv, [FIRST_TILE])).toBe(uv);
    expect([...acrossTimes(uv, 3)].map((x) => Number(x.toFixed(9)))).toEqual([0.3, 0.2]);
  });

  it('hold what lies wholly in one of them', () => {
    const tiles = [tile(1001), tile(1003)];
    expect(isOutside(tiles, [0, 0, 1, 1])).toBe(false);
    expect(isOutside(tiles, [2, 0, 3 + 1e-12, 1])).toBe(false);
    expect(isOutside(tiles, [1, 0, 2, 1])).toBe(true);
    expect(isOutside(tiles, [0.5, 0, 1.2, 1])).toBe(true);
    expect(isOutside(tiles, [-0.9, 0, -0.5, 1])).toBe(true);
    expect(isOutside(tiles, [10, 0, 10.5, 1])).toBe(true);
    expect(nextNumber(tiles)).toBe(1002);
  });

  it('are found where whole shells lie', () => {
    const numbers = (...boxes: ([number, number, number, number] | undefined)[]) =>
      tilesAround(boxes).map(({ number }) => number);
    expect(numbers([0.1, 0.1, 0.9, 0.9], undefined, [1.1, 2.2, 1.9, 2.9])).toEqual([1001, 1022]);
    // What reaches over asks for no tile, nor what lies where the convention has none.
    expect(numbers([0.5, 0, 1.5, 1])).toEqual([1001]);
    expect(numbers([-1, 0, -0.5, 1], [10.2, 0.2, 10.4, 0.4])).toEqual([1001]);
    expect(numbers()).toEqual([1001]);
  });

  it('of one set have textures of one shape, and each its own number', () => {
    const error = (...tiles: object[]) => tilesShape.validate(tiles).error?.message;
    expect(error(tile(1001), tile(1002, 1024, 1024))).toBeUndefined();
    expect(tilesShape.validate([tile(1012), tile(1001)]).value[0].number).toBe(1001);
    expect(error(tile(1001), tile(1002, 1024))).toMatch(/one shape/);
    expect(error(tile(1001), tile(1001))).toMatch(/duplicate/);
    expect(error(tile(1000))).toMatch(/1001/);
    expect(error()).toMatch(/at least 1/);
  });
});
