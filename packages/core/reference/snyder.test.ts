import { describe, expect, it } from 'vitest';
import { type ShellFigures, totalsOf } from '../src/document/figures.ts';
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

  it('gives the figures of two unequal triangles as their definitions do by hand', () => {
    // Sander, Snyder, Gortler, Hoppe 2001: L²(T) = √((Γ² + γ²)/2), over a mesh the root of the mean square by surface area, scaled by
    // √(flat area / surface area); L∞ the greatest Γ. Snyder 1987, p. 20: ω = 2·asin((a − b)/(a + b)).
    // The first triangle, of area 1, is drawn to twice its width; the second, of area 3, keeps its shape at half its size.
    const positions = Float64Array.from([0, 0, 0, 1, 0, 0, 0, 2, 0, 0, 0, 5, 3, 0, 5, 0, 2, 5]);
    const triangles = Uint32Array.from([0, 1, 2, 3, 4, 5]);
    const uv = Float64Array.from([0, 0, 2, 0, 0, 2, 5, 5, 6.5, 5, 5, 6]);
    const shell = {
      positions,
      triangles,
      triangleFace: Uint32Array.of(0, 1),
      vertexCorner: Uint32Array.of(0, 1, 2, 3, 4, 5),
    };
    // Lengths on the surface per length in the flat: 1/2 and 1 in the first, 2 and 2 in the second. Flat area 2 + 3/4, surface 4.
    const scale = (2 + 0.75) / 4;
    const first = (0.5 ** 2 + 1) / 2;
    const second = 2 ** 2;
    const figures = measureStretch(shell, uv);
    expect(figures.l2).toBeCloseTo(Math.sqrt(((1 * first + 3 * second) / 4) * scale), 9);
    expect(figures.linf).toBeCloseTo(2 * Math.sqrt(scale), 9);
    const omega = (2 * Math.asin(0.5 / 1.5) * 180) / Math.PI;
    expect(figures.angleMean).toBeCloseTo((1 * omega + 3 * 0) / 4, 4);
    // Area is off by 2 / scale in the first triangle, by 1/4 / scale in the second: the mean of the logarithms, by surface.
    const logs = (1 * Math.abs(Math.log(2 / scale)) + 3 * Math.abs(Math.log(0.25 / scale))) / 4;
    expect(figures.areaMean).toBeCloseTo(Math.exp(logs), 5);
    // And so over shells: totals weigh each by its surface.
    const alone = (t: number) => ({
      positions,
      triangles: triangles.slice(3 * t, 3 * t + 3).map((v) => v - 3 * t),
      triangleFace: Uint32Array.of(t),
      vertexCorner: Uint32Array.of(0, 1, 2),
    });
    const stretches = [0, 1].map((t) =>
      measureStretch(
        { ...alone(t), positions: positions.slice(9 * t, 9 * t + 9) },
        uv.slice(6 * t, 6 * t + 6),
      ),
    );
    const [a, b] = stretches;
    for (const shells of [stretches, [b, a]]) {
      const { angleMean } = totalsOf(shells.map((stretch) => ({ stretch }) as ShellFigures));
      expect(angleMean).toBeCloseTo(omega / 4, 4);
    }
    const totals = totalsOf(stretches.map((stretch) => ({ stretch }) as ShellFigures));
    expect(totals.l2).toBeCloseTo(Math.sqrt((a.l2 ** 2 + 3 * b.l2 ** 2) / 4), 9);
    expect(totals.areaMean).toBeCloseTo(Math.exp((Math.log(a.areaMean) + 3 * Math.log(b.areaMean)) / 4), 6);
  });
});
