import { describe, expect, it } from 'vitest';
import { meshOfShell } from '../surface/cutShell.ts';
import { beast, head } from '../testing/sculpts.ts';
import { sheet, tube } from '../testing/shapes.ts';
import { likelyUp } from './likelyUp.ts';
import type { Mesh } from './mesh.ts';

/** The same with y up made z up: turned about x by a right angle. */
const zUp = (mesh: Mesh): Mesh => ({
  ...mesh,
  positions: mesh.positions.map((_, i, p) => (i % 3 === 0 ? p[i] : i % 3 === 1 ? -p[i + 1] : p[i - 1])),
});

describe('what likely points up', () => {
  it('is what a beast stands on its four legs by, however long it is', () => {
    const standing = meshOfShell(beast(24));
    expect(likelyUp(standing)).toBe(0);
    expect(likelyUp(zUp(standing))).toBe(1);
  });

  it('is where a post is tallest, which can lie as well as stand', () => {
    const post = meshOfShell(tube(12, 12, 6));
    expect(likelyUp(post)).toBe(0);
    expect(likelyUp(zUp(post))).toBe(1);
  });

  it('is y where nothing tells, and for a sheet', () => {
    expect(likelyUp(meshOfShell(head(16)))).toBe(0);
    const hill = (i: number, j: number) => 2 * Math.exp(-((i - 3) ** 2 + (j - 3) ** 2) / 4);
    expect(likelyUp(sheet(6, 6, (i, j) => [j, i, hill(i, j)]))).toBe(0);
    // A ramp that winds up, lying as it is meant to.
    const turn = (j: number) => (3 * Math.PI * j) / 48;
    const ramp = sheet(4, 48, (i, j) => [
      (2 + i / 4) * Math.cos(turn(j)),
      0.1 * turn(j),
      -(2 + i / 4) * Math.sin(turn(j)),
    ]);
    expect(likelyUp(ramp)).toBe(0);
  });
});
