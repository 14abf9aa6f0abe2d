import { describe, expect, it } from 'vitest';
import { triangulate } from '../mesh/triangulate.ts';
import { sheet } from '../testing/shapes.ts';
import { alongOverAcross } from './alongOverAcross.ts';

describe('what is drawn out along or across', () => {
  const mesh = sheet(3, 4, (i, j) => [j, i, 0]);
  const { triangleCorners } = triangulate(mesh);
  const lay = (map: (x: number, y: number) => readonly [number, number]) =>
    Float64Array.from(
      [...mesh.cornerVertex].flatMap((v) => [...map(mesh.positions[3 * v], mesh.positions[3 * v + 1])]),
    );
  const all = (uv: Float64Array) => [...alongOverAcross(mesh, triangleCorners, uv)];

  it('is the ratio of the lengths of a step up and a step to the right', () => {
    // Half as high in the flat: what is painted there comes out twice as long.
    for (const each of all(lay((x, y) => [x, y / 2]))) expect(each).toBeCloseTo(Math.log(2), 6);
    for (const each of all(lay((x, y) => [x / 3, y]))) expect(each).toBeCloseTo(-Math.log(3), 6);
    for (const each of all(lay((x, y) => [5 * x, 5 * y]))) expect(each).toBeCloseTo(0, 6);
  });

  it('goes by the texture, however the model stands', () => {
    for (const each of all(lay((x, y) => [-y / 2, x]))) expect(each).toBeCloseTo(-Math.log(2), 6);
  });

  it('takes a shear for what it does to both steps', () => {
    // A step up leans by as much as it is high: √2 of its length.
    for (const each of all(lay((x, y) => [x - y, y]))) expect(each).toBeCloseTo(Math.log(2) / 2, 6);
  });

  it('is unknown without UVs and without area', () => {
    expect(all(lay(() => [NaN, NaN])).every(Number.isNaN)).toBe(true);
    expect(all(lay((x) => [x, 0])).every(Number.isNaN)).toBe(true);
  });
});
