import { describe, expect, it } from 'vitest';
import { distancesAlong, meanLength } from './dashes.ts';

describe('dashes', () => {
  it('measure on over short lines, turned round where that joins them', () => {
    const positions = Float32Array.of(1, 0, 0, 0, 0, 0, 3, 0, 0, 1, 0, 0, 3, 0, 0, 3, 4, 0, 9, 9, 0, 9, 8, 0);
    const distances = distancesAlong(positions, (line) => line === 3);
    expect([...distances]).toEqual([0, 1, 1, 3, 3, 7, 0, 1]);
    expect([...positions.subarray(0, 12)]).toEqual([0, 0, 0, 1, 0, 0, 1, 0, 0, 3, 0, 0]);
    expect(meanLength(positions)).toBe(2);
  });
});
