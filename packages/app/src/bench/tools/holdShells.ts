import type { UvMatrix } from '@blunt-hem/core/surface/similarity';
import { texelsAt } from '@blunt-hem/core/surface/tiles';
import { hint, perform } from '../../store/acts.ts';
import { useBench } from '../../store/bench.ts';
import { boxOfChosen, namesOfChosen } from '../../store/select.ts';
import { NO_UV } from '../../worker/protocol.ts';
import { handle } from '../panes/rendererHandle.ts';
import { snapBox } from './snapping.ts';
import type { Grip, Place } from './tool.ts';

/** How near a line has to be to take hold, pixels. */
const REACH = 7;

/** The selected shells under the hand: shown where they would lie, and moved there when they are dropped. With Ctrl held nothing takes hold. */
export function holdShells(start: Place): Grip {
  const scale = handle.renderer?.board.view.scale ?? 1;
  const { shells, chosen, tiles, snaps } = useBench.getState();
  const box = boxOfChosen({ chosen: [...chosen].filter((s) => !shells[s]?.locked), shells });
  const others = shells.flatMap((row, s) => (row.box && !chosen.has(s) ? [row.box] : []));
  return gripShells((to) => {
    const [u, v] = [(to.x - start.x) / scale, (start.y - to.y) / scale];
    if (!box || !snaps || to.ctrl) {
      useBench.setState({ guides: [] });
      return [1, 0, 0, 1, u, v];
    }
    const there = [box[0] + u, box[1] + v, box[2] + u, box[3] + v] as const;
    const { by, guides } = snapBox(there, others, tiles, REACH / scale);
    useBench.setState({ guides });
    return [1, 0, 0, 1, u + by[0], v + by[1]];
  });
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
  return {
    move: (to) => showTransformed(matrixAt(to)),
    drop: (to) => void transformChosen(matrixAt(to)),
    cancel: clearDrag,
  };
}

/** Moves, turns or scales the selected shells; shown at once, and back where they were if it cannot be kept. */
export async function transformChosen(matrix: UvMatrix): Promise<void> {
  showTransformed(matrix);
  await perform('transform-shells', { shells: namesOfChosen(), matrix });
  clearDrag();
}

function clearDrag(): void {
  handle.renderer?.drawn.clear('drag');
  useBench.setState({ dragged: undefined, guides: [] });
}

function showTransformed(m: UvMatrix): void {
  const { model, flat, chosen, shells } = useBench.getState();
  const drawn = handle.renderer?.drawn;
  if (!model || !flat || !drawn) return;
  const { triangleFace } = model;
  const held: number[] = [];
  for (let t = 0; t < triangleFace.length; t++) {
    const s = flat.faceShell[triangleFace[t]];
    if (chosen.has(s) && !shells[s]?.locked) held.push(t);
  }
  const real = drawn.real;
  const uv = new Float32Array(6 * held.length);
  held.forEach((t, i) => {
    for (let k = 0; k < 6; k += 2) {
      const [u, v] = [real[6 * t + k], real[6 * t + k + 1]];
      const out = u === NO_UV;
      uv[6 * i + k] = out ? u : m[0] * u + m[2] * v + m[4];
      uv[6 * i + k + 1] = out ? v : m[1] * u + m[3] * v + m[5];
    }
  });
  drawn.show('drag', { triangles: Uint32Array.from(held), uv });
  useBench.setState({ dragged: m });
}
