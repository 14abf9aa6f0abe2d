import { findEdge } from '../mesh/connectivity.ts';
import type { Shell } from '../surface/shell.ts';
import { transformUv } from '../surface/similarity.ts';
import { boxOf } from '../surface/uvBox.ts';
import { upInFlat, upwards } from '../unfold/upright.ts';
import { runsIn } from './constraints.ts';
import { type HemDocument, topologyOf } from './document.ts';
import { grainSense } from './grainMark.ts';

/**
 * Which way the material of a shell runs as it lies flat: along its grain line, or else up, where enough of it agrees on what is up.
 *
 * @returns a direction of no certain length; undefined where there is neither
 */
export function grainInFlat(
  document: HemDocument,
  s: number,
  shell: Shell,
  uv: Float64Array,
): { readonly along: readonly [u: number, v: number]; readonly isLine: boolean } | undefined {
  const edges = grainOf(document, s, shell);
  if (edges.length > 0) {
    const along: [number, number] = [0, 0];
    for (let i = 0; i < edges.length; i += 2)
      for (const k of [0, 1]) along[k] += uv[2 * edges[i + 1] + k] - uv[2 * edges[i] + k];
    if (Math.hypot(...along) > 0) return { along, isLine: true };
  }
  const [u, v, strength] = upwards(shell, uv, document.upAxis);
  return strength > AGREED ? { along: [u, v], isLine: false } : undefined;
}

/** Where less of a shell agrees on what is up, it has none. */
const AGREED = 0.5;

/** Turns a flat shell about the middle of its box so that its grain line runs up, or what is up on the model where it has none. */
export function turnedAlongGrain(
  document: HemDocument,
  s: number,
  shell: Shell,
  uv: Float64Array,
): Float64Array {
  const [u, v] = grainInFlat(document, s, shell, uv)?.along ?? upInFlat(shell, uv, document.upAxis);
  const length = Math.hypot(u, v);
  if (!(length > 0)) return uv;
  const [c, d] = [v / length, u / length];
  const turned = transformUv(uv, [c, d, -d, c, 0, 0]);
  const [was, is] = [middle(uv), middle(turned)];
  return transformUv(turned, [1, 0, 0, 1, was[0] - is[0], was[1] - is[1]]);
}

function middle(uv: Float64Array): [number, number] {
  const [minU, minV, maxU, maxV] = boxOf(uv);
  return [(minU + maxU) / 2, (minV + maxV) / 2];
}

/** Whether a shell has a grain line. */
export const hasGrain = (document: HemDocument, s: number): boolean =>
  document.grain.some(Boolean) && runsIn(document, s, document.grain).length > 0;

/** Shell vertices at both ends of every chain of the grain line, in the direction in which it runs. */
function grainOf(document: HemDocument, s: number, { positions, vertexCorner }: Shell): number[] {
  if (!document.grain.some(Boolean)) return [];
  const { connectivity } = topologyOf(document.model);
  const { cornerVertex } = document.model.mesh;
  return runsIn(document, s, document.grain).flatMap(({ vertices }) => {
    const [a, b] = [vertices[0], vertices[vertices.length - 1]];
    const way = [0, 1, 2].map((k) => positions[3 * b + k] - positions[3 * a + k]);
    const along = vertices.map((v) => cornerVertex[vertexCorner[v]]);
    const marks = along.slice(1).map((to, i) => document.grain[findEdge(connectivity, along[i], to)]);
    return runsOnward(along, marks, way, document.upAxis) ? [a, b] : [b, a];
  });
}

/**
 * Whether the grain runs along a chain as its vertices are told, or back: as most of its edges are marked, or else as the whole of it
 * points up.
 *
 * @param vertices  of the mesh, one after the other
 * @param marks  of the edges between them
 * @param way  x, y and z from the first to the last
 */
export function runsOnward(
  vertices: readonly number[],
  marks: readonly number[],
  way: readonly number[],
  upAxis: number,
): boolean {
  const sense = marks.reduce((sum, mark, i) => sum + grainSense(mark, vertices[i], vertices[i + 1]), 0);
  return sense === 0 ? pointsUp(way, upAxis) : sense > 0;
}

/**
 * Whether grain that is not marked otherwise runs along a way, or back along it: upwards, and where it is level away from the viewer, or to the right.
 *
 * @param way  x, y and z
 */
function pointsUp(way: readonly number[], upAxis: number): boolean {
  const [up, away, sign] = upAxis === 1 ? [2, 1, 1] : [1, 2, -1];
  // Nearly level is level: what counts is where it leads.
  const level = LEVEL * Math.hypot(...way);
  return ([way[up], sign * way[away], way[0]].find((x) => Math.abs(x) > level) ?? 1) > 0;
}

/** Ascent, as a part of its length, below which a chain lies level. */
const LEVEL = 0.05;
