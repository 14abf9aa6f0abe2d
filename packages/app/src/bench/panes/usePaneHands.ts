import { useGesture } from '@use-gesture/react';
import { type RefObject, useEffect, useRef } from 'react';
import { afterPick } from '../../store/acts.ts';
import { useBench } from '../../store/bench.ts';
import type { Pane } from '../../store/selection.ts';
import { nudgeShells } from '../tools/holdShells.ts';
import { toolNamed } from '../tools/index.ts';
import type { Grip, Place, Tool } from '../tools/tool.ts';
import { howOf, placeOf, placeOfKeys, uvOf } from './places.ts';
import { handle } from './rendererHandle.ts';
import { type Way, walk } from './walk.ts';

/** A pointer that moved less than this, in pixels, has clicked. */
const CLICK_REACH = 4;

/** To the right and up. */
const ARROWS: Readonly<Record<string, Way>> = {
  ArrowRight: [1, 0],
  ArrowLeft: [-1, 0],
  ArrowUp: [0, 1],
  ArrowDown: [0, -1],
};

/** Whether the space bar is held: then a hand only moves the view. */
const space = { held: false };
window.addEventListener('keydown', (event) => {
  if (event.code === 'Space') space.held = true;
});
window.addEventListener('keyup', (event) => {
  if (event.code === 'Space') space.held = false;
});

/** Whether something was last pointed at by arrow keys. */
const walked = { last: false };

/** What is held in either pane. */
let held: Hand | undefined;

/** Lets go of what is held, as if it had never been taken; false when nothing is. */
export function letGo(): boolean {
  if (typeof held?.grip !== 'object') return false;
  held.grip.cancel();
  held.grip = 'view';
  return true;
}

/** What one drag is about. */
interface Hand {
  /** Undefined while it is not known yet what the hand holds. */
  grip: Grip | 'view' | undefined;
  /** What the hand did meanwhile: where it moved to, and whether it let go. */
  meanwhile?: { readonly at: Place; readonly gone: boolean };
}

/**
 * Hands one pane's pointer and keys to the tool in hand: hover, click, double click, and drags from press to drop, with the pointer
 * captured and its loss told. What a tool does not take moves the view: the Model's controls turn it, the Board pans.
 */
export function usePaneHands(pane: Pane, element: RefObject<HTMLDivElement | null>): void {
  const toolHere = (): Tool | undefined => {
    const tool = toolNamed(useBench.getState().tool);
    return tool.panes.includes(pane) ? tool : undefined;
  };

  useGesture(
    {
      onDrag({ first, last, event, movement: [mx, my], delta: [dx, dy], tap }) {
        const pointer = event as PointerEvent;
        const at = placeOf(pane, pointer);
        if (first) {
          held = taken(at, pointer, toolHere());
          if (pane === 'model') holdControls(held);
        }
        const now = held;
        if (!now) return;
        const moved = !tap && Math.hypot(mx, my) > CLICK_REACH;
        if (now.grip === undefined && moved && pointer.type !== 'pointercancel')
          now.meanwhile = { at, gone: last };
        if (now.grip === 'view' && pane === 'board') handle.renderer?.board.pan(dx, dy);
        if (typeof now.grip === 'object' && moved && !last) now.grip.move(at);
        if (!last) return;
        held = undefined;
        if (pane === 'model') releaseControls();
        if (typeof now.grip !== 'object') return;
        const still = !moved && now.grip.stillCounts !== true;
        if (pointer.type === 'pointercancel' || still) now.grip.cancel();
        else now.grip.drop(at);
      },
      onMove({ event, dragging }) {
        const pointer = event as PointerEvent;
        walked.last = false;
        if (!dragging && pointer.buttons === 0 && !space.held) toolHere()?.hover?.(placeOf(pane, pointer));
      },
      onPointerLeave: () => toolHere()?.leave?.(),
      onWheel({ event }) {
        if (pane !== 'board') return;
        event.preventDefault();
        if (typeof held?.grip === 'object' && held.grip.wheel) {
          held.grip.wheel(event.deltaY);
          return;
        }
        const [u, v] = uvOf(event.clientX, event.clientY);
        handle.renderer?.board.zoom(u, v, Math.exp(-event.deltaY * 0.0015));
      },
      onClick({ event }) {
        if (event.button !== 0 || space.held || event.detail > 1) return;
        if (isClick(event)) toolHere()?.click?.(placeOf(pane, event, pressed.current));
      },
      onKeyDown({ event }) {
        const way = ARROWS[event.key];
        if (way) {
          event.preventDefault();
          if (event.altKey && pane === 'board') {
            nudgeShells(way, event.shiftKey ? 10 : 1);
            return;
          }
          walked.last = true;
          if (event.shiftKey) handle.renderer?.nudge(pane, way);
          else afterPick(walk(pane, way));
          return;
        }
        const { hover } = useBench.getState();
        if (event.key !== 'Enter') return;
        if (!walked.last && toolHere()?.keys?.enter?.()) return;
        if (!hover) return;
        const at = placeOfKeys(pane, howOf(event), hover);
        if (event.ctrlKey) toolHere()?.double?.(at);
        else toolHere()?.click?.(at);
      },
      onContextMenu: ({ event }) => event.preventDefault(),
    },
    {
      target: element,
      eventOptions: { passive: false, capture: true },
      drag: { filterTaps: false, pointer: { buttons: [1, 2, 4], keys: false }, threshold: 0 },
    },
  );

  // Where a press began, to tell clicks from drags that end on the pane; and double clicks, which the gestures do not know.
  const pressed = useRef<readonly [number, number]>([0, 0]);
  const isClick = (event: MouseEvent): boolean =>
    Math.hypot(event.clientX - pressed.current[0], event.clientY - pressed.current[1]) <= CLICK_REACH;
  useEffect(() => {
    const { current } = element;
    const remember = (event: PointerEvent) => {
      pressed.current = [event.clientX, event.clientY];
    };
    const double = (event: MouseEvent) => {
      const tool = toolNamed(useBench.getState().tool);
      if (!space.held && tool.panes.includes(pane)) tool.double?.(placeOf(pane, event, pressed.current));
    };
    current?.addEventListener('pointerdown', remember, { capture: true });
    current?.addEventListener('dblclick', double);
    return () => {
      current?.removeEventListener('pointerdown', remember, { capture: true });
      current?.removeEventListener('dblclick', double);
    };
  }, [element, pane]);
}

/** What a press takes into the hand. */
function taken(at: ReturnType<typeof placeOf>, event: PointerEvent, tool: Tool | undefined): Hand {
  if (!tool?.press || event.button !== 0 || space.held) return { grip: 'view' };
  const grip = tool.press(at);
  if (!(grip instanceof Promise)) return { grip: grip ?? 'view' };
  const hand: Hand = { grip: undefined };
  afterPick(
    grip.then((found) => {
      hand.grip = found ?? 'view';
      if (held === hand) holdControls(hand);
      const { meanwhile } = hand;
      if (!found || !meanwhile) return;
      found.move(meanwhile.at);
      if (meanwhile.gone) found.drop(meanwhile.at);
    }),
  );
  return hand;
}

/** What a tool holds must not turn the model, nor what it may be about to hold; the controls hear of the press all the same, to turn it from there. */
function holdControls(hand: Hand): void {
  const controls = handle.renderer?.model.controls;
  if (!controls) return;
  if (hand.grip !== undefined) controls.enabled = hand.grip === 'view';
  else
    setTimeout(() => {
      if (held === hand && hand.grip !== 'view') controls.enabled = false;
    });
}

function releaseControls(): void {
  const controls = handle.renderer?.model.controls;
  if (controls) controls.enabled = true;
}
