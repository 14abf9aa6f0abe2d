import { type Camera, WebGLRenderer } from 'three';
import { useBench } from '../../store/bench.ts';
import type { Pane } from '../../store/selection.ts';
import { boardCamera } from './boardCamera.ts';
import type { BoardView } from './boardView.ts';
import { layerStack } from './layerStack.ts';
import { type ModelView, modelCamera } from './modelCamera.ts';
import { paintPane } from './paintPane.ts';
import { surfaceGeometry } from './surfaceGeometry.ts';
import { PICTURE, pictureCamera, takePicture } from './takePicture.ts';
import { transformHandle } from './transformHandle.ts';
import { tellViewChange } from './viewChange.ts';

export interface PaneViews {
  readonly model: ModelView;
  readonly board: BoardView;
}

/** Pixels that a key moves the Board by. */
const STEP = 48;

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
  const viewChanged = () => {
    request();
    tellViewChange();
  };
  const surface = surfaceGeometry(() => {
    layers.update(useBench.getState());
    request();
  });
  const layers = layerStack(surface);
  const model = modelCamera(modelPane, viewChanged);
  const board = boardCamera(boardPane, viewChanged);
  // Programs are made before anything heavy is drawn: made later, they would wait for it.
  renderer.compile(layers.scenes.model, model.camera);
  renderer.compile(layers.scenes.board, board.camera);
  const gizmo = transformHandle(model.camera, modelPane, layers.scenes.model, model.controls, request);
  gizmo.compile(renderer);

  let drawnLooks = '';
  const update = () => {
    const state = useBench.getState();
    if (model.update(state)) layers.scenes.model.rotation.setFromRotationMatrix(model.standing);
    surface.update(state);
    gizmo.update(state);
    // Most of what changes in the store is not to be seen here.
    const looks = `${state.parallel} ${state.dark}`;
    if (layers.update(state) || looks !== drawnLooks) request();
    drawnLooks = looks;
  };

  function draw(): void {
    frame = 0;
    const outer = canvas.getBoundingClientRect();
    renderer.setSize(outer.width, outer.height, false);
    paintPane(renderer, outer, modelPane, '--model-ground', (width, height) => {
      const perPixel = model.aim(width / height) / height;
      drawScene('model', model.seen, perPixel);
      gizmo.draw(renderer, model.seen);
    });
    paintPane(renderer, outer, boardPane, '--board-ground', (width, height) => {
      board.aim(width, height);
      drawScene('board', board.camera, 1 / board.view.scale);
    });
  }

  function drawScene(pane: Pane, seen: Camera, perPixel: number): void {
    layers.frame(pane, { perPixel });
    renderer.render(layers.scenes[pane], seen);
  }

  const unsubscribe = useBench.subscribe(update);
  update();

  return {
    model,
    board,
    /** Pictures that are not true yet go here. */
    drawn: surface.drawn,
    request,
    /** The stretch of what is under the hand, in the map that is shown; without any, as it was measured. */
    showStretch: surface.showStretch,

    /** The model by itself, for the Rack: with checker and seams, and nothing that is selected or pointed at. */
    picture(): Promise<Blob> {
      const seen = pictureCamera(model.modelPoints(), model.middle, model.radius);
      const across = 2 * seen.position.distanceTo(model.middle) * Math.tan((seen.fov * Math.PI) / 360);
      layers.frame('model', { perPixel: across / PICTURE.height, plain: true });
      const picture = layers.withoutPassing('model', () => takePicture(renderer, layers.scenes.model, seen));
      request();
      return picture;
    },

    /** Turns the Model, or moves the Board, by a step of a key: to the right and up. */
    nudge(pane: Pane, [x, y]: readonly [number, number]): void {
      if (pane === 'board') board.pan(-STEP * x, STEP * y);
      else model.nudge([x, y]);
    },

    views: (): PaneViews => ({ model: model.view, board: { ...board.view } }),

    setViews(views: PaneViews): void {
      Object.assign(board.view, views.board);
      model.view = views.model;
    },

    dispose(): void {
      cancelAnimationFrame(frame);
      unsubscribe();
      model.dispose();
      gizmo.dispose();
      layers.dispose();
      surface.dispose();
      renderer.dispose();
    },
  };
}

export type PaneRenderer = ReturnType<typeof paneRenderer>;
