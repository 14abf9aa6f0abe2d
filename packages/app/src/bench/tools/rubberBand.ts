import { type Camera, Matrix4, OrthographicCamera, Vector3 } from 'three';
import { afterPick } from '../../store/acts.ts';
import { useBench } from '../../store/bench.ts';
import { select } from '../../store/select.ts';
import { ask } from '../../store/worker.ts';
import { NOWHERE } from '../../worker/protocol.ts';
import { clipOf, uvOf } from '../panes/places.ts';
import { handle } from '../panes/rendererHandle.ts';
import type { Grip, Place } from './tool.ts';

/** A rectangle from where it was pressed. */
export function rubberBand(start: Place): Grip {
  const clear = () => useBench.setState({ band: undefined });
  return {
    move: (to) => useBench.setState({ band: [start.x, start.y, to.x, to.y] }),
    drop(to) {
      clear();
      afterPick(selectBox(start, to));
    },
    cancel: clear,
  };
}

async function selectBox(start: Place, end: Place): Promise<void> {
  const found = await (start.pane === 'model' ? inModelBox(start, end) : inBoardBox(start, end));
  if (found) select(useBench.getState().target, start.pane === 'board' ? touched(found) : found, start.how);
}

/** Of what a box on the Board takes, what is shown there. */
function touched(items: readonly number[]): readonly number[] {
  const { boardLayer, target, shells, model } = useBench.getState();
  if (!boardLayer || !model) return items;
  const isShown = (drawn: number) => boardLayer.faces[model.triangleFace[Math.floor(drawn / 3)]] === 1;
  return items.filter((item) => {
    if (target === 'shells') return boardLayer.faces[shells[item].name] === 1;
    if (target === 'faces') return boardLayer.faces[item] === 1;
    if (target === 'points') return isShown(model.cornerDrawn[item]);
    return [0, 2].some(
      (side) => model.edgeEnds[4 * item + side] !== NOWHERE && isShown(model.edgeEnds[4 * item + side]),
    );
  });
}

function inBoardBox(start: Place, end: Place) {
  const [[u0, v0], [u1, v1]] = [uvOf(start.x, start.y), uvOf(end.x, end.y)];
  return ask('in-board-box', {
    target: useBench.getState().target,
    rectangle: [Math.min(u0, u1), Math.min(v0, v1), Math.max(u0, u1), Math.max(v0, v1)],
  });
}

async function inModelBox(start: Place, end: Place) {
  const [a, b] = [clipOf(start), clipOf(end)];
  return inView([Math.min(a.x, b.x), Math.min(a.y, b.y), Math.max(a.x, b.x), Math.max(a.y, b.y)]);
}

/** What lies in a rectangle of the Model as it is seen, and in an outline; both in clip space. */
export async function inView(
  rectangle: readonly [number, number, number, number],
  outline?: readonly number[],
) {
  const { renderer } = handle;
  if (!renderer) return undefined;
  const { visibleOnly, target } = useBench.getState();
  const camera = renderer.model.seen;
  return ask('in-box', {
    target,
    matrix: new Matrix4()
      .multiplyMatrices(camera.projectionMatrix, camera.matrixWorldInverse)
      .multiply(renderer.model.standing)
      .toArray(),
    rectangle,
    outline,
    eye: eyeOf(camera).applyMatrix4(renderer.model.standing.clone().invert()).toArray(),
    visibleOnly,
  });
}

/** Where the view comes from; for a parallel one, from very far away. */
function eyeOf(camera: Camera): Vector3 {
  if (!(camera instanceof OrthographicCamera)) return camera.position.clone();
  const back = new Vector3(0, 0, 1).applyQuaternion(camera.quaternion);
  return back.multiplyScalar(1000 * (camera.far - camera.near)).add(camera.position);
}
