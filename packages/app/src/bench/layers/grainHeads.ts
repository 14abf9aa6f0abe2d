import { runsOnward } from '@blunt-hem/core/document/grain';
import { runsOfEdges } from '@blunt-hem/core/select/orderedRun';
import { type FlatBuffers, type ModelBuffers, NO_UV, NOWHERE } from '../../worker/protocol.ts';

/** Half of how wide a head is, as a part of its length. */
const WIDE = 0.45;

/**
 * Heads at the ends of grain lines, as arrows have them: xyz of both ends of two lines each.
 *
 * @param flat  where they lie on the Board, and how high above it; on the model when absent
 * @param size  length of a head
 */
export function grainHeads(
  model: Pick<ModelBuffers, 'edgeEnds' | 'edgeVertices' | 'cornerVertex' | 'positions'>,
  { grain, grainMarks }: Pick<FlatBuffers, 'grain' | 'grainMarks'>,
  upAxis: number,
  size: number,
  flat?: { readonly uv: Float32Array; readonly height: number },
): Float32Array {
  const { edgeEnds, edgeVertices, cornerVertex, positions } = model;
  const lines: number[] = [];
  const markOf = new Map(Array.from(grain, (e, i) => [e, grainMarks[i]]));
  for (const { edges, vertices, closed } of runsOfEdges({ edgeVertices }, grain)) {
    if (closed) continue;
    const drawnAt = (edge: number, vertex: number): number =>
      [0, 1].map((k) => edgeEnds[4 * edge + k]).find((at) => cornerVertex[at] === vertex) ?? NOWHERE;
    const [first, last] = [
      drawnAt(edges[0], vertices[0]),
      drawnAt(edges[edges.length - 1], vertices[vertices.length - 1]),
    ];
    if (first === NOWHERE || last === NOWHERE) continue;
    const solid = (at: number) => [...positions.subarray(3 * at, 3 * at + 3)];
    const marks = edges.map((e) => markOf.get(e) ?? 0);
    const isOnward = runsOnward(vertices, marks, minus(solid(last), solid(first)), upAxis);
    const [from, tip] = isOnward ? [first, last] : [last, first];
    if (flat && (flat.uv[2 * tip] === NO_UV || flat.uv[2 * from] === NO_UV)) continue;
    const place = (at: number) => (flat ? [flat.uv[2 * at], flat.uv[2 * at + 1], flat.height] : solid(at));
    lines.push(
      ...headAt(
        place(tip),
        minus(place(from), place(tip)),
        flat ? [0, 0, 1] : normalAt(positions, tip),
        size,
      ),
    );
  }
  return Float32Array.from(lines);
}

/** @param back  from the tip, of any length */
function headAt(
  tip: readonly number[],
  back: readonly number[],
  normal: readonly number[],
  size: number,
): number[] {
  const along = unit(back);
  const aside = unit(cross(along, normal));
  return [WIDE, -WIDE].flatMap((way) => [
    ...tip,
    ...tip.map((x, k) => x + size * (along[k] + way * aside[k])),
  ]);
}

/** Of the triangle that a drawn vertex is of. */
function normalAt(positions: Float32Array, drawn: number): number[] {
  const t = 3 * Math.floor(drawn / 3);
  const [a, b, c] = [t, t + 1, t + 2].map((at) => [...positions.subarray(3 * at, 3 * at + 3)]);
  return cross(minus(b, a), minus(c, a));
}

const minus = (a: readonly number[], b: readonly number[]): number[] => a.map((x, k) => x - b[k]);
const cross = (a: readonly number[], b: readonly number[]): number[] => [
  a[1] * b[2] - a[2] * b[1],
  a[2] * b[0] - a[0] * b[2],
  a[0] * b[1] - a[1] * b[0],
];
function unit(a: readonly number[]): number[] {
  const length = Math.hypot(...a) || 1;
  return a.map((x) => x / length);
}
