import {
  BufferAttribute,
  BufferGeometry,
  Mesh,
  OrthographicCamera,
  PerspectiveCamera,
  Scene,
  type ShaderMaterial,
  Vector3,
  WebGLRenderer,
} from 'three';
import { OrbitControls } from 'three/addons/controls/OrbitControls.js';
import { glyphTexture } from '../bench/checkers/glyphs.ts';
import { dressSurface } from '../bench/layers/surface.ts';
import type { Overlay } from '../bench/overlays/overlay.ts';
import { type BoardView, boardEdges, viewOf, zoomView } from '../bench/panes/boardView.ts';
import type { ModelView } from '../bench/panes/modelCamera.ts';
import { paintPane } from '../bench/panes/paintPane.ts';
import { rampOf, surfaceMaterial } from '../bench/panes/surfaceMaterial.ts';
import type { BenchStore } from '../store/bench.ts';
import type { ModelBuffers, OcclusionBuffers } from '../worker/protocol.ts';

/** The panes of the view: two trials and their difference on the model, and both trials in the flat. */
export interface TrialPanes {
  /** Over the three panes of the model: where a pointer turns all of them. */
  readonly models: HTMLElement;
  readonly model: readonly [HTMLElement, HTMLElement, HTMLElement];
  readonly board: readonly [HTMLElement, HTMLElement];
}

/** What one column shows. */
export interface Shown {
  /** u and v of every triangle corner. */
  readonly uv: Float32Array;
  /** Values of an overlay, of every triangle; without them its checker alone is seen. */
  readonly values?: Float32Array;
  readonly overlay?: Overlay;
}

/** Draws two trials beside each other: one camera for the models, one for the flat panes. */
export function trialRenderer(
  canvas: HTMLCanvasElement,
  panes: TrialPanes,
  model: ModelBuffers,
  {
    occlusion,
    upAxis,
    look,
  }: { readonly occlusion?: OcclusionBuffers; readonly upAxis: number; readonly look: ModelView },
) {
  const renderer = new WebGLRenderer({ canvas, antialias: true, alpha: false });
  renderer.setPixelRatio(window.devicePixelRatio);
  renderer.setScissorTest(true);
  renderer.autoClear = false;
  const corners = model.positions.length / 3;
  const shared = {
    position: new BufferAttribute(model.positions, 3),
    normal: new BufferAttribute(model.normals, 3, true),
    mark: new BufferAttribute(new Int8Array(corners), 1),
    occlusion: new BufferAttribute(
      occlusion?.corners.length === corners ? occlusion.corners : new Uint8Array(corners).fill(255),
      1,
      true,
    ),
  };
  const columns = [0, 1, 2].map((column) => {
    const geometry = new BufferGeometry();
    for (const [name, attribute] of Object.entries(shared)) geometry.setAttribute(name, attribute);
    const inSpace = sceneOf(geometry, surfaceMaterial(false));
    inSpace.scene.rotation.x = upAxis === 1 ? -Math.PI / 2 : 0;
    const flat = column < 2 ? sceneOf(geometry, surfaceMaterial(true)) : undefined;
    return { geometry, inSpace, flat };
  });
  const camera = new PerspectiveCamera(35, 1, 0.01, 100);
  camera.position.fromArray([...look.position]);
  const controls = new OrbitControls(camera, panes.models);
  controls.target.fromArray([...look.target]);
  controls.update();
  const boardCamera = new OrthographicCamera(-1, 1, 1, -1, -10, 10);
  const board: BoardView = { u: 0.5, v: 0.5, scale: 200 };
  const [x0, y0, z0, x1, y1, z1] = model.box;
  const middle = new Vector3((x0 + x1) / 2, (y0 + y1) / 2, (z0 + z1) / 2);
  if (upAxis === 1) middle.applyAxisAngle(new Vector3(1, 0, 0), -Math.PI / 2);
  const radius = Math.max(0.5 * Math.hypot(x1 - x0, y1 - y0, z1 - z0), 1e-9);

  let frame = 0;
  const request = () => {
    if (frame === 0) frame = requestAnimationFrame(draw);
  };
  controls.addEventListener('change', request);
  const glyphs = glyphTexture(request);
  const sizes = new ResizeObserver(request);
  sizes.observe(canvas);

  function draw(): void {
    frame = 0;
    const outer = canvas.getBoundingClientRect();
    renderer.setSize(outer.width, outer.height, false);
    columns.forEach(({ inSpace, flat }, i) => {
      paintPane(renderer, outer, panes.model[i], '--model-ground', (width, height) => {
        const distance = camera.position.distanceTo(middle);
        camera.aspect = width / height;
        camera.near = Math.max(distance - 1.5 * radius, 1e-3 * radius);
        camera.far = distance + 1.5 * radius;
        camera.updateProjectionMatrix();
        renderer.render(inSpace.scene, camera);
      });
      if (!flat) return;
      paintPane(renderer, outer, panes.board[i], '--board-ground', (width, height) => {
        Object.assign(boardCamera, boardEdges(board, width, height));
        boardCamera.updateProjectionMatrix();
        renderer.render(flat.scene, boardCamera);
      });
    });
  }

  return {
    request,
    /** What a column shows: 0 and 1 the trials, 2 what lies between them. */
    show(column: number, { uv, values, overlay }: Shown): void {
      const { geometry, inSpace, flat } = columns[column];
      geometry.setAttribute('flatUv', new BufferAttribute(uv, 2));
      const place = new Float32Array(corners);
      if (values && overlay)
        for (let i = 0; i < corners; i++) {
          const value = values[Math.floor(i / 3)];
          place[i] = Number.isNaN(value) ? 0.5 : overlay.place(value);
        }
      geometry.setAttribute('place', new BufferAttribute(place, 1));
      for (const each of flat ? [inSpace, flat] : [inSpace]) {
        const { uniforms } = each.material;
        uniforms.uOverlay.value = values !== undefined;
        if (overlay) uniforms.uRamp.value = rampOf(overlay);
      }
      request();
    },
    /**
     * The checker of the Bench, on the trials alone.
     *
     * @param scales  of the trials, so that squares are as large on one as on the other
     */
    dress(state: BenchStore, scales: readonly [number, number]): void {
      columns.forEach(({ inSpace, flat }, i) => {
        for (const { material } of flat ? [inSpace, flat] : [inSpace]) {
          dressSurface(material, state, glyphs);
          if (i === 2) material.uniforms.uChecker.value = -1;
          else material.uniforms.uRepeats.value *= scales[i];
        }
      });
      request();
    },
    pan(dx: number, dy: number): void {
      board.u -= dx / board.scale;
      board.v += dy / board.scale;
      request();
    },
    /** Zooms about a pointer in one of the flat panes. */
    zoom(pane: number, x: number, y: number, factor: number): void {
      const box = panes.board[pane].getBoundingClientRect();
      const { left, top, right, bottom } = boardEdges(board, box.width, box.height);
      const u = left + ((x - box.left) / box.width) * (right - left);
      const v = top + ((y - box.top) / box.height) * (bottom - top);
      zoomView(board, u, v, factor);
      request();
    },
    frameBoards(box: readonly number[]): void {
      Object.assign(board, viewOf(box, panes.board[0].getBoundingClientRect()));
      request();
    },
    dispose(): void {
      cancelAnimationFrame(frame);
      sizes.disconnect();
      controls.dispose();
      glyphs.dispose();
      for (const { geometry, inSpace, flat } of columns) {
        geometry.dispose();
        inSpace.material.dispose();
        flat?.material.dispose();
      }
      renderer.dispose();
    },
  };
}

export type TrialRenderer = ReturnType<typeof trialRenderer>;

function sceneOf(geometry: BufferGeometry, material: ShaderMaterial) {
  const scene = new Scene();
  const object = new Mesh(geometry, material);
  object.frustumCulled = false;
  scene.add(object);
  return { scene, material };
}
