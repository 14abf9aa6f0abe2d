import { describe, expect, it } from 'vitest';
import { singularValues } from '../src/measure/singularValues.ts';
import { measureStretch } from '../src/measure/stretch.ts';
import { unattended } from '../src/progress.ts';
import { sphericalCap } from '../src/testing/shapes.ts';
import { METHODS, unfoldShell } from '../src/unfold/unfold.ts';

/**
 * J. P. Snyder, Map Projections: A Working Manual, USGS Professional Paper 1395 (1987): the polar
 * stereographic projection is the conformal map of a cap that keeps its circle; its scale at angular
 * distance c from the pole is k = 2 / (1 + cos c) (equation 21–4 with k₀ = 1, from memory).
 */
const scaleAt = (c: number): number => 2 / (1 + Math.cos(c));

describe.each(METHODS)('map of a spherical cap: %s', (method) => {
  it('has the stereographic scale at every distance from the pole', () => {
    const [rings, sectors, reach] = [36, 144, Math.PI / 2];
    const cap = sphericalCap(rings, sectors, reach);
    const { uv } = unfoldShell(cap, method, unattended);
    const values = singularValues(cap.positions, cap.triangles, uv);
    // Mean scale of each ring of triangles, in flat length per length on the sphere.
    const scales = new Float64Array(rings);
    const counts = new Float64Array(rings);
    for (let t = 0; t < cap.triangles.length / 3; t++) {
      const y = [0, 1, 2].reduce((sum, k) => sum + cap.positions[3 * cap.triangles[3 * t + k] + 1] / 3, 0);
      const ring = Math.min(rings - 1, Math.floor((Math.acos(Math.min(1, y)) / reach) * rings));
      scales[ring] += 2 / (values[3 * t] + values[3 * t + 1]);
      counts[ring]++;
    }
    const ratio = (ring: number) => scales[ring] / counts[ring];
    const middle = (ring: number) => ((ring + 0.5) / rings) * reach;
    for (let ring = 2; ring < rings; ring++) {
      const measured = ratio(ring) / ratio(1);
      const printed = scaleAt(middle(ring)) / scaleAt(middle(1));
      expect(Math.abs(measured / printed - 1)).toBeLessThan(0.015);
    }
  });

  it('bends no angle beyond what the mesh does', () => {
    const cap = sphericalCap(36, 144, Math.PI / 2);
    expect(measureStretch(cap, unfoldShell(cap, method, unattended).uv).angleMean).toBeLessThan(1);
  });
});

describe("Tissot's indicatrix", () => {
  it('has the axes and the angular deformation of a known affine map', () => {
    // The flat triangle is the model's drawn out by 3 along x and pressed to half along y: the greatest
    // angular deformation is 2·asin((a − b)/(a + b)) (Snyder 1987, p. 20–24).
    const positions = Float64Array.from([0, 0, 0, 1, 0, 0, 0.3, 1, 0]);
    const triangles = Uint32Array.from([0, 1, 2]);
    const uv = Float64Array.from([0, 0, 3, 0, 0.9, 0.5]);
    const [greatest, least] = singularValues(positions, triangles, uv);
    expect(greatest).toBeCloseTo(1 / 0.5, 12);
    expect(least).toBeCloseTo(1 / 3, 12);
    const shell = {
      positions,
      triangles,
      triangleFace: Uint32Array.of(0),
      vertexCorner: Uint32Array.of(0, 1, 2),
    };
    const { angle } = measureStretch(shell, uv);
    expect(angle[0]).toBeCloseTo((2 * Math.asin(2.5 / 3.5) * 180) / Math.PI, 4);
  });

  it('gives the stretch of two triangles as their definitions do by hand', () => {
    // Sander, Snyder, Gortler, Hoppe 2001: L²(T) = √((Γ² + γ²)/2), and over a mesh the mean square by
    // surface area, scaled by √(flat area / surface area).
    const positions = Float64Array.from([0, 0, 0, 1, 0, 0, 1, 1, 0, 0, 1, 0]);
    const triangles = Uint32Array.from([0, 1, 2, 0, 2, 3]);
    // The first triangle is drawn to twice its width, the second to half its height… by hand below.
    const uv = Float64Array.from([0, 0, 2, 0, 2, 1, 0, 1]);
    const shell = {
      positions,
      triangles,
      triangleFace: Uint32Array.of(0, 1),
      vertexCorner: Uint32Array.of(0, 1, 2, 3),
    };
    // Both triangles map with Γ = 1, γ = 1/2: L² = √(5/8); flat area 2, surface 1.
    const { l2, linf } = measureStretch(shell, uv);
    expect(l2).toBeCloseTo(Math.sqrt(5 / 8) * Math.SQRT2, 12);
    expect(linf).toBeCloseTo(Math.SQRT2, 12);
  });
});
