import {
  type Camera,
  CanvasTexture,
  Matrix4,
  Object3D,
  type OrthographicCamera,
  PerspectiveCamera,
  Quaternion,
  Scene,
  Sprite,
  SpriteMaterial,
  Vector3,
  type WebGLRenderer,
} from 'three';
import type { OrbitControls } from 'three/addons/controls/OrbitControls.js';
import { TransformControls } from 'three/addons/controls/TransformControls.js';
import { type BenchStore, useBench } from '../../store/bench.ts';
import { PALETTE } from '../../theme/palette.ts';

const AXES = [
  [1, 0, 0],
  [0, 1, 0],
  [0, 0, 1],
] as const;
/** Across, up, and towards the faces' viewer. */
const LETTERS = [
  ['a', PALETTE.pine],
  ['u', PALETTE.ochre],
  ['t', PALETTE.brick],
] as const;

/** A letter on a disc, that always faces the viewer and lies over everything. */
function letterSprite(letter: string, colour: string): Sprite {
  const canvas = document.createElement('canvas');
  canvas.width = canvas.height = 64;
  const pen = canvas.getContext('2d');
  if (pen) {
    pen.fillStyle = PALETTE.paper;
    pen.beginPath();
    pen.arc(32, 32, 30, 0, 2 * Math.PI);
    pen.fill();
    pen.fillStyle = colour;
    pen.font = '600 44px "Hanken Grotesk Variable", sans-serif';
    pen.textAlign = 'center';
    pen.textBaseline = 'middle';
    pen.fillText(letter, 32, 34);
  }
  const sprite = new Sprite(
    new SpriteMaterial({ map: new CanvasTexture(canvas), depthTest: false, transparent: true }),
  );
  sprite.renderOrder = 1e6;
  return sprite;
}

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
  const letters = LETTERS.map(([letter, colour]) => letterSprite(letter, colour));
  parent.add(proxy);
  scene.add(gizmo.getHelper(), ...letters);

  function listen(): void {
    gizmo.setSpace('local');
    gizmo.size = 0.8;
    // Of the product, not of any coordinate axes: what is across, what points up, and what looks at the faces.
    gizmo.setColors(PALETTE.pine, PALETTE.ochre, PALETTE.brick, PALETTE.fuchsia);
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

  /** Each letter at the end of its arm, which is as long on the screen however far it is. */
  function placeLetters(seen: Camera): void {
    const place = proxy.getWorldPosition(new Vector3());
    const turn = proxy.getWorldQuaternion(new Quaternion());
    const away = place.distanceTo(seen.position);
    const reach =
      seen instanceof PerspectiveCamera
        ? away * Math.min((1.9 * Math.tan((Math.PI * seen.fov) / 360)) / seen.zoom, 7)
        : (seen as OrthographicCamera).top / (seen as OrthographicCamera).zoom;
    const arm = (gizmo.size * reach) / 4;
    letters.forEach((sprite, k) => {
      const axis = new Vector3(...(AXES[k] as [number, number, number])).applyQuaternion(turn);
      sprite.position.copy(place).addScaledVector(axis, 0.72 * arm);
      sprite.scale.setScalar(0.16 * arm);
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
      placeLetters(seen);
      renderer.render(scene, seen);
    },
    dispose(): void {
      for (const { material } of letters) {
        material.map?.dispose();
        material.dispose();
      }
      gizmo.detach();
      gizmo.dispose();
      proxy.removeFromParent();
    },
  };
}
