import { type Matrix4, type PerspectiveCamera, Vector3 } from 'three';

/** The eight corners of a box, where they stand in the scene. */
export function cornersOf(box: readonly number[], standing: Matrix4): Vector3[] {
  const [x0, y0, z0, x1, y1, z1] = box;
  return [x0, x1].flatMap((x) =>
    [y0, y1].flatMap((y) => [z0, z1].map((z) => new Vector3(x, y, z).applyMatrix4(standing))),
  );
}

/** Enough points of a model to tell how large it looks. */
const ENOUGH = 6000;

/** Some of many points, xyz each, where they stand in the scene. */
export function somePoints(positions: Float32Array | undefined, standing: Matrix4): Vector3[] {
  if (!positions) return [];
  const stride = 3 * Math.max(1, Math.ceil(positions.length / (3 * ENOUGH)));
  return Array.from({ length: Math.ceil(positions.length / stride) }, (_, i) =>
    new Vector3().fromArray(positions, i * stride).applyMatrix4(standing),
  );
}

/** Part of the pane that what is framed may fill, to either side. */
const FILLED = 0.92;

/**
 * How far back along its line of sight a camera must stand to see all of some points, in a pane of this shape.
 *
 * @param direction  unit, from what is looked at to the camera
 * @param aspect  width of the pane over its height
 */
export function distanceToSee(
  points: readonly Vector3[],
  centre: Vector3,
  direction: Vector3,
  camera: PerspectiveCamera,
  aspect: number,
): number {
  const up = Math.tan((camera.fov * Math.PI) / 360) * FILLED;
  const right = new Vector3().crossVectors(camera.up, direction).normalize();
  const above = new Vector3().crossVectors(direction, right);
  return points.reduce((far, point) => {
    const away = point.clone().sub(centre);
    const near = away.dot(direction);
    const beside = Math.abs(away.dot(right)) / (up * aspect);
    return Math.max(far, near + Math.max(beside, Math.abs(away.dot(above)) / up));
  }, 1e-9);
}
