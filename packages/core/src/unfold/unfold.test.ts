import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { measureStretch } from '../measure/stretch.ts';
import { unattended } from '../progress.ts';
import { tutteEmbedding } from '../relax/tutte.ts';
import { restTriangles } from '../surface/restTriangles.ts';
import type { Shell } from '../surface/shell.ts';
import { cube, horn, sheet, sphericalCap, wholeShell } from '../testing/shapes.ts';
import { lscm } from './lscm.ts';
import { CannotUnfoldError, METHODS, unfoldShell } from './unfold.ts';

const bumpy = (seed: number, size = 1): Shell =>
  wholeShell(
    sheet(7, 9, (i, j) => [
      size * (j + 0.3 * Math.sin(seed + 5 * i + j)),
      size * (i + 0.3 * Math.cos(seed * 2 + 3 * j + i)),
      size * Math.sin(seed + i) * Math.cos(j + seed),
    ]),
  );

describe('unfold', () => {
  it('gives a flat sheet back without stretch', () => {
    const flat = wholeShell(sheet(4, 6, (i, j) => [j, 0, i * 1.5]));
    const { l2, linf, angleMean } = measureStretch(flat, unfoldShell(flat, 'conformal', unattended).uv);
    expect(l2).toBeCloseTo(1, 8);
    expect(linf).toBeCloseTo(1, 8);
    expect(angleMean).toBeCloseTo(0, 6);
  });

  it('turns up on the model to up on the texture', () => {
    const wall = wholeShell(sheet(3, 3, (i, j) => [j, i, 0]));
    const { uv } = unfoldShell(wall, 'conformal', unattended);
    // Vertex 12 is three rows above vertex 0.
    expect(uv[2 * 12] - uv[0]).toBeCloseTo(0, 9);
    expect(uv[2 * 12 + 1] - uv[1]).toBeCloseTo(3, 9);
  });

  it('never leaves a flipped face, whatever the bumps and the scale', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0, max: 50, noNaN: true }),
        fc.constantFrom(1e-8, 1, 1e8),
        (seed, size) => {
          const shell = bumpy(seed, size);
          const { uv } = unfoldShell(shell, 'conformal', unattended);
          expect(uv.every(Number.isFinite)).toBe(true);
          expect(measureStretch(shell, uv)).toMatchObject({ flipped: 0, collapsed: 0 });
        },
      ),
      { numRuns: 40 },
    );
  });

  it('goes a longer way round where the solver flips, and says so; elsewhere it does not say so', () => {
    for (const method of METHODS) {
      const { uv, repaired } = unfoldShell(horn(12, 12, 6), method, unattended);
      expect(repaired).toBe(true);
      expect(measureStretch(horn(12, 12, 6), uv)).toMatchObject({ flipped: 0, collapsed: 0 });
      expect(unfoldShell(bumpy(1), method, unattended).repaired).toBe(false);
    }
  });

  it('handles several borders', () => {
    const holed = sphericalCap(10, 24, 1.5);
    const shell = {
      ...holed,
      triangles: holed.triangles.slice(3 * 24),
      triangleFace: holed.triangleFace.slice(24),
    };
    // Vertex 0, the pole, is left without a face: take it out.
    const triangles = shell.triangles.map((v) => v - 1);
    const ring = {
      ...shell,
      triangles,
      positions: shell.positions.slice(3),
      vertexCorner: shell.vertexCorner.slice(1),
    };
    expect(measureStretch(ring, unfoldShell(ring, 'conformal', unattended).uv)).toMatchObject({ flipped: 0 });
    const valid = tutteEmbedding(ring, restTriangles(ring.positions, ring.triangles).totalArea);
    expect(measureStretch(ring, valid)).toMatchObject({ flipped: 0, collapsed: 0 });
  });

  it('survives triangles without area', () => {
    const sliver = wholeShell(sheet(3, 3, (i, j) => [j === 2 ? 1 : j, i, 0]));
    const { uv } = unfoldShell(sliver, 'conformal', unattended);
    expect(uv.every(Number.isFinite)).toBe(true);
  });

  it('refuses a closed piece with its topology', () => {
    expect(() => unfoldShell(wholeShell(cube()), 'conformal', unattended)).toThrow(CannotUnfoldError);
  });

  it('meets pins exactly', () => {
    const pins = { vertices: [0, 9, 79], uv: [0, 0, 5, 1, 4, 6] };
    const shell = bumpy(1);
    const uv = lscm(shell, restTriangles(shell.positions, shell.triangles), pins);
    expect([0, 9, 79].flatMap((v) => [uv[2 * v], uv[2 * v + 1]])).toEqual(pins.uv);
  });
});
