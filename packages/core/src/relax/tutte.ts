import { analyse, factorise, solve } from '../linear/cholesky.ts';
import { gatherPattern } from '../linear/sparse.ts';
import type { Context } from '../progress.ts';
import { borders } from '../surface/borders.ts';
import type { Shell } from '../surface/shell.ts';
import { placeOnCircle } from './placeOnCircle.ts';

/**
 * Tutte embedding (Tutte 1963; Floater 1997): the longest border goes on a circle by arc length, every
 * other vertex to the mean of its neighbours. Flip-free for every shell of genus 0. Further
 * borders are closed by one extra vertex each while solving, which the answer leaves out.
 *
 * @param shell  one connected, manifold shell with at least one border
 * @param weights  of the sides of the triangles, as in `fillBorder`
 * @returns UV of every shell vertex, `2 × vertexCount`, in a circle with the area of the shell
 */
export function tutteEmbedding(
  shell: Shell,
  area: number,
  signal?: Context['signal'],
  weights?: Float64Array,
): Float64Array {
  const uv = new Float64Array((2 * shell.positions.length) / 3);
  const [outer] = borders(shell.triangles, uv.length / 2).loops;
  placeOnCircle(shell.positions, outer, Math.sqrt(area / Math.PI), uv);
  return fillBorder(shell, uv, signal, weights);
}

/**
 * Every vertex but those of the longest border goes to the mean of its neighbours. Flip-free where the border is a convex polygon and no
 * triangle has all its corners on one side of it.
 *
 * @param placed  `2 × vertexCount`, of which those of the longest border count
 * @param weights  above 0, how much an end of each side of a triangle, from its corner to the next, counts in the mean of the other, where two
 *   triangles meet for both together; all alike when absent
 */
export function fillBorder(
  shell: Shell,
  placed: Float64Array,
  signal?: Context['signal'],
  weights?: Float64Array,
): Float64Array {
  const vertexCount = placed.length / 2;
  const [outer, ...holes] = borders(shell.triangles, vertexCount).loops;
  const uv = new Float64Array(2 * (vertexCount + holes.length));
  uv.set(placed);

  const onBorder = new Uint8Array(vertexCount + holes.length);
  for (const v of outer) onBorder[v] = 1;
  const from: number[] = [];
  const to: number[] = [];
  const link = (a: number, b: number) => {
    from.push(a);
    to.push(b);
  };
  const { triangles } = shell;
  for (let i = 0; i < triangles.length; i++) link(triangles[i], triangles[i % 3 === 2 ? i - 2 : i + 1]);
  holes.forEach((hole, h) => {
    hole.forEach((v, i) => {
      link(vertexCount + h, v);
      link(v, vertexCount + h);
      link(hole[(i + 1) % hole.length], v);
    });
  });

  const free = new Int32Array(onBorder.length).fill(-1);
  let freeCount = 0;
  for (let v = 0; v < free.length; v++) if (!onBorder[v]) free[v] = freeCount++;
  if (freeCount === 0) return uv.slice(0, 2 * vertexCount);

  // Every undirected edge inside is listed once each way, so half a weight each time; those of holes come last, and weigh 1.
  const half = (i: number) => 0.5 * (weights?.[i] ?? 1);
  const inner = from.map((_, i) => i).filter((i) => free[from[i]] >= 0 && free[to[i]] >= 0);
  const { pattern, slot } = gatherPattern(
    freeCount,
    Uint32Array.from(inner, (i) => free[from[i]]),
    Uint32Array.from(inner, (i) => free[to[i]]),
  );
  const values = new Float64Array(pattern.row.length);
  const bu = new Float64Array(freeCount);
  const bv = new Float64Array(freeCount);
  inner.forEach((side, i) => {
    values[slot[i]] -= half(side);
  });
  for (let i = 0; i < from.length; i++) {
    const a = free[from[i]];
    const b = free[to[i]];
    for (const [self, other] of [
      [a, to[i]],
      [b, from[i]],
    ]) {
      if (self < 0) continue;
      values[pattern.columnStart[self]] += half(i);
      if (free[other] < 0) {
        bu[self] += half(i) * uv[2 * other];
        bv[self] += half(i) * uv[2 * other + 1];
      }
    }
  }
  const factor = factorise(analyse(pattern, { signal }), values, signal);
  const u = solve(factor, bu, signal);
  const v = solve(factor, bv, signal);
  for (let i = 0; i < free.length; i++) {
    if (free[i] < 0) continue;
    uv[2 * i] = u[free[i]];
    uv[2 * i + 1] = v[free[i]];
  }
  return uv.slice(0, 2 * vertexCount);
}
