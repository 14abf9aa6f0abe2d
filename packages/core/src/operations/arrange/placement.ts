import type { FlatShell, Placement } from '../../arrange/packShells.ts';
import { transformUv } from '../../surface/similarity.ts';

/** A shell's triangles by their corners' UV, as packing and overlap want them. */
export function flatShell(triangles: Uint32Array, uv: Float64Array): FlatShell {
  const flat = new Float64Array(2 * triangles.length);
  for (let i = 0; i < triangles.length; i++) {
    flat[2 * i] = uv[2 * triangles[i]];
    flat[2 * i + 1] = uv[2 * triangles[i] + 1];
  }
  return flat;
}

/** UVs moved to where packing put them. */
export function applyPlacement(
  uv: Float64Array,
  { quarterTurns, scale, moveU, moveV }: Placement,
): Float64Array {
  const c = [1, 0, -1, 0][quarterTurns] * scale;
  const s = [0, 1, 0, -1][quarterTurns] * scale;
  return transformUv(uv, [c, s, -s, c, moveU, moveV]);
}
