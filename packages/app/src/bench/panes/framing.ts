import { type BenchStore, useBench } from '../../store/bench.ts';
import { NOTHING_SELECTED } from '../../store/selection.ts';
import { NO_UV } from '../../worker/protocol.ts';
import { boardEdges } from './boardView.ts';
import { linesOnBoard, linesOnModel } from './edgeLines.ts';
import { paneElement } from './places.ts';
import { handle } from './rendererHandle.ts';

type Framed = Pick<BenchStore, 'points' | 'edges' | 'faces' | 'chosen'>;

/** Brings the selected edges, faces and shells into view in both panes; everything when nothing is selected. */
export const frameSelection = (): void => frameThese(useBench.getState());

/** Brings some faces into view in both panes with what lies round them: so much at least, as a part of the model and of the tile. */
export const frameFaces = (faces: ReadonlySet<number>, around: number): void =>
  frameThese({ ...NOTHING_SELECTED, faces }, around);

function frameThese({ points, edges, faces, chosen }: Framed, around = 0): void {
  const { model, flat, shells } = useBench.getState();
  const { renderer } = handle;
  if (!model || !flat || !renderer) return;
  const solid = [Infinity, Infinity, Infinity, -Infinity, -Infinity, -Infinity];
  const board = [Infinity, Infinity, -Infinity, -Infinity];
  const include = (x: number, y: number, z: number) => {
    [x, y, z].forEach((value, k) => {
      solid[k] = Math.min(solid[k], value);
      solid[k + 3] = Math.max(solid[k + 3], value);
    });
  };
  const includeUv = (u: number, v: number) => {
    if (u === NO_UV) return;
    board[0] = Math.min(board[0], u);
    board[1] = Math.min(board[1], v);
    board[2] = Math.max(board[2], u);
    board[3] = Math.max(board[3], v);
  };
  for (const point of points) {
    const i = model.cornerDrawn[point];
    include(model.positions[3 * i], model.positions[3 * i + 1], model.positions[3 * i + 2]);
    includeUv(flat.uv[2 * i], flat.uv[2 * i + 1]);
  }
  const solidLines = linesOnModel(model, edges);
  for (let i = 0; i < solidLines.length; i += 3) include(solidLines[i], solidLines[i + 1], solidLines[i + 2]);
  const flatLines = linesOnBoard(model, flat.uv, edges);
  for (let i = 0; i < flatLines.length; i += 3) includeUv(flatLines[i], flatLines[i + 1]);
  if (chosen.size > 0 || faces.size > 0) {
    model.triangleFace.forEach((f, t) => {
      if (!chosen.has(flat.faceShell[f]) && !faces.has(f)) return;
      for (let i = 9 * t; i < 9 * t + 9; i += 3)
        include(model.positions[i], model.positions[i + 1], model.positions[i + 2]);
    });
    model.triangleFace.forEach((f, t) => {
      if (faces.has(f)) for (let i = 6 * t; i < 6 * t + 6; i += 2) includeUv(flat.uv[i], flat.uv[i + 1]);
    });
    for (const s of chosen) {
      const box = shells[s]?.box;
      if (!box) continue;
      includeUv(box[0], box[1]);
      includeUv(box[2], box[3]);
    }
  }
  const [x0, y0, z0, x1, y1, z1] = model.box;
  const least = around * Math.hypot(x1 - x0, y1 - y0, z1 - z0);
  renderer.model.frame(Number.isFinite(solid[0]) ? grown(solid, least) : undefined);
  renderer.board.frame(Number.isFinite(board[0]) ? grown(board, around) : undefined);
}

/** Brings what the Board shows into view on the Model; all of it where the Board shows nothing. */
export function frameAsBoard(): void {
  const { model, flat } = useBench.getState();
  const { renderer } = handle;
  if (!model || !flat || !renderer) return;
  const { width, height } = paneElement('board').getBoundingClientRect();
  const { left, right, bottom, top } = boardEdges(renderer.board.view, width, height);
  const solid = [Infinity, Infinity, Infinity, -Infinity, -Infinity, -Infinity];
  for (let i = 0; i < flat.uv.length / 2; i++) {
    const [u, v] = [flat.uv[2 * i], flat.uv[2 * i + 1]];
    if (u < left || u > right || v < bottom || v > top) continue;
    for (let k = 0; k < 3; k++) {
      const x = model.positions[3 * i + k];
      solid[k] = Math.min(solid[k], x);
      solid[k + 3] = Math.max(solid[k + 3], x);
    }
  }
  renderer.model.frame(Number.isFinite(solid[0]) ? solid : undefined);
}

/** A box, least corner and then greatest, made as long as is asked for every way. */
function grown(box: readonly number[], least: number): number[] {
  const half = box.length / 2;
  return box.map((_, i) => {
    const [from, to] = [box[i % half], box[(i % half) + half]];
    const more = Math.max(0, least - (to - from)) / 2;
    return i < half ? from - more : to + more;
  });
}
