import { Matrix4, OrthographicCamera, PerspectiveCamera, Spherical, Vector3 } from 'three';
import { OrbitControls } from 'three/addons/controls/OrbitControls.js';
import { type BenchStore, useBench } from '../../store/bench.ts';
import { cornersOf, distanceToSee, somePoints } from './fitting.ts';
import { FIRST_LOOK } from './takePicture.ts';

export interface ModelView {
  readonly position: readonly number[];
  readonly target: readonly number[];
}

/**
 * How the Model is looked at, and how it stands.
 *
 * @param onChange  called when it is looked at otherwise
 */
export function modelCamera(pane: HTMLElement, onChange: () => void) {
  const camera = new PerspectiveCamera(35, 1, 0.01, 100);
  /** Drawn in its place when lines that are parallel shall look it; follows it in everything else. */
  const parallelCamera = new OrthographicCamera(-1, 1, 1, -1, -10, 10);
  const controls = new OrbitControls(camera, pane);
  controls.zoomToCursor = true;
  controls.rotateSpeed = 0.9;
  controls.addEventListener('change', onChange);

  const middle = new Vector3();
  let radius = 1;
  let framed = false;
  /** From the model as it is to how it stands in the scene. */
  const standing = new Matrix4();
  let stance = '';
  const isParallel = () => useBench.getState().parallel;
  const modelPoints = () => somePoints(useBench.getState().model?.positions, standing);

  /** Brings a box into view, or all of the model, as it is looked at now or from a direction. */
  const frame = (box?: readonly number[], from?: Vector3): void => {
    const around = box ?? [...(useBench.getState().model?.box ?? [-1, -1, -1, 1, 1, 1])];
    const [x0, y0, z0, x1, y1, z1] = around;
    const centre = new Vector3((x0 + x1) / 2, (y0 + y1) / 2, (z0 + z1) / 2).applyMatrix4(standing);
    const direction = from ?? camera.position.clone().sub(controls.target);
    direction.normalize();
    const { width, height } = pane.getBoundingClientRect();
    const aspect = width > 0 && height > 0 ? width / height : 1;
    // The whole model by its own points: its box is larger than what is seen of it.
    const points = box ? cornersOf(box, standing) : modelPoints();
    const back = distanceToSee(points, centre, direction, camera, aspect);
    controls.target.copy(centre);
    camera.position.copy(centre).addScaledVector(direction, Math.max(back, 1e-5 * radius));
    controls.update();
    onChange();
  };

  return {
    /** The camera that is drawn. */
    get seen(): PerspectiveCamera | OrthographicCamera {
      return isParallel() ? parallelCamera : camera;
    },
    camera,
    controls,
    standing,
    frame,
    modelPoints,
    get middle(): Vector3 {
      return middle;
    },
    /** Half the size of the model. */
    get radius(): number {
      return radius;
    },
    /** Takes in another model, or how it stands now. */
    update({ model, upAxis, front }: BenchStore): boolean {
      if (!model) return false;
      const turned = stance !== `${upAxis} ${front}`;
      if (turned) {
        stance = `${upAxis} ${front}`;
        // Up is y there, and the front looks along z.
        standing
          .makeRotationY((-Math.PI / 2) * front)
          .multiply(new Matrix4().makeRotationX(upAxis === 1 ? -Math.PI / 2 : 0));
      }
      const [x0, y0, z0, x1, y1, z1] = model.box;
      middle.set((x0 + x1) / 2, (y0 + y1) / 2, (z0 + z1) / 2).applyMatrix4(standing);
      radius = Math.max(0.5 * Math.hypot(x1 - x0, y1 - y0, z1 - z0), 1e-9);
      // A repair leaves the view where it is.
      if (!framed || turned) frame(undefined, new Vector3(...FIRST_LOOK));
      framed = true;
      return turned;
    },
    /** Makes both cameras ready for a pane of this shape; returns the height that is seen where they look. */
    aim(aspect: number): number {
      camera.aspect = aspect;
      // The clip planes follow the model, so that no zoom cuts into it.
      const distance = camera.position.distanceTo(middle);
      const away = camera.position.distanceTo(controls.target);
      camera.near = Math.max(distance - 1.5 * radius, 1e-3 * Math.max(away, 1e-3 * radius));
      camera.far = distance + 1.5 * radius;
      camera.updateProjectionMatrix();
      const reach = away * Math.tan((camera.fov * Math.PI) / 360);
      const sides = { left: -reach * aspect, right: reach * aspect, top: reach, bottom: -reach };
      // Nothing is behind a parallel camera.
      Object.assign(parallelCamera, sides, { near: distance - 3 * radius, far: distance + 3 * radius });
      parallelCamera.position.copy(camera.position);
      parallelCamera.quaternion.copy(camera.quaternion);
      parallelCamera.updateProjectionMatrix();
      parallelCamera.updateMatrixWorld();
      return 2 * reach;
    },
    /** Takes a place of the model, in its own axes, to clip space; writes over it. */
    project(place: Vector3): Vector3 {
      return place.applyMatrix4(standing).project(this.seen);
    },
    /** Model units that a pixel covers at a place of the model. */
    perPixelAt(place: readonly [number, number, number]): number {
      const height = pane.clientHeight || 1;
      if (isParallel()) return (parallelCamera.top - parallelCamera.bottom) / parallelCamera.zoom / height;
      const away = new Vector3(...place).applyMatrix4(standing).distanceTo(camera.position);
      return (2 * away * Math.tan((camera.fov * Math.PI) / 360)) / height;
    },
    /** Looks along an axis at what is in view now. */
    lookFrom(direction: readonly number[]): void {
      // Straight down the upright axis the controls would not know which way is up.
      frame(undefined, new Vector3(...direction).add(new Vector3(0, 0, 1e-4)));
    },
    /** Goes round by a step of a key: to the right and up. */
    nudge([x, y]: readonly [number, number]): void {
      const round = new Spherical().setFromVector3(camera.position.clone().sub(controls.target));
      round.theta += 0.2 * x;
      round.phi -= 0.2 * y;
      camera.position.setFromSpherical(round.makeSafe()).add(controls.target);
      controls.update();
      onChange();
    },
    get view(): ModelView {
      return { position: camera.position.toArray(), target: controls.target.toArray() };
    },
    set view({ position, target }: ModelView) {
      camera.position.fromArray([...position]);
      controls.target.fromArray([...target]);
      controls.update();
      onChange();
    },
    dispose: () => controls.dispose(),
  };
}
