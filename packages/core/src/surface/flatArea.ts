/** Area of a flat shell, flipped triangles counted against it. */
export function signedArea(triangles: Uint32Array, uv: Float64Array): number {
  let area = 0;
  for (let t = 0; t < triangles.length / 3; t++) area += triangleArea(triangles, uv, t);
  return area;
}

/** Area that the triangles of a flat shell cover together, on whichever side they lie. */
export function coveredArea(triangles: Uint32Array, uv: Float64Array): number {
  let area = 0;
  for (let t = 0; t < triangles.length / 3; t++) area += Math.abs(triangleArea(triangles, uv, t));
  return area;
}

/** Area of triangle t in the flat, negative when it is flipped. */
export function triangleArea(triangles: Uint32Array, uv: Float64Array, t: number): number {
  const a = 2 * triangles[3 * t];
  const b = 2 * triangles[3 * t + 1];
  const c = 2 * triangles[3 * t + 2];
  return 0.5 * ((uv[b] - uv[a]) * (uv[c + 1] - uv[a + 1]) - (uv[b + 1] - uv[a + 1]) * (uv[c] - uv[a]));
}
