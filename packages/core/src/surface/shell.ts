import type { Mesh } from '../mesh/mesh.ts';
import type { Triangulation } from '../mesh/triangulate.ts';
import { facesOfShell, type ShellMap } from './shells.ts';

/** One shell as a triangle mesh of its own, ready for a solver. */
export interface Shell {
  /** xyz per shell vertex, `3 × vertexCount`, model units. */
  readonly positions: Float64Array;
  /** Three shell vertices per triangle, anticlockwise from outside. */
  readonly triangles: Uint32Array;
  /** Face of the model of each triangle. */
  readonly triangleFace: Uint32Array;
  /** A corner of the model at each shell vertex. */
  readonly vertexCorner: Uint32Array;
  /** Where not every face is a triangle, its faces as they were before they were split, with shell vertices at their corners. */
  readonly polygons?: Omit<Mesh, 'positions'>;
}

/** Triangles of every face: `faceTriangleStart[f] … faceTriangleStart[f + 1]`. */
export function faceTriangleStart(mesh: Mesh, triangulation: Triangulation): Uint32Array {
  const faces = mesh.faceStart.length - 1;
  const start = new Uint32Array(faces + 1);
  for (const f of triangulation.triangleFace) start[f + 1]++;
  for (let f = 0; f < faces; f++) start[f + 1] += start[f];
  return start;
}

/** Takes shell number `shell` out of the model. */
export function extractShell(
  mesh: Mesh,
  triangulation: Triangulation,
  triangleStart: Uint32Array,
  shells: ShellMap,
  shell: number,
): Shell {
  const faces = facesOfShell(shells, shell);
  let count = 0;
  for (const f of faces) count += triangleStart[f + 1] - triangleStart[f];
  const triangles = new Uint32Array(3 * count);
  const triangleFace = new Uint32Array(count);
  let corners = 0;
  for (const f of faces) corners += mesh.faceStart[f + 1] - mesh.faceStart[f];
  const polygons =
    corners > 3 * faces.length
      ? { faceStart: new Uint32Array(faces.length + 1), cornerVertex: new Uint32Array(corners) }
      : undefined;
  const firstWedge = shells.wedgeStart[shell];
  const vertices = shells.wedgeStart[shell + 1] - firstWedge;
  const vertexCorner = new Uint32Array(vertices);
  let at = 0;
  let [face, corner] = [0, 0];
  for (const f of faces) {
    for (let c = mesh.faceStart[f]; c < mesh.faceStart[f + 1]; c++) {
      const v = shells.cornerWedge[c] - firstWedge;
      vertexCorner[v] = c;
      if (polygons) polygons.cornerVertex[corner++] = v;
    }
    if (polygons) polygons.faceStart[++face] = corner;
    for (let t = triangleStart[f]; t < triangleStart[f + 1]; t++) {
      triangleFace[at / 3] = f;
      for (let k = 0; k < 3; k++) {
        triangles[at++] = shells.cornerWedge[triangulation.triangleCorners[3 * t + k]] - firstWedge;
      }
    }
  }
  const positions = new Float64Array(3 * vertices);
  for (let v = 0; v < vertices; v++) {
    const p = 3 * mesh.cornerVertex[vertexCorner[v]];
    positions[3 * v] = mesh.positions[p];
    positions[3 * v + 1] = mesh.positions[p + 1];
    positions[3 * v + 2] = mesh.positions[p + 2];
  }
  return { positions, triangles, triangleFace, vertexCorner, polygons };
}

/** A shell that is a whole triangle mesh, for scripts and tests. */
export function shellFromTriangles(positions: ArrayLike<number>, triangles: ArrayLike<number>): Shell {
  return {
    positions: Float64Array.from(positions),
    triangles: Uint32Array.from(triangles),
    triangleFace: Uint32Array.from({ length: triangles.length / 3 }, (_, t) => t),
    vertexCorner: Uint32Array.from({ length: positions.length / 3 }, (_, v) => v),
  };
}
