import fc from 'fast-check';
import { Matrix4, PerspectiveCamera, Vector3 } from 'three';
import { describe, expect, it } from 'vitest';
import { cornersOf, distanceToSee } from './fitting.ts';

const size = fc.double({ min: 0.01, max: 30, noNaN: true });
const part = fc.double({ min: -1, max: 1, noNaN: true });

describe('framing', () => {
  it('shows all of a box in a pane of any shape, standing either way, and fills it as far as it goes', () => {
    fc.assert(
      fc.property(
        fc.tuple(size, size, size),
        fc.tuple(part, part, part),
        fc.double({ min: 0.2, max: 4, noNaN: true }),
        fc.boolean(),
        ([w, h, d], way, aspect, lying) => {
          const standing = new Matrix4().makeRotationX(lying ? -Math.PI / 2 : 0);
          const direction = new Vector3(...way);
          fc.pre(Math.hypot(direction.x, direction.z) > 0.1);
          direction.normalize();
          const camera = new PerspectiveCamera(35, aspect, 1e-3, 1e4);
          const corners = cornersOf([0, 0, 0, w, h, d], standing);
          const centre = new Vector3(w / 2, h / 2, d / 2).applyMatrix4(standing);
          const back = distanceToSee(corners, centre, direction, camera, aspect);
          camera.position.copy(centre).addScaledVector(direction, back);
          camera.lookAt(centre);
          camera.updateMatrixWorld();
          const seen = corners.flatMap((corner) => {
            const { x, y } = corner.clone().project(camera);
            return [Math.abs(x), Math.abs(y)];
          });
          expect(Math.max(...seen)).toBeCloseTo(0.92, 3);
        },
      ),
    );
  });
});
