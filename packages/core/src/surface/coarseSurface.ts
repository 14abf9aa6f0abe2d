import { type Connectivity, connectivityOf } from '../mesh/connectivity.ts';
import type { Mesh } from '../mesh/mesh.ts';
import type { Context } from '../progress.ts';
import { coarseTriangles } from './coarseTriangles.ts';
import { type Shell, shellFromTriangles } from './shell.ts';

/** A shell with fewer triangles, and where it has one its own mirror image. */
export interface CoarseSurface {
  readonly mesh: Mesh;
  readonly connectivity: Connectivity;
  /** Vertex of the shell that each of its vertices is. */
  readonly vertex: Uint32Array;
  /** What each becomes in the mirror; undefined for a shell that is not its own image. */
  readonly image?: {
    readonly vertices: Int32Array;
    readonly edges: Int32Array;
    /** Faces from this one on are images of those before, in the same order. */
    readonly half: number;
  };
}

/**
 * @param count  triangles that are enough
 * @throws StoppedError
 */
export function coarseSurface(
  { positions, triangles }: Shell,
  count: number,
  signal?: Context['signal'],
): CoarseSurface {
  return compact(positions, coarseTriangles(positions, triangles, count, signal));
}

/**
 * A shell as it is where it has few triangles; of a larger one a coarser shell, which stretches nearly alike.
 *
 * @throws StoppedError
 */
export function likeShell(shell: Shell, mostTriangles: number, signal?: Context['signal']): Shell {
  if (shell.triangles.length <= 3 * mostTriangles) return shell;
  const { mesh } = coarseSurface(shell, mostTriangles, signal);
  return shellFromTriangles(mesh.positions, mesh.cornerVertex);
}

/**
 * A coarser surface of a shell that is its own mirror image: one half is made coarser, and the other is its image.
 *
 * @param image  of each vertex of the shell; itself for those in the plane
 * @param isOurs  whether a triangle is of the half that leads
 * @throws StoppedError
 */
export function symmetricSurface(
  { positions, triangles }: Shell,
  image: Int32Array,
  isOurs: (triangle: number) => boolean,
  count: number,
  signal?: Context['signal'],
): CoarseSurface {
  const half: number[] = [];
  for (let t = 0; 3 * t < triangles.length; t++)
    if (isOurs(t)) half.push(triangles[3 * t], triangles[3 * t + 1], triangles[3 * t + 2]);
  const ours = coarseTriangles(positions, Uint32Array.from(half), count / 2, signal);
  const whole = new Uint32Array(2 * ours.length);
  whole.set(ours);
  for (let i = 0; i < ours.length; i += 3)
    whole.set([image[ours[i]], image[ours[i + 2]], image[ours[i + 1]]], ours.length + i);
  const surface = compact(positions, whole);
  const { vertex, connectivity } = surface;
  const number = new Map<number, number>();
  vertex.forEach((v, i) => {
    number.set(v, i);
  });
  const vertices = Int32Array.from(vertex, (v) => number.get(image[v]) ?? -1);
  const edges = new Int32Array(connectivity.isInterior.length).fill(-1);
  const byEnds = new Map<number, number>();
  const key = (a: number, b: number) => Math.min(a, b) * vertex.length + Math.max(a, b);
  for (let e = 0; e < edges.length; e++)
    byEnds.set(key(connectivity.edgeVertices[2 * e], connectivity.edgeVertices[2 * e + 1]), e);
  for (let e = 0; e < edges.length; e++)
    edges[e] =
      byEnds.get(
        key(vertices[connectivity.edgeVertices[2 * e]], vertices[connectivity.edgeVertices[2 * e + 1]]),
      ) ?? -1;
  return { ...surface, image: { vertices, edges, half: ours.length / 3 } };
}

/** Triangles over some vertices, numbered anew. */
function compact(positions: Float64Array, triangles: Uint32Array): CoarseSurface {
  const vertex = Uint32Array.from(new Set(triangles)).sort();
  const number = new Map<number, number>();
  vertex.forEach((v, i) => {
    number.set(v, i);
  });
  const mesh: Mesh = {
    positions: Float64Array.from(
      { length: 3 * vertex.length },
      (_, i) => positions[3 * vertex[Math.floor(i / 3)] + (i % 3)],
    ),
    faceStart: Uint32Array.from({ length: triangles.length / 3 + 1 }, (_, f) => 3 * f),
    cornerVertex: triangles.map((v) => number.get(v) as number),
  };
  return { mesh, connectivity: connectivityOf(mesh), vertex };
}
