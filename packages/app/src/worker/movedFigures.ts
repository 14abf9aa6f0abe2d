import type { ShellFigures } from '@blunt-hem/core/document/figures';
import type { Mesh } from '@blunt-hem/core/mesh/mesh';

/** Places that agree to this part of the shell's size are the same. */
const SAME = 1e-9;

/**
 * Figures of a shell that was only moved and scaled: those it had, but for where it lies and how large it is. A layout that is made afresh
 * does that to every shell, and none of them need be measured anew.
 *
 * @returns undefined where more was done to it
 */
export function movedFigures(
  { faceStart }: Mesh,
  faces: Iterable<number>,
  before: Float64Array,
  after: Float64Array,
  figures: ShellFigures,
): ShellFigures | undefined {
  const { box, stretch } = figures;
  if (!box || !stretch || before.length !== after.length) return undefined;
  let [minU, minV, maxU, maxV] = [Infinity, Infinity, -Infinity, -Infinity];
  for (const f of faces) {
    for (let c = faceStart[f]; c < faceStart[f + 1]; c++) {
      minU = Math.min(minU, after[2 * c]);
      minV = Math.min(minV, after[2 * c + 1]);
      maxU = Math.max(maxU, after[2 * c]);
      maxV = Math.max(maxV, after[2 * c + 1]);
    }
  }
  const scale = Math.hypot(maxU - minU, maxV - minV) / Math.hypot(box[2] - box[0], box[3] - box[1]);
  const close = SAME * Math.hypot(maxU - minU, maxV - minV);
  for (const f of faces) {
    for (let c = faceStart[f]; c < faceStart[f + 1]; c++) {
      const du = minU + scale * (before[2 * c] - box[0]) - after[2 * c];
      const dv = minV + scale * (before[2 * c + 1] - box[1]) - after[2 * c + 1];
      // Not a number is no agreement.
      if (!(Math.abs(du) <= close && Math.abs(dv) <= close)) return undefined;
    }
  }
  return {
    ...figures,
    box: [minU, minV, maxU, maxV],
    stretch: { ...stretch, uvArea: stretch.uvArea * scale * scale },
  };
}
