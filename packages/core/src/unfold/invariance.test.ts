import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { measureStretch } from '../measure/stretch.ts';
import { unattended } from '../progress.ts';
import { type Shell, shellFromTriangles } from '../surface/shell.ts';
import { apart } from '../testing/apart.ts';
import { sheet, wholeShell } from '../testing/shapes.ts';
import { METHODS, unfoldShell } from './unfold.ts';

/** A random disc: a sheet with hollows, bumps and uneven rows, of some 8 to 128 triangles. */
const discs = fc
  .record({
    rows: fc.integer({ min: 2, max: 8 }),
    columns: fc.integer({ min: 2, max: 8 }),
    jitter: fc.array(fc.double({ min: -0.3, max: 0.3, noNaN: true }), { minLength: 30, maxLength: 30 }),
    height: fc.double({ min: 0, max: 3, noNaN: true }),
  })
  .map(({ rows, columns, jitter, height }) =>
    wholeShell(
      sheet(rows, columns, (i, j) => {
        const noise = (k: number) => jitter[(7 * i + 11 * j + k) % jitter.length];
        return [j + noise(0), i + noise(1), height * noise(2)];
      }),
    ),
  );

/** A turn, a scale and a place, and a number to renumber by. */
const motions = fc.record({
  axis: fc.tuple(...[0, 1, 2].map(() => fc.double({ min: -1, max: 1, noNaN: true }))),
  scale: fc.constantFrom(1e-8, 0.3, 1, 40, 1e8),
  shift: fc.double({ min: -2, max: 2, noNaN: true }),
  seed: fc.integer({ min: 1, max: 1_000_000 }),
});
type Motion = typeof motions extends fc.Arbitrary<infer T> ? T : never;

/** The shell moved and renumbered; `to[v]` is the new number of v. */
function moved(
  { positions, triangles }: Shell,
  { axis, scale, shift, seed }: Motion,
): { shell: Shell; to: Uint32Array } {
  const n = positions.length / 3;
  const to = Uint32Array.from({ length: n }, (_, v) => v);
  let state = seed;
  for (let i = n - 1; i > 0; i--) {
    state = (state * 48_271) % 2_147_483_647;
    const k = state % (i + 1);
    [to[i], to[k]] = [to[k], to[i]];
  }
  // Half a turn about the axis: 2 a aᵀ − 1.
  const length = Math.hypot(...axis);
  const a = length > 0.1 ? axis.map((x) => x / length) : [0, 0, 1];
  const out = new Float64Array(positions.length);
  for (let v = 0; v < n; v++) {
    const p = positions.subarray(3 * v, 3 * v + 3);
    const along = 2 * (a[0] * p[0] + a[1] * p[1] + a[2] * p[2]);
    for (let k = 0; k < 3; k++) out[3 * to[v] + k] = scale * (along * a[k] - p[k] + shift);
  }
  // Triangles begin at another corner, in another order.
  const turned = [];
  for (let t = triangles.length - 3; t >= 0; t -= 3) {
    const first = (t / 3) % 3;
    for (let k = 0; k < 3; k++) turned.push(to[triangles[t + ((first + k) % 3)]]);
  }
  return { shell: shellFromTriangles(out, turned), to };
}

const reordered = (uv: Float64Array, to: Uint32Array): Float64Array =>
  uv.map((_, i) => uv[2 * to[i >> 1] + (i & 1)]);

describe.each(METHODS)('%s', (method) => {
  it('gives the same map, up to a similarity, of a disc moved, scaled and renumbered', () => {
    fc.assert(
      fc.property(discs, motions, (shell, motion) => {
        const plain = unfoldShell(shell, method, unattended);
        const { shell: other, to } = moved(shell, motion);
        const again = unfoldShell(other, method, unattended);
        expect(measureStretch(other, again.uv)).toMatchObject({ flipped: 0, collapsed: 0 });
        expect(again.repaired).toBe(plain.repaired);
        if (!plain.repaired) expect(apart(reordered(again.uv, to), plain.uv)).toBeLessThan(1e-4);
      }),
      { numRuns: 60 },
    );
  });

  it('follows its pins through a similarity of the plane', () => {
    const places = fc.tuple(...[0, 1, 2, 3].map(() => fc.double({ min: -3, max: 3, noNaN: true })));
    fc.assert(
      fc.property(discs, motions, places, (shell, motion, [u, v, dx, dy]) => {
        fc.pre(Math.hypot(dx, dy) > 0.1);
        const last = shell.positions.length / 3 - 1;
        const pins = { vertices: [0, last], uv: [u, v, u + dx, v + dy] };
        const plain = unfoldShell(shell, method, unattended, { pins });
        // Turned a quarter and twice as large, on the shell renumbered.
        const { shell: other, to } = moved(shell, motion);
        const there = { vertices: [to[0], to[last]], uv: [0 - 2 * v, 2 * u, 0 - 2 * (v + dy), 2 * (u + dx)] };
        const again = reordered(unfoldShell(other, method, unattended, { pins: there }).uv, to);
        for (const k of [0, 1]) expect(again[k] - there.uv[k]).toBe(0);
        expect(plain.uv.every(Number.isFinite)).toBe(true);
        if (!plain.repaired) expect(apart(again, plain.uv)).toBeLessThan(1e-4);
      }),
      { numRuns: 60 },
    );
  });
});
