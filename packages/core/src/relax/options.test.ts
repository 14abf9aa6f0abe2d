import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { measureStretch } from '../measure/stretch.ts';
import { distance } from '../mesh/distance.ts';
import { unattended } from '../progress.ts';
import { restTriangles } from '../surface/restTriangles.ts';
import { sheet, sphericalCap, wholeShell } from '../testing/shapes.ts';
import { unfoldShell } from '../unfold/unfold.ts';
import { areaTerm, energy, quadratic } from './distortion.ts';
import { exponentOf } from './loosen.ts';
import { pullVertices } from './pullVertices.ts';
import { fixedBorder, fixedOutside } from './region.ts';
import { relax } from './relax.ts';

const cap = sphericalCap(10, 30, 2);
const rest = restTriangles(cap.positions, cap.triangles);
const start = unfoldShell(cap, 'conformal', unattended).uv;
const last = cap.positions.length / 3 - 1;
/** A meridian of the cap, from the border up. */
const meridian = (sector: number) => Uint32Array.from({ length: 8 }, (_, i) => last - sector - 30 * i);

describe('the balance of angles and area', () => {
  it('has the gradient that differences give, for every exponent', () => {
    for (const theta of [0.1, 1, 2.7]) {
      const { gradient } = quadratic(cap.triangles, rest, start, areaTerm(theta));
      const h = 1e-6;
      for (const i of [0, 7, 40, 81, 200]) {
        const [up, down] = [start.slice(), start.slice()];
        up[i] += h;
        down[i] -= h;
        const slope =
          (energy(cap.triangles, rest, up, areaTerm(theta)) -
            energy(cap.triangles, rest, down, areaTerm(theta))) /
          (2 * h);
        expect(gradient[i]).toBeCloseTo(slope, 6);
      }
    }
  });

  it('is 4 for a map without stretch, whatever the balance', () => {
    const flat = wholeShell(sheet(4, 4, (i, j) => [j, i, 0]));
    const uv = Float64Array.from({ length: 50 }, (_, i) => flat.positions[3 * (i >> 1) + (i & 1)]);
    const own = restTriangles(flat.positions, flat.triangles);
    for (const balance of [0, 0.3, 1]) {
      expect(energy(flat.triangles, own, uv, areaTerm(exponentOf(balance)))).toBeCloseTo(4, 12);
    }
  });

  it('trades angles for area all along the slider', () => {
    const figures = [0, 0.25, 0.5, 0.75, 1].map((balance) => {
      const { uv, converged } = relax(cap, start, { balance }, unattended);
      expect(converged).toBe(true);
      return measureStretch(cap, uv);
    });
    for (let i = 1; i < figures.length; i++) {
      expect(figures[i].areaMean).toBeLessThan(figures[i - 1].areaMean);
      expect(figures[i].angleMean).toBeGreaterThan(figures[i - 1].angleMean);
      expect(figures[i].flipped).toBe(0);
    }
  });
});

describe('relaxing in part', () => {
  it('loosens a region and leaves every other point exactly where it was', () => {
    const inRegion = Uint8Array.from({ length: cap.triangles.length / 3 }, (_, t) => (t < 240 ? 1 : 0));
    const fixed = fixedOutside(cap, inRegion);
    const { uv, energyAfter, energyBefore } = relax(cap, start, { fixed }, unattended);
    expect(energyAfter).toBeLessThan(energyBefore);
    let moved = 0;
    for (let i = 0; i < uv.length; i++) {
      if (fixed[i >> 1]) expect(uv[i]).toBe(start[i]);
      else if (uv[i] !== start[i]) moved++;
    }
    expect(moved).toBeGreaterThan(100);
    // The energy it reports is that of the whole shell.
    const whole = relax(cap, uv, { steps: 0 }, unattended);
    expect(whole.energyBefore).toBeCloseTo(energyAfter, 1);
  });

  it('keeps a border that was straightened by hand', () => {
    const fixed = fixedBorder(cap);
    expect(fixed.reduce((a, b) => a + b, 0)).toBe(30);
    const { uv } = relax(cap, start, { fixed }, unattended);
    for (let i = uv.length - 60; i < uv.length; i++) expect(uv[i]).toBe(start[i]);
  });

  it('has nothing to do when everything is fixed', () => {
    const fixed = new Uint8Array(last + 1).fill(1);
    expect(relax(cap, start, { fixed }, unattended)).toMatchObject({ steps: 0, converged: true });
  });

  it('stops when its time is up', () => {
    const { steps, converged, uv } = relax(cap, start, { seconds: -1 }, unattended);
    expect([steps, converged]).toEqual([0, false]);
    expect(measureStretch(cap, uv).flipped).toBe(0);
  });
});

describe('stays', () => {
  const isStraight = (stay: Uint32Array, uv: Float64Array, scale = 1) => {
    let along = 0;
    const [a, b] = [stay[0], stay[stay.length - 1]];
    const direction = [uv[2 * b] - uv[2 * a], uv[2 * b + 1] - uv[2 * a + 1]];
    const length = Math.hypot(...direction);
    stay.forEach((v, i) => {
      if (i > 0) along += scale * distance(cap.positions, stay[i - 1], v);
      expect(uv[2 * v] - uv[2 * a]).toBeCloseTo((direction[0] / length) * along, 9);
      expect(uv[2 * v + 1] - uv[2 * a + 1]).toBeCloseTo((direction[1] / length) * along, 9);
    });
  };

  it('lie dead straight at true length, one or several, for both solvers', () => {
    for (const method of ['conformal', 'angle-based'] as const) {
      for (const stays of [[meridian(0)], [meridian(0), meridian(11), meridian(20)]]) {
        const { uv } = unfoldShell(cap, method, unattended, { stays });
        for (const stay of stays) isStraight(stay, uv);
        expect(measureStretch(cap, uv).flipped).toBe(0);
      }
    }
  });

  it('stay so while relaxing, but find their best place', () => {
    const stays = [meridian(0), meridian(11)];
    const { uv } = unfoldShell(cap, 'conformal', unattended, { stays });
    const held = relax(cap, uv, { rigid: stays, scale: 1 }, unattended);
    for (const stay of stays) isStraight(stay, held.uv);
    expect(held.converged).toBe(true);
    const fixed = new Uint8Array(last + 1);
    for (const stay of stays) for (const v of stay) fixed[v] = 1;
    const stiff = relax(cap, uv, { fixed, scale: 1 }, unattended);
    expect(held.energyAfter).toBeLessThan(stiff.energyAfter);
    expect(measureStretch(cap, held.uv).flipped).toBe(0);
  });

  it('may not cross', () => {
    const crossing = [meridian(0), Uint32Array.of(last, last - 1)];
    expect(() => unfoldShell(cap, 'conformal', unattended, { stays: crossing })).toThrow(/Two stays meet/);
  });
});

describe('pins', () => {
  const at = (uv: Float64Array, vertices: readonly number[]) =>
    vertices.flatMap((v) => [uv[2 * v], uv[2 * v + 1]]);

  it('are met exactly and without a flip, wherever they were dragged within reason', () => {
    const offset = fc.double({ min: -0.5, max: 0.5, noNaN: true });
    fc.assert(
      fc.property(fc.array(offset, { minLength: 6, maxLength: 6 }), (offsets) => {
        const vertices = [0, last, last - 15];
        const uv = at(start, vertices).map((x, i) => x + offsets[i]);
        const found = unfoldShell(cap, 'conformal', unattended, { pins: { vertices, uv } });
        expect(at(found.uv, vertices)).toEqual(uv);
        expect(measureStretch(cap, found.uv).flipped).toBe(0);
      }),
      { numRuns: 20 },
    );
  });

  it('one alone moves the shell, two turn and scale it', () => {
    const one = unfoldShell(cap, 'conformal', unattended, { pins: { vertices: [0], uv: [3, 4] } });
    expect(at(one.uv, [0]).map((x) => x.toFixed(9))).toEqual(['3.000000000', '4.000000000']);
    expect(measureStretch(cap, one.uv).uvArea).toBeCloseTo(measureStretch(cap, start).uvArea, 6);
    const uv = [0, 0, 0, 100];
    const two = unfoldShell(cap, 'conformal', unattended, { pins: { vertices: [last, last - 15], uv } });
    expect(at(two.uv, [last, last - 15])).toEqual(uv);
  });

  it('that would flip faces are refused by name', () => {
    // The corners of one face, clockwise.
    const pins = { vertices: [...cap.triangles.subarray(0, 3)], uv: [0, 0, 0, 1, 1, 0] };
    try {
      unfoldShell(cap, 'conformal', unattended, { pins });
      expect.unreachable();
    } catch (error) {
      expect(error).toMatchObject({ code: 'cannot-meet-pins', ids: pins.vertices });
    }
  });

  it('are pulled through maps without a flip', () => {
    const goal = [start[2 * last] + 2, start[2 * last + 1] - 1];
    const pulled = pullVertices(
      cap.triangles,
      rest,
      start,
      [last, 0],
      [...goal, start[0], start[1]],
      unattended,
    );
    expect(pulled && at(pulled, [last, 0])).toEqual([...goal, start[0], start[1]]);
    expect(energy(cap.triangles, rest, pulled as Float64Array)).toBeLessThan(Infinity);
  });
});
