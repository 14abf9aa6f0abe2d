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
    let of: readonly unknown[] = [];
    let triangles: readonly number[] = [];
    return {
      object,
      needs: (s) => [s.model, s.layout, s.flat, s.dark, drawn.version],
      update({ model, layout, dark }) {
        material.color.set(dark ? PALETTE.night : PALETTE.ink);
        if (model !== of[0] || layout !== of[1]) {
          of = [model, layout];
          triangles = model ? trianglesOf(model.triangleFace, new Set(layout?.overlaps)) : [];
        }
        object.visible = triangles.length > 0;
        if (!object.visible) return;
        geometry.setAttribute('position', new BufferAttribute(dotsIn(drawn.uv, triangles), 3));
      },
      dispose() {
        geometry.dispose();
        material.dispose();
      },
    };
  },
};

function trianglesOf(triangleFace: Uint32Array, faces: ReadonlySet<number>): number[] {
  const triangles: number[] = [];
  if (faces.size > 0)
    for (let t = 0; t < triangleFace.length; t++) if (faces.has(triangleFace[t])) triangles.push(t);
  return triangles;
}

/** The middles of triangles, as they are drawn in the flat: xyz. */
function dotsIn(uv: Float32Array, triangles: readonly number[]): Float32Array {
  const dots: number[] = [];
  for (const t of triangles) {
    if (uv[6 * t] === NO_UV) continue;
    const at = 6 * t;
    dots.push((uv[at] + uv[at + 2] + uv[at + 4]) / 3, (uv[at + 1] + uv[at + 3] + uv[at + 5]) / 3, HEIGHT);
  }
  return Float32Array.from(dots);
}
