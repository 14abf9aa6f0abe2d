import { describe, expect, it } from 'vitest';
import { overlapsWithin } from '../measure/overlap.ts';
import { measureStretch } from '../measure/stretch.ts';
import { connectivityOf } from '../mesh/connectivity.ts';
import { type Mesh, meshFromPolygons } from '../mesh/mesh.ts';
import { unattended } from '../progress.ts';
import { meshOfShell } from '../surface/cutShell.ts';
import { sheet, wholeShell } from '../testing/shapes.ts';
import { unfoldShell } from '../unfold/unfold.ts';
import { isStretched } from './layFlat.ts';
import { mending } from './mend.ts';

describe('mending', () => {
  const surfaceOf = (mesh: Mesh) => ({
    mesh,
    connectivity: connectivityOf(mesh),
    vertex: new Uint32Array(0),
  });

  it('leaves a ramp that would lie on itself whole: it is laid clear', () => {
    const ramp = wholeShell(
      sheet(4, 48, (i, j) => {
        const a = (3 * Math.PI * j) / 48;
        return [(2 + i / 4) * Math.cos(a), 0.02 * j, -(2 + i / 4) * Math.sin(a)];
      }),
    );
    const { uv } = unfoldShell(ramp, 'conformal', unattended);
    expect(overlapsWithin(ramp.triangles, uv, 100).length).toBeGreaterThan(0);
    expect(mending(surfaceOf(meshOfShell(ramp)), 1.05, unattended)).toBeUndefined();
  });

  it('cuts up what cannot lie flat clear of itself with so little stretch', () => {
    // A fan of four full turns round one corner.
    const many = 96;
    const rim = Array.from({ length: many + 1 }, (_, j) => {
      const a = (8 * Math.PI * j) / many;
      return [Math.cos(a), Math.sin(a), 0.02 * a];
    });
    const fan = meshFromPolygons(
      [[0, 0, 0], ...rim],
      Array.from({ length: many }, (_, j) => [0, j + 1, j + 2]),
    );
    const { uv } = unfoldShell(wholeShell(fan), 'conformal', unattended);
    expect(measureStretch(wholeShell(fan), uv).l2).toBeLessThan(1.05);
    expect(isStretched(wholeShell(fan), { most: 1.05, relaxSteps: 10 }, unattended.signal)).toBe(true);
    expect(mending(surfaceOf(fan), 1.05, unattended)).toBeDefined();
  });
});
