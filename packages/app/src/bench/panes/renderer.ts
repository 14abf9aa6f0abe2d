import { frameOfAll } from '@blunt-hem/core/surface/tiles';
import {
  Matrix4,
  OrthographicCamera,
  PerspectiveCamera,
  Scene,
  Spherical,
  Vector3,
  WebGLRenderer,
} from 'three';
import { OrbitControls } from 'three/addons/controls/OrbitControls.js';
import { useBench } from '../../store/bench.ts';
import type { Pane } from '../../store/selection.ts';
import { LAYERS } from '../layers/index.ts';
import type { FrameView } from '../layers/layer.ts';
import { type BoardView, boardEdges, viewOf, zoomView } from './boardView.ts';
import { cornersOf, distanceToSee, somePoints } from './fitting.ts';
import { paintPane } from './paintPane.ts';
import { surfaceGeometry } from './surfaceGeometry.ts';
import { FIRST_LOOK, PICTURE, pictureCamera, takePicture } from './takePicture.ts';
import { transformHandle } from './transformHandle.ts';
import { tellViewChange } from './viewChange.ts';

export interface ModelView {
  readonly position: readonly number[];
  readonly target: readonly number[];
}

export interface PaneViews {
  readonly model: ModelView;
  readonly board: BoardView;
}

/** Draws both panes with one WebGL renderer, when something has changed and not otherwise. */
export function paneRenderer(canvas: HTMLCanvasElement, modelPane: HTMLElement, boardPane: HTMLElement) {
  const renderer = new WebGLRenderer({ canvas, antialias: true, alpha: false });
  renderer.setPixelRatio(window.devicePixelRatio);
  renderer.setScissorTest(true);
  renderer.autoClear = false;
  renderer.debug.checkShaderErrors = import.meta.env.DEV;

  let frame = 0;
  const request = () => {
    if (frame === 0) frame = requestAnimationFrame(draw);
  };
  const surface = surfaceGeometry(() => {
    updateLayers();
    request();
  });
  const scenes: Record<Pane, Scene> = { model: new Scene(), board: new Scene() };
  const layers = LAYERS.map((layer) => {
    const drawn = layer.make(surface);
    scenes[layer.pane].add(drawn.object);
    return { pane: layer.pane, passing: layer.passing, drawn, needed: [] as readonly unknown[] };
  });

  const camera = new PerspectiveCamera(35, 1, 0.01, 100);
  /** Drawn in its place when lines that are parallel shall look it; follows it in everything else. */
  const parallelCamera = new OrthographicCamera(-1, 1, 1, -1, -10, 10);
  const boardCamera = new OrthographicCamera(-1, 1, 1, -1, -10, 10);
  // Programs are made before anything heavy is drawn: made later, they would wait for it.
  renderer.compile(scenes.model, camera);
  renderer.compile(scenes.board, boardCamera);

  const board: BoardView = { u: 0.5, v: 0.5, scale: 400 };
  const controls = new OrbitControls(camera, modelPane);
  controls.zoomToCursor = true;
  controls.rotateSpeed = 0.9;
  const viewChanged = () => {
    request();
    tellViewChange();
  };
  controls.addEventListener('change', viewChanged);

  const gizmo = transformHandle(camera, modelPane, scenes.model, controls, request);
  gizmo.compile(renderer);
  const middle = new Vector3();
  let radius = 1;
  let framed = false;
  let drawnLooks = '';
  /** From the model as it is to how it stands in the scene. */
  const standing = new Matrix4();
  let stands = '';
  const isParallel = () => useBench.getState().parallel;

  /** Brings layers up to date; true when any of them was not. */
  function updateLayers(): boolean {
    const state = useBench.getState();
    let changed = false;
    for (const layer of layers) {
      const needed = layer.drawn.needs(state);
      if (needed.every((value, i) => value === layer.needed[i]) && needed.length === layer.needed.length)
        continue;
      layer.needed = needed;
      layer.drawn.update(state);
      changed = true;
    }
    return changed;
  }

  const update = () => {
    const state = useBench.getState();
    if (state.model) {
      const stance = `${state.upAxis} ${state.front}`;
      const turned = stance !== stands;
      if (turned) {
        stands = stance;
        // Up is y there, and the front looks along z.
        standing
          .makeRotationY((-Math.PI / 2) * state.front)
          .multiply(new Matrix4().makeRotationX(state.upAxis === 1 ? -Math.PI / 2 : 0));
        scenes.model.rotation.setFromRotationMatrix(standing);
      }
      const [x0, y0, z0, x1, y1, z1] = state.model.box;
      middle.set((x0 + x1) / 2, (y0 + y1) / 2, (z0 + z1) / 2).applyMatrix4(standing);
      radius = Math.max(0.5 * Math.hypot(x1 - x0, y1 - y0, z1 - z0), 1e-9);
      // A repair leaves the view where it is.
      if (!framed || turned) frameModel(undefined, new Vector3(...FIRST_LOOK));
      framed = true;
    }
    surface.update(state);
    gizmo.update(state);
    // Most of what changes in the store is not to be seen here.
    const looks = `${state.parallel} ${state.dark}`;
    if (updateLayers() || looks !== drawnLooks) request();
    drawnLooks = looks;
  };

  function draw(): void {
    frame = 0;
    const outer = canvas.getBoundingClientRect();
    renderer.setSize(outer.width, outer.height, false);
    paintPane(renderer, outer, modelPane, '--model-ground', (width, height) => {
      const perPixel = aimCameras(width / height) / height;
      const seen = isParallel() ? parallelCamera : camera;
      drawScene('model', seen, { perPixel });
      gizmo.draw(renderer, seen);
    });
    paintPane(renderer, outer, boardPane, '--board-ground', (width, height) => {
      Object.assign(boardCamera, boardEdges(board, width, height));
      boardCamera.updateProjectionMatrix();
      drawScene('board', boardCamera, { perPixel: 1 / board.scale });
    });
  }

  function drawScene(pane: Pane, seen: PerspectiveCamera | OrthographicCamera, view: FrameView): void {
    for (const layer of layers) if (layer.pane === pane) layer.drawn.frame?.(view);
    renderer.render(scenes[pane], seen);
  }

  /** Both cameras of the Model for a pane of this shape; returns the height that is seen where they look. */
  function aimCameras(aspect: number): number {
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
  }

  /** Brings a box into view, or all of the model, as it is looked at now or from a direction. */
  function frameModel(box?: readonly number[], from?: Vector3): void {
    const around = box ?? [...(useBench.getState().model?.box ?? [-1, -1, -1, 1, 1, 1])];
    const [x0, y0, z0, x1, y1, z1] = around;
    const centre = new Vector3((x0 + x1) / 2, (y0 + y1) / 2, (z0 + z1) / 2).applyMatrix4(standing);
    const direction = from ?? camera.position.clone().sub(controls.target);
    direction.normalize();
    const pane = modelPane.getBoundingClientRect();
    const aspect = pane.width > 0 && pane.height > 0 ? pane.width / pane.height : 1;
    // The whole model by its own points: its box is larger than what is seen of it.
    const points = box
      ? cornersOf(box, standing)
      : somePoints(useBench.getState().model?.positions, standing);
    const back = distanceToSee(points, centre, direction, camera, aspect);
    controls.target.copy(centre);
    camera.position.copy(centre).addScaledVector(direction, Math.max(back, 1e-5 * radius));
    controls.update();
    viewChanged();
  }

  const unsubscribe = useBench.subscribe(update);
  update();

  return {
    /** The camera that is drawn. */
    get camera(): PerspectiveCamera | OrthographicCamera {
      return isParallel() ? parallelCamera : camera;
    },
    controls,
    board,
    /** Pictures that are not true yet go here. */
    drawn: surface.drawn,
    request,
    /** The stretch of what is under the hand, in the map that is shown; without any, as it was measured. */
    showStretch: surface.showStretch,
    frameModel,
    /** Model units that a pixel covers at a place of the model. */
    perPixelAt(place: readonly [number, number, number]): number {
      const height = modelPane.clientHeight || 1;
      if (isParallel()) return (parallelCamera.top - parallelCamera.bottom) / parallelCamera.zoom / height;
      const away = new Vector3(...place).applyMatrix4(standing).distanceTo(camera.position);
      return (2 * away * Math.tan((camera.fov * Math.PI) / 360)) / height;
    },
    /** From the model as it is to how it stands in the scene. */
    standing,

    /** The model by itself, for the Rack: with checker and seams, and nothing that is selected or pointed at. */
    picture(): Promise<Blob> {
      const seen = pictureCamera(somePoints(useBench.getState().model?.positions, standing), middle, radius);
      const across = 2 * seen.position.distanceTo(middle) * Math.tan((seen.fov * Math.PI) / 360);
      const drawnLayers = layers.filter(({ pane }) => pane === 'model');
      const passing = drawnLayers.filter((layer) => layer.passing && layer.drawn.object.visible);
      for (const { drawn } of drawnLayers) drawn.frame?.({ perPixel: across / PICTURE.height, plain: true });
      for (const { drawn } of passing) drawn.object.visible = false;
      const picture = takePicture(renderer, scenes.model, seen);
      for (const { drawn } of passing) drawn.object.visible = true;
      request();
      return picture;
    },

    /** Looks along an axis at what is in view now. */
    lookFrom(direction: readonly number[]): void {
      // Straight down the upright axis the controls would not know which way is up.
      frameModel(undefined, new Vector3(...direction).add(new Vector3(0, 0, 1e-4)));
    },

    /** Turns the Model, or moves the Board, by a step of a key: to the right and up. */
    nudge(pane: Pane, [x, y]: readonly [number, number]): void {
      if (pane === 'board') {
        this.panBoard(-48 * x, 48 * y);
        return;
      }
      const round = new Spherical().setFromVector3(camera.position.clone().sub(controls.target));
      round.theta += 0.2 * x;
      round.phi -= 0.2 * y;
      camera.position.setFromSpherical(round.makeSafe()).add(controls.target);
      controls.update();
      viewChanged();
    },

    /** Moves the Board by pixels. */
    panBoard(dx: number, dy: number): void {
      board.u -= dx / board.scale;
      board.v += dy / board.scale;
      viewChanged();
    },

    /** Zooms the Board about a place of it. */
    zoomBoard(u: number, v: number, factor: number): void {
      zoomView(board, u, v, factor);
      viewChanged();
    },

    frameBoard(box: readonly number[] = frameOfAll(useBench.getState().tiles)): void {
      const pane = boardPane.getBoundingClientRect();
      Object.assign(board, viewOf(box, pane));
      viewChanged();
    },

    views: (): PaneViews => ({
      model: { position: camera.position.toArray(), target: controls.target.toArray() },
      board: { ...board },
    }),

    setViews(views: PaneViews): void {
      camera.position.fromArray([...views.model.position]);
      controls.target.fromArray([...views.model.target]);
      controls.update();
      Object.assign(board, views.board);
      viewChanged();
    },

    dispose(): void {
      cancelAnimationFrame(frame);
      unsubscribe();
      controls.dispose();
      gizmo.dispose();
      for (const { drawn } of layers) drawn.dispose();
      surface.dispose();
      renderer.dispose();
    },
  };
}

export type PaneRenderer = ReturnType<typeof paneRenderer>;
