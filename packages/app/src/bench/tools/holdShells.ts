import type { UvMatrix } from '@blunt-hem/core/surface/similarity';
import { perform } from '../../store/acts.ts';
import { useBench } from '../../store/bench.ts';
import { namesOfChosen } from '../../store/select.ts';
import { NO_UV } from '../../worker/protocol.ts';
import { handle } from '../panes/rendererHandle.ts';
import type { Grip, Place } from './tool.ts';

/** The selected shells under the hand: shown where they would lie, and moved there when they are dropped. */
export function holdShells(start: Place): Grip {
  const scale = handle.renderer?.board.view.scale ?? 1;
  return gripShells((to) => [1, 0, 0, 1, (to.x - start.x) / scale, (start.y - to.y) / scale]);
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
  useBench.setState({ dragged: undefined });
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
