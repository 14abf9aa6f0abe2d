import type { Mesh } from '../mesh/mesh.ts';
import type { ShellMap } from './shells.ts';
import type { UvBox } from './uvBox.ts';

/**
 * Where every shell lies; undefined for one with missing UVs.
 *
 * @param uv  of every corner
 */
export function boxesOfShells(
  { faceStart }: Pick<Mesh, 'faceStart'>,
  { shellCount, faceShell }: Pick<ShellMap, 'shellCount' | 'faceShell'>,
  uv: Float64Array,
): (UvBox | undefined)[] {
  const box = new Float64Array(4 * shellCount);
  for (let s = 0; s < shellCount; s++) box.set([Infinity, Infinity, -Infinity, -Infinity], 4 * s);
  for (let f = 0; f < faceShell.length; f++) {
    const at = 4 * faceShell[f];
    for (let c = faceStart[f]; c < faceStart[f + 1]; c++) {
      const u = uv[2 * c];
      const v = uv[2 * c + 1];
      // NaN wins every such comparison, and stays.
      box[at] = Math.min(box[at], u);
      box[at + 1] = Math.min(box[at + 1], v);
      box[at + 2] = Math.max(box[at + 2], u);
      box[at + 3] = Math.max(box[at + 3], v);
    }
  }
  return Array.from({ length: shellCount }, (_, s) => {
    const [a, b, c, d] = box.subarray(4 * s, 4 * s + 4);
    return Number.isNaN(a + b) ? undefined : ([a, b, c, d] as const);
  });
}
