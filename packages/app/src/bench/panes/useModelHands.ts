import { type RefObject, useEffect } from 'react';
import { type Camera, Matrix4, OrthographicCamera, Raycaster, Vector2, Vector3 } from 'three';
import { afterPick, select } from '../../store/actions.ts';
import { useBench } from '../../store/benchStore.ts';
import { bench } from '../../store/worker.ts';
import { CLICK_REACH, clicked, doubleClicked, hoverAsker, howOf, space } from './hands.ts';
import { handle } from './rendererHandle.ts';

/** Click, double-click, box and hover on the Model; turning and zooming are the controls' own. */
export function useModelHands(
  pane: RefObject<HTMLDivElement | null>,
  box: RefObject<HTMLDivElement | null>,
): void {
  useEffect(() => {
    const element = pane.current;
    const frame = box.current;
    if (!element || !frame) return;

    const clip = (x: number, y: number): Vector2 => {
      const { left, top, width, height } = element.getBoundingClientRect();
      return new Vector2((2 * (x - left)) / width - 1, 1 - (2 * (y - top)) / height);
    };
    const pick = async (x: number, y: number) => {
      const { renderer } = handle;
      if (!renderer) return undefined;
      const caster = new Raycaster();
      caster.setFromCamera(clip(x, y), renderer.camera);
      const { origin, direction } = caster.ray;
      return bench.pickModel(origin.toArray(), direction.toArray());
    };
    const hover = hoverAsker('model', pick);

    let down: { x: number; y: number; boxing: boolean } | undefined;
    const onDown = (event: PointerEvent) => {
      const boxing =
        event.button === 0 && !space.held && (useBench.getState().tool === 'box' || event.ctrlKey);
      down = { x: event.clientX, y: event.clientY, boxing };
      if (boxing && handle.renderer) handle.renderer.controls.enabled = false;
    };
    const onMove = (event: PointerEvent) => {
      if (down?.boxing) drawBox(frame, element, down, event);
      if (event.buttons === 0 && !space.held) void hover.at(event.clientX, event.clientY);
    };
    const onUp = (event: PointerEvent) => {
      const start = down;
      down = undefined;
      frame.hidden = true;
      if (handle.renderer) handle.renderer.controls.enabled = true;
      if (!start || event.button !== 0 || space.held) return;
      const moved = Math.hypot(event.clientX - start.x, event.clientY - start.y) > CLICK_REACH;
      if (moved && start.boxing)
        afterPick(selectBox(clip(start.x, start.y), clip(event.clientX, event.clientY), event));
      else if (!moved && event.detail < 2)
        afterPick(pick(event.clientX, event.clientY).then((found) => clicked(found, event)));
    };
    const onDouble = (event: MouseEvent) => {
      afterPick(pick(event.clientX, event.clientY).then((found) => doubleClicked(found, event)));
    };
    // Before the controls hear of it, so that a box does not turn the model.
    element.addEventListener('pointerdown', onDown, { capture: true });
    element.addEventListener('pointermove', onMove);
    window.addEventListener('pointerup', onUp);
    element.addEventListener('dblclick', onDouble);
    element.addEventListener('pointerleave', hover.leave);
    return () => {
      element.removeEventListener('pointerdown', onDown, { capture: true });
      element.removeEventListener('pointermove', onMove);
      window.removeEventListener('pointerup', onUp);
      element.removeEventListener('dblclick', onDouble);
      element.removeEventListener('pointerleave', hover.leave);
    };
  }, [pane, box]);
}

/** Where the view comes from; for a parallel one, from very far away. */
function eyeOf(camera: Camera): Vector3 {
  if (!(camera instanceof OrthographicCamera)) return camera.position;
  const back = new Vector3(0, 0, 1).applyQuaternion(camera.quaternion);
  return back.multiplyScalar(1000 * (camera.far - camera.near)).add(camera.position);
}

function drawBox(
  frame: HTMLElement,
  pane: HTMLElement,
  start: { x: number; y: number },
  event: PointerEvent,
): void {
  const outer =
    (frame.offsetParent as HTMLElement | null)?.getBoundingClientRect() ?? pane.getBoundingClientRect();
  frame.hidden = false;
  frame.style.left = `${Math.min(start.x, event.clientX) - outer.left}px`;
  frame.style.top = `${Math.min(start.y, event.clientY) - outer.top}px`;
  frame.style.width = `${Math.abs(event.clientX - start.x)}px`;
  frame.style.height = `${Math.abs(event.clientY - start.y)}px`;
}

async function selectBox(a: Vector2, b: Vector2, event: PointerEvent): Promise<void> {
  const { renderer } = handle;
  if (!renderer) return;
  const { visibleOnly, target } = useBench.getState();
  const matrix = new Matrix4().multiplyMatrices(
    renderer.camera.projectionMatrix,
    renderer.camera.matrixWorldInverse,
  );
  const query = {
    matrix: matrix.toArray(),
    rectangle: [Math.min(a.x, b.x), Math.min(a.y, b.y), Math.max(a.x, b.x), Math.max(a.y, b.y)],
    eye: eyeOf(renderer.camera).toArray(),
    visibleOnly,
  } as const;
  select(target, await bench.inBox(query, target), howOf(event));
}
