import { applyDelta } from '../document/delta.ts';
import { current, type HemDocument, topologyOf } from '../document/document.ts';
import { densityOf } from '../document/layout.ts';
import { subjectOf } from '../inspect/subject.ts';
import type { Triangulation } from '../mesh/triangulate.ts';
import { project, projectedUv, projectParams } from '../operations/unfold/project.ts';
import { spoiltFaces } from '../projections/projectFaces.ts';
import { boxOf } from '../surface/uvBox.ts';
import { question } from './question.ts';

/** How faces would lie by a projection, before it is taken. */
export interface ProjectionPreview {
  readonly triangles: Uint32Array;
  /** u and v of their corners, tile units, in the middle of the tile: `6 × triangles.length`. */
  readonly uv: Float32Array;
  readonly collapsed: number;
  readonly mirrored: number;
  readonly outside: number;
  /** Where the projection stands; of the first group where each has its own. */
  readonly frame: {
    readonly origin: readonly number[];
    readonly toward: readonly number[];
    readonly up: readonly number[];
  };
}

export const projection = question({
  name: 'projection',
  params: projectParams,
  byHand: true,
  async answer(document, params, context): Promise<ProjectionPreview> {
    const { mesh, triangulation, triangleStart } = topologyOf(document.model);
    const { uv, projected, outside, frame } = projectedUv(document, params);
    const { collapsed } = spoiltFaces(mesh, projected, uv);
    const triangles = trianglesOf(projected, triangleStart);
    const isExact = projected.length <= MOST_EXACT && collapsed.length < projected.length;
    // What is shown is what the act leads to, where that is quick to know.
    const after = isExact
      ? applyDelta(document, await project.run(document, params, { ...context, signal: { aborted: false } }))
      : undefined;
    const flat = after
      ? cornersOf(triangulation, triangles, current(after).uv)
      : inTheMiddle(cornersOf(triangulation, triangles, uv), document, params.size);
    const { origin, toward, up } = frame;
    return {
      triangles,
      uv: flat,
      collapsed: collapsed.length,
      mirrored: after ? flippedAmong(after, projected) : spoiltFaces(mesh, projected, uv).mirrored.length,
      outside: outside.length,
      frame: { origin, toward, up },
    };
  },
});

/** Of more faces than these what an act leads to is not worked out in passing. */
const MOST_EXACT = 60_000;

/** How many of some faces lie upside down, as the strip counts them. */
function flippedAmong(document: HemDocument, faces: readonly number[]): number {
  const none = new Uint32Array(0);
  const flipped = new Set(subjectOf(document, none, none).flipped);
  return faces.reduce((sum, f) => sum + (flipped.has(f) ? 1 : 0), 0);
}

/** u and v of the corners of some triangles: `6 × triangles.length`. */
function cornersOf(
  { triangleCorners }: Triangulation,
  triangles: Uint32Array,
  uv: Float64Array,
): Float32Array {
  const flat = new Float32Array(6 * triangles.length);
  for (let i = 0; i < flat.length / 2; i++) {
    const c = triangleCorners[3 * triangles[Math.floor(i / 3)] + (i % 3)];
    flat[2 * i] = uv[2 * c];
    flat[2 * i + 1] = uv[2 * c + 1];
  }
  return flat;
}

/** The same in the middle of the tile, at the scale of what lies there. */
function inTheMiddle(flat: Float32Array, document: HemDocument, size: number): Float32Array {
  const [minU, minV, maxU, maxV] = boxOf(Float64Array.from(flat));
  const fit = 0.9 / Math.max(maxU - minU, maxV - minV, 1e-12);
  const scale = document.placed ? (densityOf(document) ?? fit) * size : fit;
  const middle = [(minU + maxU) / 2, (minV + maxV) / 2];
  return flat.map((x, i) => 0.5 + scale * (x - middle[i & 1]));
}

function trianglesOf(faces: readonly number[], triangleStart: Uint32Array): Uint32Array {
  let count = 0;
  for (const f of faces) count += triangleStart[f + 1] - triangleStart[f];
  const triangles = new Uint32Array(count);
  let at = 0;
  for (const f of faces) for (let t = triangleStart[f]; t < triangleStart[f + 1]; t++) triangles[at++] = t;
  return triangles;
}
