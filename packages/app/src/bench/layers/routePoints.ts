import { BufferAttribute, BufferGeometry, Points, PointsMaterial } from 'three';
import { PALETTE } from '../../theme/palette.ts';
import type { Layer } from './layer.ts';

/** Pixels across. */
const SIZE = 10;

/** The points that a route leads through. */
export const routePoints: Layer = {
  name: 'points of the route',
  pane: 'model',
  passing: true,
  make() {
    const geometry = new BufferGeometry();
    const material = new PointsMaterial({
      color: PALETTE.fuchsia,
      size: SIZE,
      sizeAttenuation: false,
      depthTest: false,
    });
    const object = new Points(geometry, material);
    object.frustumCulled = false;
    object.renderOrder = 6;
    object.visible = false;
    return {
      object,
      needs: (s) => [s.route?.points],
      update({ route }) {
        const places = route?.points.flatMap(({ at }) => [...at]) ?? [];
        object.visible = places.length > 0;
        geometry.setAttribute('position', new BufferAttribute(Float32Array.from(places), 3));
      },
      dispose() {
        geometry.dispose();
        material.dispose();
      },
    };
  },
};
