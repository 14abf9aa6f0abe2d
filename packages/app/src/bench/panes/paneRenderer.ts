import {
  BufferAttribute,
  BufferGeometry,
  LineBasicMaterial,
  LineSegments,
  Mesh,
  OrthographicCamera,
  PerspectiveCamera,
  Scene,
  Vector3,
  WebGLRenderer,
} from 'three';
import { OrbitControls } from 'three/addons/controls/OrbitControls.js';
import { PALETTE } from '../../theme/theme.ts';
import { boardLines } from '../../worker/boardLines.ts';
import { type FlatBuffers, type ModelBuffers, NO_UV } from '../../worker/protocol.ts';
import { fatLines } from './fatLines.ts';
import { outlineOf, visibleWires } from './modelEdges.ts';
import { paneMaterial } from './shading.ts';

/** Where the Board looks: the middle, and pixels per unit of u and v. */
export interface BoardView {
  u: number;
  v: number;
  scale: number;
}

export interface ModelView {
  readonly position: readonly number[];
  readonly target: readonly number[];
}

export interface Looks {
  readonly overlay: 'none' | 'area' | 'angle';
  readonly checker: boolean;
  readonly repeats: number;
  readonly dark: boolean;
}

export interface Marks {
  readonly edges: ReadonlySet<number>;
  readonly faces: ReadonlySet<number>;
  readonly shells: ReadonlySet<number>;
  readonly hoverEdges: readonly number[];
  readonly hoverFace: number;
  readonly hoverShell: number;
  readonly hidden: Uint8Array;
}

const OVERLAYS = { none: 0, area: 1, angle: 2 };

/** Draws both panes with one renderer from the same buffers, when asked and not otherwise. */
export function paneRenderer(canvas: HTMLCanvasElement, modelPane: HTMLElement, boardPane: HTMLElement) {
  const renderer = new WebGLRenderer({ canvas, antialias: true, alpha: false });
  renderer.setPixelRatio(window.devicePixelRatio);
  renderer.setScissorTest(true);
  renderer.autoClear = false;

  const geometry = new BufferGeometry();
  const solid = new Mesh(geometry, paneMaterial(false));
  const flat = new Mesh(geometry, paneMaterial(true));
  solid.frustumCulled = flat.frustumCulled = false;
  const modelScene = new Scene();
  const boardScene = new Scene();
  modelScene.add(solid);
  boardScene.add(flat);

  const wires = {
    model: wire(modelScene, 0.16),
    board: wire(boardScene, 0.14),
    tile: wire(boardScene, 0.85),
    grid: wire(boardScene, 0.1),
  };
  wires.tile.set(frameLines());
  wires.grid.set(gridLines());
  const marksIn = (scene: Scene) => {
    const lines = {
      casing: fatLines({ colour: PALETTE.paper, width: 5, order: 1 }),
      stitch: fatLines({ colour: PALETTE.ink, width: 3, dash: [1, 0.75], order: 2 }),
      hover: fatLines({ colour: PALETTE.fuchsia, width: 4, opacity: 0.55, order: 3 }),
      chosen: fatLines({ colour: PALETTE.fuchsia, width: 3.5, order: 4 }),
    };
    for (const { object } of Object.values(lines)) scene.add(object);
    return lines;
  };
  const modelMarks = marksIn(modelScene);
  /** What is chosen and hidden by the model itself: faint, but there. */
  const shining = fatLines({ colour: PALETTE.fuchsia, width: 2, opacity: 0.4, order: 5, through: true });
  modelScene.add(shining.object);
  const boardMarks = marksIn(boardScene);

  const camera = new PerspectiveCamera(35, 1, 0.01, 100);
  /** Drawn in its place when lines that are parallel shall look it; follows it in everything else. */
  const parallelCamera = new OrthographicCamera(-1, 1, 1, -1, -10, 10);
  let parallel = false;
  const boardCamera = new OrthographicCamera(-1, 1, 1, -1, -10, 10);
  // Programs are made, and used once, before anything heavy is drawn: made later, they would wait for it.
  renderer.debug.checkShaderErrors = import.meta.env.DEV;
  const everyLine = [shining, ...Object.values(modelMarks), ...Object.values(boardMarks)];
  for (const lines of everyLine) lines.set(new Float32Array(6));
  renderer.render(modelScene, camera);
  renderer.render(boardScene, boardCamera);
  for (const lines of everyLine) lines.set(new Float32Array(0));
  const board: BoardView = { u: 0.5, v: 0.5, scale: 400 };
  const controls = new OrbitControls(camera, modelPane);
  controls.zoomToCursor = true;
  controls.rotateSpeed = 0.9;
  let onView: () => void = () => undefined;
  controls.addEventListener('change', () => {
    request();
    onView();
  });

  let model: ModelBuffers | undefined;
  let buffers: FlatBuffers | undefined;
  let middle = new Vector3();
  let radius = 1;
  let frame = 0;
  let dark = false;
  let markedFaces: readonly unknown[] = [];
  let outlined: ReadonlySet<number> | undefined;
  let outline: readonly number[] = [];

  const request = () => {
    if (frame === 0) frame = requestAnimationFrame(draw);
  };

  const draw = () => {
    frame = 0;
    const outer = canvas.getBoundingClientRect();
    renderer.setSize(outer.width, outer.height, false);
    const ground = (name: string) => getComputedStyle(document.documentElement).getPropertyValue(name).trim();
    const paint = (pane: HTMLElement, colour: string, drawScene: (width: number, height: number) => void) => {
      const box = pane.getBoundingClientRect();
      if (box.width < 2 || box.height < 2) return;
      const [x, y] = [box.left - outer.left, outer.bottom - box.bottom];
      renderer.setViewport(x, y, box.width, box.height);
      renderer.setScissor(x, y, box.width, box.height);
      renderer.setClearColor(colour);
      renderer.clear();
      drawScene(box.width, box.height);
    };
    paint(modelPane, ground('--model-ground'), (width, height) => {
      camera.aspect = width / height;
      // The clip planes follow the model, so that no zoom cuts into it.
      const distance = camera.position.distanceTo(middle);
      camera.near = Math.max(
        distance - 1.5 * radius,
        1e-3 * Math.max(camera.position.distanceTo(controls.target), 1e-3 * radius),
      );
      camera.far = distance + 1.5 * radius;
      camera.updateProjectionMatrix();
      const reach = camera.position.distanceTo(controls.target) * Math.tan((camera.fov * Math.PI) / 360);
      const perPixel = (2 * reach) / height;
      const { aspect } = camera;
      Object.assign(parallelCamera, {
        left: -reach * aspect,
        right: reach * aspect,
        top: reach,
        bottom: -reach,
      });
      // Nothing is behind a parallel camera.
      parallelCamera.near = distance - 3 * radius;
      parallelCamera.far = distance + 3 * radius;
      parallelCamera.position.copy(camera.position);
      parallelCamera.quaternion.copy(camera.quaternion);
      parallelCamera.updateProjectionMatrix();
      parallelCamera.updateMatrixWorld();
      modelMarks.stitch.material.dashScale = 1 / (7 * perPixel);
      renderer.render(modelScene, parallel ? parallelCamera : camera);
    });
    paint(boardPane, ground('--board-ground'), (width, height) => {
      Object.assign(boardCamera, boardEdges(board, width, height));
      boardCamera.updateProjectionMatrix();
      boardMarks.stitch.material.dashScale = board.scale / 7;
      renderer.render(boardScene, boardCamera);
    });
  };

  const edgesOnModel = (edges: Iterable<number>): Float32Array => {
    if (!model) return new Float32Array(0);
    const out: number[] = [];
    for (const e of edges) for (let k = 0; k < 6; k++) out.push(model.edgePositions[6 * e + k]);
    return Float32Array.from(out);
  };
  const edgesOnBoard = (edges: Iterable<number>): Float32Array =>
    buffers ? boardLines(buffers.edgeUv, [...edges]) : new Float32Array(0);

  const setUv = (uv: Float32Array) => {
    geometry.setAttribute('flatUv', new BufferAttribute(uv, 2));
    request();
  };

  const markFaces = (
    { triangleFace }: ModelBuffers,
    { faceShell }: FlatBuffers,
    {
      faces,
      shells,
      hoverFace,
      hoverShell,
      hidden,
    }: Pick<Marks, 'faces' | 'shells' | 'hoverFace' | 'hoverShell' | 'hidden'>,
  ) => {
    const mark = geometry.getAttribute('mark') as BufferAttribute;
    const { array } = mark;
    for (let t = 0; t < triangleFace.length; t++) {
      const f = triangleFace[t];
      const shell = faceShell[f];
      const value = hidden[f]
        ? -1
        : shells.has(shell) || faces.has(f)
          ? 2
          : shell === hoverShell || f === hoverFace
            ? 1
            : 0;
      array[3 * t] = value;
      array[3 * t + 1] = value;
      array[3 * t + 2] = value;
    }
    mark.needsUpdate = true;
  };

  return {
    /** The one that is drawn. */
    get camera(): PerspectiveCamera | OrthographicCamera {
      return parallel ? parallelCamera : camera;
    },
    controls,
    board,
    request,
    onViewChange(listen: () => void) {
      onView = listen;
    },

    setModel(next: ModelBuffers) {
      const first = model === undefined;
      model = next;
      const corners = next.positions.length / 3;
      geometry.setAttribute('position', new BufferAttribute(next.positions, 3));
      geometry.setAttribute('normal', new BufferAttribute(next.normals, 3));
      geometry.setAttribute('flatUv', new BufferAttribute(new Float32Array(2 * corners).fill(NO_UV), 2));
      geometry.setAttribute('stretch', new BufferAttribute(new Float32Array(2 * corners), 2));
      geometry.setAttribute('mark', new BufferAttribute(new Float32Array(corners), 1));
      wires.model.set(next.edgePositions);
      const [x0, y0, z0, x1, y1, z1] = next.box;
      middle = new Vector3((x0 + x1) / 2, (y0 + y1) / 2, (z0 + z1) / 2);
      radius = Math.max(0.5 * Math.hypot(x1 - x0, y1 - y0, z1 - z0), 1e-9);
      // A repair leaves the view where it is.
      if (first) this.frameModel();
    },

    setFlat(next: FlatBuffers) {
      buffers = next;
      setUv(next.uv.slice());
      geometry.setAttribute('stretch', new BufferAttribute(next.stretch, 2));
      modelMarks.casing.set(next.seamLines);
      modelMarks.stitch.set(next.seamLines);
      boardMarks.casing.set(next.borderLines);
      boardMarks.stitch.set(next.borderLines);
      wires.board.set(next.innerLines);
      request();
    },

    setMarks({ edges, faces, shells, hoverEdges, hoverFace, hoverShell, hidden }: Marks) {
      if (!model || !buffers) return;
      // Hovering edges leaves the faces as they are: only what differs is written again.
      const deciding = [buffers, hidden, faces, shells, hoverFace, hoverShell];
      if (deciding.some((value, i) => value !== markedFaces[i])) {
        if (hidden !== markedFaces[1]) wires.model.set(visibleWires(model, hidden));
        markedFaces = deciding;
        markFaces(model, buffers, { faces, shells, hoverFace, hoverShell, hidden });
      }
      if (faces !== outlined) {
        outlined = faces;
        outline = outlineOf(model, faces);
      }
      modelMarks.chosen.set(edgesOnModel(edges));
      shining.set(edgesOnModel([...edges, ...outline]));
      boardMarks.chosen.set(edgesOnBoard(edges));
      modelMarks.hover.set(edgesOnModel(hoverEdges));
      boardMarks.hover.set(edgesOnBoard(hoverEdges));
      request();
    },

    setLooks({ overlay, checker, repeats, dark: nextDark }: Looks) {
      for (const { material } of [solid, flat]) {
        material.uniforms.uOverlay.value = OVERLAYS[overlay];
        material.uniforms.uChecker.value = checker;
        material.uniforms.uRepeats.value = repeats;
      }
      if (dark !== nextDark) {
        dark = nextDark;
        for (const { setColour } of Object.values(wires)) setColour(dark ? '#EFEAE0' : PALETTE.ink);
      }
      request();
    },

    /** A picture of one shell on the move: new UVs of some triangles, without anything else following. */
    setMoving(triangles: Uint32Array, uv: Float32Array) {
      const attribute = geometry.getAttribute('flatUv') as BufferAttribute;
      triangles.forEach((t, i) => {
        attribute.array.set(uv.subarray(6 * i, 6 * i + 6), 6 * t);
      });
      attribute.needsUpdate = true;
      request();
    },

    /** Shows chosen shells transformed, before it is done. */
    previewTransform(shells: ReadonlySet<number>, m: readonly number[]) {
      if (!model || !buffers) return;
      const attribute = geometry.getAttribute('flatUv') as BufferAttribute;
      const { uv, faceShell } = buffers;
      const moved = uv.slice();
      for (let i = 0; i < uv.length; i += 2) {
        if (!shells.has(faceShell[model.triangleFace[Math.floor(i / 6)]]) || uv[i] === NO_UV) continue;
        moved[i] = m[0] * uv[i] + m[2] * uv[i + 1] + m[4];
        moved[i + 1] = m[1] * uv[i] + m[3] * uv[i + 1] + m[5];
      }
      attribute.array.set(moved);
      attribute.needsUpdate = true;
      request();
    },

    setParallel(next: boolean) {
      parallel = next;
      request();
    },

    /** Looks along an axis at what is in view now. */
    lookFrom(direction: readonly number[]) {
      const back = camera.position.distanceTo(controls.target);
      // Straight down the upright axis the controls would not know which way is up.
      const from = new Vector3(...direction).add(new Vector3(0, 0, 1e-4)).normalize();
      camera.position.copy(controls.target).addScaledVector(from, back);
      controls.update();
      request();
    },

    frameModel(box?: readonly number[]) {
      const [x0, y0, z0, x1, y1, z1] = box ?? [...(model?.box ?? [-1, -1, -1, 1, 1, 1])];
      const centre = new Vector3((x0 + x1) / 2, (y0 + y1) / 2, (z0 + z1) / 2);
      const reach = Math.max(0.5 * Math.hypot(x1 - x0, y1 - y0, z1 - z0), 1e-6 * radius);
      const direction = box ? camera.position.clone().sub(controls.target) : new Vector3(0.62, 0.42, 1);
      const back = (1.12 * reach) / Math.sin((camera.fov * Math.PI) / 360);
      controls.target.copy(centre);
      camera.position.copy(centre).addScaledVector(direction.normalize(), back);
      controls.update();
      request();
    },

    frameBoard(box: readonly number[] = [0, 0, 1, 1]) {
      const pane = boardPane.getBoundingClientRect();
      const [u0, v0, u1, v1] = box;
      board.u = (u0 + u1) / 2;
      board.v = (v0 + v1) / 2;
      board.scale =
        0.9 * Math.min(pane.width / Math.max(u1 - u0, 1e-6), (pane.height - 40) / Math.max(v1 - v0, 1e-6));
      request();
      onView();
    },

    view: (): { model: ModelView; board: BoardView } => ({
      model: { position: camera.position.toArray(), target: controls.target.toArray() },
      board: { ...board },
    }),

    setView(view: { model: ModelView; board: BoardView }) {
      camera.position.fromArray([...view.model.position]);
      controls.target.fromArray([...view.model.target]);
      controls.update();
      Object.assign(board, view.board);
      request();
    },

    dispose() {
      cancelAnimationFrame(frame);
      controls.dispose();
      geometry.dispose();
      renderer.dispose();
    },
  };
}

export type PaneRenderer = ReturnType<typeof paneRenderer>;

const boardEdges = ({ u, v, scale }: BoardView, width: number, height: number) => ({
  left: u - width / (2 * scale),
  right: u + width / (2 * scale),
  top: v + height / (2 * scale),
  bottom: v - height / (2 * scale),
});

/** Hairlines. */
function wire(scene: Scene, opacity: number) {
  const material = new LineBasicMaterial({ color: PALETTE.ink, transparent: true, opacity });
  const object = new LineSegments(new BufferGeometry(), material);
  object.frustumCulled = false;
  scene.add(object);
  return {
    set(positions: Float32Array) {
      object.geometry.dispose();
      object.geometry = new BufferGeometry();
      object.geometry.setAttribute('position', new BufferAttribute(positions, 3));
    },
    setColour(colour: string) {
      material.color.set(colour);
    },
  };
}

const frameLines = (): Float32Array =>
  Float32Array.from(
    [0, 0, 0, 1, 0, 0, 1, 0, 0, 1, 1, 0, 1, 1, 0, 0, 1, 0, 0, 1, 0, 0, 0, 0].map((x, i) =>
      i % 3 === 2 ? -0.5 : x,
    ),
  );

function gridLines(): Float32Array {
  const lines: number[] = [];
  for (let k = 1; k < 8; k++) {
    lines.push(k / 8, 0, -1, k / 8, 1, -1, 0, k / 8, -1, 1, k / 8, -1);
  }
  return Float32Array.from(lines);
}
