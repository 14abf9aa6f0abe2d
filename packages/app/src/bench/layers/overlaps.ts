import { BufferAttribute, BufferGeometry, Points, PointsMaterial } from 'three';
import { PALETTE } from '../../theme/palette.ts';
import { NO_UV } from '../../worker/protocol.ts';
import type { Layer } from './layer.ts';

/** Above the shells and their lines. */
const HEIGHT = 0.15;
/** Pixels across. */
const DOT = 4;

/** A dot in every triangle that lies on another: where they are, and not by colour alone. */
export const overlapDots: Layer = {
  name: 'overlaps',
  pane: 'board',
  make({ drawn }) {
    const material = new PointsMaterial({ size: DOT, sizeAttenuation: false });
    const geometry = new BufferGeometry();
    const object = new Points(geometry, material);
    object.frustumCulled = false;
    object.renderOrder = 5;
    return {
      object,
      needs: (s) => [s.model, s.layout, s.flat, s.dark, drawn.version],
      update({ model, layout, dark }) {
        material.color.set(dark ? PALETTE.night : PALETTE.ink);
        const faces = new Set(layout?.overlaps);
        object.visible = model !== undefined && faces.size > 0;
        if (!model || !object.visible) return;
        geometry.setAttribute(
          'position',
          new BufferAttribute(dotsIn(model.triangleFace, drawn.uv, faces), 3),
        );
      },
      dispose() {
        geometry.dispose();
        material.dispose();
      },
    };
  },
};

/** The middles of the triangles of faces, as they are drawn in the flat: xyz. */
export function dotsIn(
  triangleFace: Uint32Array,
  uv: Float32Array,
  faces: ReadonlySet<number>,
): Float32Array {
  const dots: number[] = [];
  for (let t = 0; t < triangleFace.length; t++) {
    if (!faces.has(triangleFace[t]) || uv[6 * t] === NO_UV) continue;
    const at = 6 * t;
    dots.push((uv[at] + uv[at + 2] + uv[at + 4]) / 3, (uv[at + 1] + uv[at + 3] + uv[at + 5]) / 3, HEIGHT);
  }
  return Float32Array.from(dots);
}
