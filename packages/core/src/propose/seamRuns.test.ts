import { describe, expect, it } from 'vitest';
import { connectivityOf } from '../mesh/connectivity.ts';
import { sheet } from '../testing/shapes.ts';
import { seamRuns } from './seamRuns.ts';

describe('runs of seams', () => {
  const mesh = sheet(6, 6, (i, j) => [j, i, 0]);
  const connectivity = connectivityOf(mesh);
  const row = (i: number, from: number, to: number) =>
    [...connectivity.isInterior.keys()].filter((e) => {
      const [a, b] = [connectivity.edgeVertices[2 * e], connectivity.edgeVertices[2 * e + 1]];
      return Math.floor(a / 7) === i && Math.floor(b / 7) === i && a % 7 >= from && b % 7 <= to;
    });

  it('end at forks, at loose ends and where they are told to, and have every edge once', () => {
    const seams = new Set([...row(3, 1, 5), ...row(3, 1, 5)]);
    const whole = seamRuns(
      connectivity,
      (e) => seams.has(e),
      () => false,
    );
    expect(whole).toHaveLength(1);
    expect([...whole[0].ends].sort()).toEqual([22, 26]);
    expect(
      seamRuns(
        connectivity,
        (e) => seams.has(e),
        (v) => v === 24,
      ),
    ).toHaveLength(2);
    const pieces = seamRuns(
      connectivity,
      (e) => seams.has(e),
      () => false,
      () => 1,
      2,
    );
    expect(pieces).toHaveLength(2);
    expect(pieces.flatMap(({ edges }) => edges).sort()).toEqual([...seams].sort());
  });

  it('close where a seam comes round', () => {
    const border = new Set([...connectivity.isInterior.keys()].filter((e) => !connectivity.isInterior[e]));
    const [ring, ...none] = seamRuns(
      connectivity,
      (e) => border.has(e),
      () => false,
    );
    expect(none).toEqual([]);
    expect(ring.edges).toHaveLength(24);
    expect(ring.ends[0]).toBe(ring.ends[1]);
  });
});
