import { expect } from 'vitest';
import { packFirst } from '../pack/packFirst.ts';
import type { PackOptions, PackShell } from '../pack/packShell.ts';
import { type Placement, placedUv } from '../pack/placement.ts';
import { unattended } from '../progress.ts';
import { boxOf } from '../surface/uvBox.ts';

export const QUARTERS = [0, Math.PI / 2, Math.PI, 1.5 * Math.PI];
const TEXEL = 1 / 1024;
export const optionsWith = (padding: number, more: Partial<PackOptions> = {}): PackOptions => ({
  frame: [0, 0, 1, 1],
  gap: padding * TEXEL,
  texel: TEXEL,
  ...more,
});

/** A fan of triangles round the origin: star-shaped, often with bays. */
export const fan = (radii: readonly number[], turning: PackShell['turning'] = QUARTERS): PackShell => {
  const n = radii.length;
  const uv = [
    0,
    0,
    ...radii.flatMap((r, i) => [r * Math.cos((2 * Math.PI * i) / n), r * Math.sin((2 * Math.PI * i) / n)]),
  ];
  return {
    triangles: Uint32Array.from(radii.flatMap((_, i) => [0, 1 + i, 1 + ((i + 1) % n)])),
    uv: Float64Array.from(uv),
    turning,
  };
};

/** A flat ring. */
export const ring = (outer: number, inner: number, n = 32): PackShell => ({
  triangles: Uint32Array.from(
    Array.from({ length: n }, (_, i) => {
      const j = (i + 1) % n;
      return [2 * i, 2 * j, 2 * i + 1, 2 * j, 2 * j + 1, 2 * i + 1];
    }).flat(),
  ),
  uv: Float64Array.from(
    Array.from({ length: n }, (_, i) => {
      const [c, s] = [Math.cos((2 * Math.PI * i) / n), Math.sin((2 * Math.PI * i) / n)];
      return [outer * c, outer * s, inner * c, inner * s];
    }).flat(),
  ),
  turning: [0],
});

/** Corners of each triangle where it is laid. */
function laidTriangles({ triangles, uv, locked }: PackShell, placement: Placement): number[][] {
  const laid = locked ? uv : placedUv(uv, placement);
  return Array.from({ length: triangles.length / 3 }, (_, t) =>
    [0, 1, 2].flatMap((k) => [laid[2 * triangles[3 * t + k]], laid[2 * triangles[3 * t + k] + 1]]),
  );
}

/** Least distance of two triangles that do not overlap: of the corners of each from the sides of the other. */
function distance(a: readonly number[], b: readonly number[]): number {
  let least = Infinity;
  for (const [p, q] of [
    [a, b],
    [b, a],
  ])
    for (let i = 0; i < 6; i += 2)
      for (let k = 0; k < 6; k += 2) {
        const [u0, v0, u1, v1] = [q[k], q[k + 1], q[(k + 2) % 6], q[(k + 3) % 6]];
        const [du, dv] = [u1 - u0, v1 - v0];
        const t = Math.max(
          0,
          Math.min(1, ((p[i] - u0) * du + (p[i + 1] - v0) * dv) / (du * du + dv * dv || 1)),
        );
        least = Math.min(least, Math.hypot(p[i] - u0 - t * du, p[i + 1] - v0 - t * dv));
      }
  return least;
}

/** Whether two triangles share area: no side of either has the other beyond it (separating axes). */
const overlap = (a: readonly number[], b: readonly number[]): boolean =>
  [a, b].every((t) =>
    [0, 2, 4].every((k) => {
      const [u, v, nu, nv] = [t[k], t[k + 1], t[(k + 3) % 6] - t[k + 1], t[k] - t[(k + 2) % 6]];
      const along = (s: readonly number[]) => [0, 2, 4].map((c) => (s[c] - u) * nu + (s[c + 1] - v) * nv);
      const [one, other] = [along(a), along(b)];
      return Math.max(...one) > Math.min(...other) + 1e-12 && Math.max(...other) > Math.min(...one) + 1e-12;
    }),
  );

/** That nothing overlaps, gaps are kept and all lies in the frame; worked out with nothing of the packer. */
export function expectLaid(
  shells: readonly PackShell[],
  placements: readonly Placement[],
  { frame, gap }: PackOptions,
): void {
  const laid = shells.map((shell, i) => laidTriangles(shell, placements[i]));
  laid.forEach((one, i) => {
    if (!shells[i].locked) {
      const [left, low, right, high] = boxOf(Float64Array.from(one.flat()));
      expect(Math.min(left - frame[0], low - frame[1])).toBeGreaterThanOrEqual(gap - 1e-12);
      expect(Math.min(frame[2] - right, frame[3] - high)).toBeGreaterThanOrEqual(gap - 1e-12);
    }
    for (const [j, other] of laid.slice(0, i).entries()) {
      if (shells[i].locked && shells[j].locked) continue;
      for (const a of one)
        for (const b of other) {
          expect(distance(a, b)).toBeGreaterThanOrEqual(gap - 1e-12);
          expect(overlap(a, b)).toBe(false);
        }
    }
  });
}

/** A first layout, which there has to be. */
export const first = (shells: readonly PackShell[], options: PackOptions): readonly Placement[] => {
  const found = packFirst(shells, options, unattended);
  if (!found) throw new Error('does not fit');
  return found;
};
