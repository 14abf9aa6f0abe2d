import { describe, expect, it } from 'vitest';
import { inWords } from './reading.ts';
import { worstPlaces } from './worstPlaces.ts';

/** Triangles in a row, so many of the tile from one to the next. */
const row = (count: number, step: number) => ({
  triangleFace: Uint32Array.from({ length: count }, (_, t) => t),
  uv: Float32Array.from({ length: 6 * count }, (_, i) => (i % 2 === 0 ? step * Math.floor(i / 6) : 0)),
});

describe('worst places', () => {
  it('come by how bad they are, either way, each a way from the others', () => {
    const { triangleFace, uv } = row(8, 0.05);
    const values = Float32Array.from([0.1, 0.5, 0.45, 0, 0, -0.9, -0.8, 0.02]);
    const found = worstPlaces({ triangleFace }, { uv }, values, (value) => 0.5 - 0.5 * value);
    // The neighbours of the two worst are passed over; the last is even enough.
    expect(found.map(({ faces }) => faces[0])).toEqual([5, 1]);
    expect(found[0].told('area')).toBe('2.46 × too little room');
    expect(found[1].told('area')).toBe('1.65 × too much room');
    expect(worstPlaces({ triangleFace }, { uv }, new Float32Array(8), (v) => v)).toEqual([]);
  });
});

describe('the reading of a face', () => {
  it('is what Tissot says of known maps', () => {
    expect(inWords(0, 0)).toBe('Texture as large as it should be, square');
    // Twice the length both ways has four times the room: half as large on the model.
    expect(inWords(Math.log(4), 0)).toBe('Texture 2.00 × too small (4.00 × less area), square');
    // Twice as long one way: sin (ω / 2) = 1 / 3, so that ω = 38.94° (Snyder 1987, p. 21).
    expect(inWords(-Math.log(2), 38.9424)).toBe(
      'Texture 1.41 × too large (2.00 × the area), 2.00 × longer one way, 39° off square',
    );
  });
});
