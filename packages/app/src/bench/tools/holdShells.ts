import type { UvMatrix } from '@blunt-hem/core/surface/similarity';
import { texelsAt } from '@blunt-hem/core/surface/tiles';
import { hint, perform } from '../../store/acts.ts';
import { useBench } from '../../store/bench.ts';
import { boxOfChosen, namesOfChosen } from '../../store/select.ts';
import { NO_UV } from '../../worker/protocol.ts';
import { uvOf } from '../panes/places.ts';
import { handle } from '../panes/rendererHandle.ts';
import { heldBorders } from './flatBorders.ts';
import { type Held, snappedMove } from './snappedMove.ts';
import type { Grip, Place } from './tool.ts';

/** The selected shells under the hand: shown where they would lie, and moved there when they are dropped. */
export const holdShells = (start: Place): Grip => gripShells(snappedMove(start, heldShells(start)));

/** The selected shells that are not locked, and the shells that stay. */
function heldShells(start: Place): Held | undefined {
  const { model, flat, shells, chosen } = useBench.getState();
  const moves = movable();
  const box = boxOfChosen({ chosen: [...chosen].filter((s) => moves[s]), shells });
  if (!box || !model || !flat) return undefined;
  return {
    box,
    others: shells.flatMap((row, s) => (row.box && !moves[s] ? [row.box] : [])),
    borders: heldBorders(model, flat, moves, uvOf(start.x, start.y)),
    hasOutline: true,
  };
}

/** 1 for each shell that is selected and not locked. */
function movable(): Uint8Array {
  const { chosen, shells } = useBench.getState();
  return Uint8Array.from(shells, ({ locked }, s) => (chosen.has(s) && !locked ? 1 : 0));
}

/** Moves the selected shells by so many texels of the tile in which they lie. */
export function nudgeShells([right, up]: readonly [number, number], texels: number): void {
  const { shells, chosen, tiles } = useBench.getState();
  const box = boxOfChosen({ chosen, shells });
  if (!box) {
    hint('Pick an unfolded shell first.');
    return;
  }
  const texel = texels / texelsAt(tiles, box);
  void transformChosen([1, 0, 0, 1, right * texel, up * texel]);
}

/** The selected shells under the hand, by any map of the flat. */
export function gripShells(matrixAt: (to: Place) => UvMatrix): Grip {
  const show = pictureOfChosen();
  return {
    move: (to) => show(matrixAt(to)),
    drop: (to) => void transformChosen(matrixAt(to)),
    cancel: clearDrag,
  };
}

/** Moves, turns or scales the selected shells; shown at once, and back where they were if it cannot be kept. */
export async function transformChosen(matrix: UvMatrix): Promise<void> {
  pictureOfChosen()(matrix);
  await perform('transform-shells', { shells: namesOfChosen(), matrix });
  clearDrag();
}

function clearDrag(): void {
  handle.renderer?.drawn.clear('drag');
  useBench.setState({ dragged: undefined, guides: [] });
}

/** Draws the selected shells where a map of the flat lays them; what of them moves is gathered once. */
function pictureOfChosen(): (matrix: UvMatrix) => void {
  const { model, flat } = useBench.getState();
  const drawn = handle.renderer?.drawn;
  if (!model || !flat || !drawn) return () => undefined;
  const { triangleFace } = model;
  const moves = movable();
  const triangles = Uint32Array.from(triangleFace.keys()).filter(
    (t) => moves[flat.faceShell[triangleFace[t]]] === 1,
  );
  const uv = new Float32Array(6 * triangles.length);
  return (matrix) => {
    const [a, b, c, d, e, f] = matrix;
    const { real } = drawn;
    for (let i = 0; i < triangles.length; i++) {
      const [from, to] = [6 * triangles[i], 6 * i];
      for (let k = 0; k < 6; k += 2) {
        const [u, v] = [real[from + k], real[from + k + 1]];
        const isNowhere = u === NO_UV;
        uv[to + k] = isNowhere ? u : a * u + c * v + e;
        uv[to + k + 1] = isNowhere ? v : b * u + d * v + f;
      }
    }
    drawn.show('drag', { triangles, uv });
    useBench.setState({ dragged: matrix });
  };
}
