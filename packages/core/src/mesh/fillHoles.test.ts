import { describe, expect, it } from 'vitest';
import { sheet } from '../testing/shapes.ts';
import { connectivityOf } from './connectivity.ts';
import { fillHoles } from './fillHoles.ts';
import type { Mesh } from './mesh.ts';
import { faceNormal } from './normals.ts';

describe('small holes', () => {
  it('are filled by a face each, where they are wanted', () => {
    const plate = sheet(8, 8, (i, j) => [j, i, 0]);
    const gone = [9, 36, 37];
    const holed: Mesh = {
      ...plate,
      faceStart: plate.faceStart.slice(0, 65 - gone.length),
      cornerVertex: plate.cornerVertex.filter((_, c) => !gone.includes(Math.floor(c / 4))),
    };
    const lengths: number[] = [];
    const filled = fillHoles(holed, connectivityOf(holed), (loop) => {
      lengths.push(loop.length);
      return loop.length < 10;
    });
    expect(lengths.sort((a, b) => a - b)).toEqual([4, 6, 32]);
    expect(filled.faceStart.length - holed.faceStart.length).toBe(2);
    const { isInterior } = connectivityOf(filled);
    expect(isInterior.filter((j) => j === 0)).toHaveLength(32);
    // The new faces look the way of those round them.
    for (const f of [61, 62]) expect(faceNormal(filled, f)[2]).toBeGreaterThan(0);
    expect(fillHoles(holed, connectivityOf(holed), () => false)).toBe(holed);
  });
});
