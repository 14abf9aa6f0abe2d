import { type Camera, Matrix4, Object3D, Scene, Vector3, type WebGLRenderer } from 'three';
import type { OrbitControls } from 'three/addons/controls/OrbitControls.js';
import { TransformControls } from 'three/addons/controls/TransformControls.js';
import { type BenchStore, useBench } from '../../store/bench.ts';

/**
 * The handle by which a projection is moved, turned and sized on the Model.
 *
 * @param parent  in whose axes the projection stands
 */
export function transformHandle(
  camera: Camera,
  element: HTMLElement,
  parent: Object3D,
  controls: OrbitControls,
  request: () => void,
) {
  const proxy = new Object3D();
  const scene = new Scene();
  const gizmo = new TransformControls(camera, element);
  listen();
  parent.add(proxy);
  scene.add(gizmo.getHelper());

  function listen(): void {
    gizmo.setSpace('local');
    gizmo.size = 0.8;
    gizmo.addEventListener('change', request);
    gizmo.addEventListener('dragging-changed', ({ value }) => {
      controls.enabled = !value;
    });
    gizmo.addEventListener('objectChange', () => {
      const axis = (x: number, y: number, z: number) =>
        new Vector3(x, y, z).applyQuaternion(proxy.quaternion).toArray();
      // One size for all ways: whichever was pulled counts.
      const { x, y, z } = proxy.scale;
      const { projectionSize } = useBench.getState();
      const size = [x, y, z].reduce((far, each) =>
        Math.abs(Math.log(each / projectionSize)) > Math.abs(Math.log(far / projectionSize)) ? each : far,
      );
      useBench.setState({
        projectionFrame: { origin: proxy.position.toArray(), toward: axis(0, 0, 1), up: axis(0, 1, 0) },
        projectionSize: Math.max(1e-3, size),
      });
    });
  }

  return {
    /** Puts it where the projection stands; away with it where there is none. */
    update({ tool, projectionPreview, projectionFrame, projectionSize, handleMode }: BenchStore): void {
      const frame = tool === 'project' ? (projectionFrame ?? projectionPreview?.frame) : undefined;
      if (!frame) {
        if (gizmo.object) {
          gizmo.detach();
          request();
        }
        return;
      }
      if (gizmo.dragging) return;
      const up = new Vector3().fromArray(frame.up);
      const toward = new Vector3().fromArray(frame.toward);
      const right = new Vector3().crossVectors(up, toward).normalize();
      proxy.position.fromArray(frame.origin);
      proxy.quaternion.setFromRotationMatrix(
        new Matrix4().makeBasis(right, up, new Vector3().crossVectors(right, up)),
      );
      proxy.scale.setScalar(projectionSize);
      proxy.updateMatrixWorld();
      if (gizmo.mode !== handleMode) gizmo.setMode(handleMode);
      if (!gizmo.object) gizmo.attach(proxy);
      request();
    },
    /** Makes its programs ready: made later they would wait for whatever is being drawn. */
    compile(renderer: WebGLRenderer): void {
      renderer.compile(scene, camera);
    },
    /** Over all that is drawn of the Model. */
    draw(renderer: WebGLRenderer, seen: Camera): void {
      if (!gizmo.object) return;
      gizmo.camera = seen;
      renderer.render(scene, seen);
    },
    dispose(): void {
      gizmo.detach();
      gizmo.dispose();
      proxy.removeFromParent();
    },
  };
}
