/**
 * Marks also the vertices within some rings of triangles round those that are marked.
 *
 * @param marked  1 for each of them; receives the others
 */
export function growOverTriangles(triangles: Uint32Array, marked: Uint8Array, rings: number): void {
  for (let ring = 0; ring < rings; ring++) {
    const before = marked.slice();
    for (let i = 0; i < triangles.length; i += 3)
      if (before[triangles[i]] || before[triangles[i + 1]] || before[triangles[i + 2]])
        for (let k = 0; k < 3; k++) marked[triangles[i + k]] = 1;
  }
}
