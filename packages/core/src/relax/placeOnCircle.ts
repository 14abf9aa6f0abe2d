/**
 * Lays a border loop on a circle about the origin, anticlockwise, each edge taking an arc in proportion to its length.
 *
 * @param uv  `2 × vertexCount`; receives the places of the loop's vertices
 */
export function placeOnCircle(
  positions: Float64Array,
  loop: Uint32Array,
  radius: number,
  uv: Float64Array,
): void {
  const lengths = Array.from(loop, (v, i) => {
    const w = loop[(i + 1) % loop.length];
    return Math.hypot(
      positions[3 * v] - positions[3 * w],
      positions[3 * v + 1] - positions[3 * w + 1],
      positions[3 * v + 2] - positions[3 * w + 2],
    );
  });
  // A border edge of no length still needs an arc, or two vertices would coincide.
  const mean = lengths.reduce((a, b) => a + b, 0) / lengths.length || 1;
  const arcs = lengths.map((length) => Math.max(length, 1e-3 * mean));
  const turn = (2 * Math.PI) / arcs.reduce((a, b) => a + b, 0);
  let angle = 0;
  loop.forEach((v, i) => {
    uv[2 * v] = radius * Math.cos(angle);
    uv[2 * v + 1] = radius * Math.sin(angle);
    angle += arcs[i] * turn;
  });
}
