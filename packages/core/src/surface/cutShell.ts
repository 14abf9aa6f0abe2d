import { connectivityOf } from '../mesh/connectivity.ts';
import type { Mesh } from '../mesh/mesh.ts';
import { triangulate } from '../mesh/triangulate.ts';
import { extractShell, faceTriangleStart, type Shell } from './shell.ts';
import { shellsFromSeams } from './shells.ts';

/** The faces of a shell as a mesh, polygons where it has them; its vertices are those of the shell. */
export function meshOfShell({ positions, triangles, polygons }: Shell): Mesh {
  if (polygons) return { positions, ...polygons };
  const faceStart = Uint32Array.from({ length: triangles.length / 3 + 1 }, (_, f) => 3 * f);
  return { positions, faceStart, cornerVertex: triangles };
}

/** A mesh that can be cut into pieces. */
export function partsOf(mesh: Mesh) {
  const connectivity = connectivityOf(mesh);
  const triangulation = triangulate(mesh);
  const triangleStart = faceTriangleStart(mesh, triangulation);
  return {
    connectivity,
    /** What it falls into with some edges open; vertices tell corners of the mesh. */
    parts(edges: readonly number[]): Shell[] {
      const seams = new Uint8Array(connectivity.isInterior.length);
      for (const e of edges) seams[e] = 1;
      const shells = shellsFromSeams(mesh, connectivity, seams);
      return Array.from({ length: shells.shellCount }, (_, s) =>
        extractShell(mesh, triangulation, triangleStart, shells, s),
      );
    },
  };
}

/** A shell as a mesh that can be cut. */
export function cuttable(shell: Shell) {
  const mesh = meshOfShell(shell);
  const { connectivity, parts } = partsOf(mesh);
  return {
    mesh,
    connectivity,
    /**
     * The shell with some edges open.
     *
     * @returns undefined where it falls into pieces
     */
    cut(edges: readonly number[]): Shell | undefined {
      const pieces = parts(edges);
      return pieces.length === 1 ? pieces[0] : undefined;
    },
  };
}
