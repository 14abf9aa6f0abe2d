import { Raycaster, Vector2 } from 'three';
import { useBench } from '../../store/bench.ts';
import { touchableShells } from '../../store/boardLayer.ts';
import type { How, Pane } from '../../store/selection.ts';
import { ask } from '../../store/worker.ts';
import type { Picked, Place } from '../tools/tool.ts';
import { handle } from './rendererHandle.ts';

export const howOf = (event: { readonly shiftKey: boolean; readonly altKey: boolean }): How =>
  event.altKey ? 'remove' : event.shiftKey ? 'add' : 'only';

/** The pane's element. */
export const paneElement = (pane: Pane): HTMLElement =>
  document.querySelector(`[data-testid="${pane}"]`) as HTMLElement;

/**
 * Where a pointer is.
 *
 * @param at  where it is known to be more exactly: clicks are told in whole pixels, presses and moves are not
 */
export function placeOf(
  pane: Pane,
  event: MouseEvent | PointerEvent,
  [x, y]: readonly [number, number] = [event.clientX, event.clientY],
): Place {
  const here = { ...sampleOf(event), x, y };
  const between = 'getCoalescedEvents' in event ? event.getCoalescedEvents().map(sampleOf) : [];
  return {
    pane,
    ...here,
    trail: [...between.slice(0, -1), here],
    how: howOf(event),
    ctrl: event.ctrlKey,
    pick: () => pickAt(pane, x, y),
  };
}

/** Where a pointer was, and how it was held. */
function sampleOf(event: MouseEvent | PointerEvent): Pick<Place, 'x' | 'y' | 'pressure' | 'tilt'> {
  const isPointer = 'pressure' in event;
  return {
    x: event.clientX,
    y: event.clientY,
    pressure: isPointer ? event.pressure : 0.5,
    tilt: isPointer ? Math.min(1, Math.hypot(event.tiltX, event.tiltY) / 90) : 0,
  };
}

/** What keys do, where the pointer is at something: what was pointed at is what is picked. */
export function placeOfKeys(pane: Pane, how: How, picked: Picked): Place {
  const { left, top, width, height } = paneElement(pane).getBoundingClientRect();
  const here = { x: left + width / 2, y: top + height / 2, pressure: 0.5, tilt: 0 };
  return { pane, ...here, trail: [here], how, ctrl: false, pick: async () => picked };
}

/** Clip coordinates of a place of the Model. */
export function clipOf({ x, y }: { readonly x: number; readonly y: number }): Vector2 {
  const { left, top, width, height } = paneElement('model').getBoundingClientRect();
  return new Vector2((2 * (x - left)) / width - 1, 1 - (2 * (y - top)) / height);
}

/** u and v of a place of the Board. */
export function uvOf(x: number, y: number): readonly [number, number] {
  const { left, top, width, height } = paneElement('board').getBoundingClientRect();
  const view = handle.renderer?.board.view ?? { u: 0.5, v: 0.5, scale: 1 };
  return [view.u + (x - left - width / 2) / view.scale, view.v - (y - top - height / 2) / view.scale];
}

/** Where a place of the Board is on the page, pixels; undefined while nothing is drawn. */
export function pageOf(u: number, v: number): readonly [x: number, y: number] | undefined {
  const { renderer } = handle;
  if (!renderer) return undefined;
  const { left, top, width, height } = paneElement('board').getBoundingClientRect();
  const { view } = renderer.board;
  return [left + width / 2 + (u - view.u) * view.scale, top + height / 2 - (v - view.v) * view.scale];
}

const caster = new Raycaster();

async function pickAt(pane: Pane, x: number, y: number): Promise<Picked | undefined> {
  const { renderer } = handle;
  if (!renderer) return undefined;
  if (pane === 'board') {
    const [u, v] = uvOf(x, y);
    return ask('pick-board', { u, v, shells: touchableShells(useBench.getState()) });
  }
  caster.setFromCamera(clipOf({ x, y }), renderer.model.seen);
  const { origin, direction } = caster.ray.applyMatrix4(renderer.model.standing.clone().invert());
  return ask('pick-model', { origin: origin.toArray(), direction: direction.toArray() });
}
