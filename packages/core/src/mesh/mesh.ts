/**
 * A polygon mesh. A corner is one vertex of one face; corners of a face are consecutive and run
 * anticlockwise seen from outside.
 */
export interface Mesh {
  /** xyz per vertex, `3 × vertexCount`, model units. */
  readonly positions: Float64Array;
  /** First corner of each face, and one past the last corner: `faceCount + 1`. */
  readonly faceStart: Uint32Array;
  /** Vertex of each corner. */
  readonly cornerVertex: Uint32Array;
}

export const vertexCount = (mesh: Mesh): number => mesh.positions.length / 3;
export const faceCount = (mesh: Mesh): number => mesh.faceStart.length - 1;
export const cornerCount = (mesh: Mesh): number => mesh.cornerVertex.length;

/** A mesh from plain lists, for scripts and tests. */
export function meshFromPolygons(
  vertices: readonly (readonly number[])[],
  faces: readonly (readonly number[])[],
): Mesh {
  const faceStart = new Uint32Array(faces.length + 1);
  faces.forEach((face, f) => {
    faceStart[f + 1] = faceStart[f] + face.length;
  });
  return {
    positions: Float64Array.from(vertices.flat()),
    faceStart,
    cornerVertex: Uint32Array.from(faces.flat()),
  };
}

/** Face of each corner. */
export function cornerFaces(mesh: Mesh): Uint32Array {
  const faces = new Uint32Array(cornerCount(mesh));
  for (let f = 0; f < faceCount(mesh); f++) faces.fill(f, mesh.faceStart[f], mesh.faceStart[f + 1]);
  return faces;
}

/** Smallest and greatest x, y, z over all vertices: `[minX, minY, minZ, maxX, maxY, maxZ]`. */
export function boundingBox(positions: Float64Array): Float64Array {
  const box = new Float64Array([Infinity, Infinity, Infinity, -Infinity, -Infinity, -Infinity]);
  for (let i = 0; i < positions.length; i++) {
    const axis = i % 3;
    if (positions[i] < box[axis]) box[axis] = positions[i];
    if (positions[i] > box[axis + 3]) box[axis + 3] = positions[i];
  }
  return box;
}
