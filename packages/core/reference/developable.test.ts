import { describe, expect, it } from 'vitest';
import { measureStretch } from '../src/measure/stretch.ts';
import { distance } from '../src/mesh/distance.ts';
import { unattended } from '../src/progress.ts';
import type { Shell } from '../src/surface/shell.ts';
import { sheet, wholeShell } from '../src/testing/shapes.ts';
import { METHODS, unfoldShell } from '../src/unfold/unfold.ts';

/**
 * Developable surfaces against their sheet-metal patterns (common practice in pattern drafting; the cone's sector
 * of 360·r/s degrees stands in every trade handbook, quoted here from memory). A mesh has flat facets where the
 * surface is round, so lengths round it fall short by the chord error, sin(x)/x with x half the facet's angle.
 */
const SIDES = 96;
const chordError = 1 - Math.sin(Math.PI / SIDES) / (Math.PI / SIDES);

const flat = (uv: Float64Array, a: number, b: number) =>
  Math.hypot(uv[2 * a] - uv[2 * b], uv[2 * a + 1] - uv[2 * b + 1]);

/** Angle at `apex` from `a` to `b`, summed over the vertices of a row between them. */
function sector(uv: Float64Array, apex: readonly number[], row: readonly number[]): number {
  let total = 0;
  for (let i = 1; i < row.length; i++) {
    const [p, q] = [row[i - 1], row[i]].map((v) => Math.atan2(uv[2 * v + 1] - apex[1], uv[2 * v] - apex[0]));
    total += ((q - p + 3 * Math.PI) % (2 * Math.PI)) - Math.PI;
  }
  return (Math.abs(total) * 180) / Math.PI;
}

/** Surface of revolution, cut down one side: rows of SIDES + 1 vertices. */
function turned(rows: number, at: (i: number) => readonly [radius: number, height: number]): Shell {
  return wholeShell(
    sheet(rows, SIDES, (i, j) => {
      const [radius, height] = at(i);
      const angle = (-2 * Math.PI * j) / SIDES;
      return [radius * Math.cos(angle), height, radius * Math.sin(angle)];
    }),
  );
}

const row = (i: number) => Array.from({ length: SIDES + 1 }, (_, j) => i * (SIDES + 1) + j);

describe.each(METHODS)('developable surfaces unfold to their patterns: %s', (method) => {
  it('cylinder: a rectangle of circumference by length', () => {
    const [radius, height] = [1.5, 4];
    const shell = turned(10, (i) => [radius, (height * i) / 10]);
    const { uv } = unfoldShell(shell, method, unattended);
    const [bottom, top] = [row(0), row(10)];
    const around = flat(uv, bottom[0], bottom[SIDES]);
    expect(around).toBeLessThan(2 * Math.PI * radius * (1 + 1e-9));
    expect(around).toBeGreaterThan(2 * Math.PI * radius * (1 - 1.01 * chordError));
    expect(flat(uv, bottom[0], top[0])).toBeCloseTo(height, 6);
    const diagonal = Math.hypot(around, height);
    expect(flat(uv, bottom[0], top[SIDES])).toBeCloseTo(diagonal, 6);
    expect(measureStretch(shell, uv).l2).toBeCloseTo(1, 9);
  });

  it('cone: a sector of 360·r/s degrees', () => {
    const [radius, height] = [1, 2.4];
    const slant = Math.hypot(radius, height);
    // Down to a hair below the tip, which every side shares.
    const shell = turned(24, (i) => [radius * (1 - 0.999 * (i / 24)), height * 0.999 * (i / 24)]);
    const { uv } = unfoldShell(shell, method, unattended);
    const rim = row(0);
    // The tip lies on the line through two points of one side, at the slant length from the rim.
    const [a, b] = [rim[0], row(24)[0]];
    const length = flat(uv, a, b);
    const apex = [0, 1].map((k) => uv[2 * a + k] + ((uv[2 * b + k] - uv[2 * a + k]) * slant) / length);
    expect(length).toBeCloseTo(0.999 * slant, 6);
    const angle = sector(uv, apex, rim);
    const pattern = (360 * radius) / slant;
    expect(angle).toBeLessThan(pattern * (1 + 1e-9));
    expect(angle).toBeGreaterThan(pattern * (1 - 1.5 * chordError));
  });

  it('frustum: a ring sector between two radii', () => {
    const [bottom, top, height] = [2, 1.2, 1.7];
    const slant = Math.hypot(bottom - top, height);
    const outer = (bottom * slant) / (bottom - top);
    const shell = turned(12, (i) => [bottom + ((top - bottom) * i) / 12, (height * i) / 12]);
    const { uv } = unfoldShell(shell, method, unattended);
    const [low, high] = [row(0), row(12)];
    expect(flat(uv, low[0], high[0])).toBeCloseTo(slant, 6);
    const apex = [0, 1].map(
      (k) => uv[2 * low[0] + k] + ((uv[2 * high[0] + k] - uv[2 * low[0] + k]) * outer) / slant,
    );
    for (const v of [low[20], low[SIDES]]) {
      expect(Math.hypot(uv[2 * v] - apex[0], uv[2 * v + 1] - apex[1])).toBeCloseTo(outer, 5);
    }
    const pattern = (360 * (bottom - top)) / slant;
    const angle = sector(uv, apex, low);
    expect(angle).toBeLessThan(pattern * (1 + 1e-9));
    expect(angle).toBeGreaterThan(pattern * (1 - 1.5 * chordError));
  });

  it('mitred elbow: an edge along a cosine', () => {
    // Two pipes that meet at right angles are cut at 45°: h(θ) = h₀ + r tan 45° cos θ round the pipe.
    const [radius, height] = [1, 3];
    const shell = wholeShell(
      sheet(12, SIDES, (i, j) => {
        const angle = (-2 * Math.PI * j) / SIDES;
        const top = height + radius * Math.cos(angle);
        return [radius * Math.cos(angle), (top * i) / 12, radius * Math.sin(angle)];
      }),
    );
    const { uv } = unfoldShell(shell, method, unattended);
    const [bottom, top] = [row(0), row(12)];
    // In the pattern's own directions: along the straight end, and square to it.
    const width = flat(uv, bottom[0], bottom[SIDES]);
    const [cu, cv] = [0, 1].map((k) => (uv[2 * bottom[SIDES] + k] - uv[2 * bottom[0] + k]) / width);
    expect(width).toBeGreaterThan(2 * Math.PI * radius * (1 - 1.01 * chordError));
    top.forEach((v, j) => {
      const [du, dv] = [uv[2 * v] - uv[2 * bottom[0]], uv[2 * v + 1] - uv[2 * bottom[0] + 1]];
      expect(du * cu + dv * cv).toBeCloseTo((width * j) / SIDES, 5);
      expect(dv * cu - du * cv).toBeCloseTo(height + radius * Math.cos((2 * Math.PI * j) / SIDES), 5);
    });
  });

  it('keeps every length of a bent and rolled sheet', () => {
    // A sheet rolled along a spiral: all edges keep their length.
    const shell = wholeShell(
      sheet(8, 30, (i, j) => [
        (1 + 0.05 * j) * Math.cos(0.2 * j),
        i * 0.4,
        -(1 + 0.05 * j) * Math.sin(0.2 * j),
      ]),
    );
    const { uv } = unfoldShell(shell, method, unattended);
    for (let t = 0; t < shell.triangles.length; t += 3) {
      const [a, b] = [shell.triangles[t], shell.triangles[t + 1]];
      expect(flat(uv, a, b)).toBeCloseTo(distance(shell.positions, a, b), 6);
    }
  });
});
