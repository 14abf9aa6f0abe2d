import { growOverTriangles } from './growOverTriangles.ts';

/** Rings of triangles round what was moved that may move. */
const RINGS = 6;

/**
 * What stays while a map is evened out where some of it was mended.
 *
 * @param before, after  the map without and with what was mended, `2 × vertexCount`
 * @param held  1 for each vertex that stays anyway
 * @returns 1 for every vertex but those within some rings of what differs
 */
export function heldFarFrom(
  triangles: Uint32Array,
  before: Float64Array,
  after: Float64Array,
  held: Uint8Array,
): Uint8Array {
  const near = new Uint8Array(held.length);
  before.forEach((x, i) => {
    if (x !== after[i]) near[i >> 1] = 1;
  });
  growOverTriangles(triangles, near, RINGS);
  return near.map((isNear, v) => (isNear && !held[v] ? 0 : 1));
}
