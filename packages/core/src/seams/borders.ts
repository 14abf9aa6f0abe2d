/** The borders of a triangle mesh. */
export interface Borders {
  /** Vertices of each border loop in the direction of the triangles beside it, longest loop first. */
  readonly loops: readonly Uint32Array[];
  /** How many edges there are, borders and joined ones. */
  readonly edgeCount: number;
  /** True when some edge has more than two triangles, or two that disagree in winding. */
  readonly tangled: boolean;
}

/**
 * @param triangles  three vertices each
 * @param vertexCount  one more than the greatest vertex
 */
export function borders(triangles: Uint32Array, vertexCount: number): Borders {
  // One key per directed edge; a direction seen twice means a third triangle or mixed winding.
  const halfEdges = new Set<number>();
  let tangled = false;
  for (let i = 0; i < triangles.length; i++) {
    const to = triangles[i % 3 === 2 ? i - 2 : i + 1];
    const key = triangles[i] * vertexCount + to;
    if (halfEdges.has(key)) tangled = true;
    halfEdges.add(key);
  }
  const next = new Map<number, number>();
  let borderEdges = 0;
  for (let i = 0; i < triangles.length; i++) {
    const from = triangles[i];
    const to = triangles[i % 3 === 2 ? i - 2 : i + 1];
    if (halfEdges.has(to * vertexCount + from)) continue;
    borderEdges++;
    if (next.has(from)) tangled = true;
    next.set(from, to);
  }
  const loops: Uint32Array[] = [];
  while (next.size > 0) {
    const loop: number[] = [];
    let v = next.keys().next().value as number;
    for (let to = next.get(v); to !== undefined; to = next.get(v)) {
      loop.push(v);
      next.delete(v);
      v = to;
    }
    loops.push(Uint32Array.from(loop));
  }
  loops.sort((a, b) => b.length - a.length);
  return { loops, edgeCount: (triangles.length + borderEdges) / 2, tangled };
}
