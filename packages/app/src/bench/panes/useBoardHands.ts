import type { UvMatrix } from '@blunt-hem/core/surface/similarity';
import { type RefObject, useEffect } from 'react';
import { afterPick, transformShells } from '../../store/actions.ts';
import { useBench } from '../../store/benchStore.ts';
import { bench } from '../../store/worker.ts';
import type { Pick } from '../../worker/protocol.ts';
import { CLICK_REACH, clicked, doubleClicked, hoverAsker, space } from './hands.ts';
import { handle } from './rendererHandle.ts';

/** Click, double-click and hover on the Board; dragging moves a selected shell, or else the view. */
export function useBoardHands(pane: RefObject<HTMLDivElement | null>): void {
  useEffect(() => {
    const element = pane.current;
    if (!element) return;

    const toUv = (x: number, y: number): readonly [number, number] => {
      const { left, top, width, height } = element.getBoundingClientRect();
      const view = handle.renderer?.board ?? { u: 0.5, v: 0.5, scale: 1 };
      return [view.u + (x - left - width / 2) / view.scale, view.v - (y - top - height / 2) / view.scale];
    };
    const pick = (x: number, y: number) => bench.pickBoard(...toUv(x, y));
    const hover = hoverAsker('board', pick);

    type Drag = {
      x: number;
      y: number;
      lastX: number;
      lastY: number;
      kind: 'view' | 'shells' | 'waiting';
      moved: boolean;
    };
    let drag: Drag | undefined;
    let under: Pick | undefined;

    const onDown = (event: PointerEvent) => {
      element.setPointerCapture(event.pointerId);
      const { x, y } = { x: event.clientX, y: event.clientY };
      const plain = event.button === 0 && !space.held && !event.shiftKey && !event.altKey;
      drag = { x, y, lastX: x, lastY: y, kind: plain ? 'waiting' : 'view', moved: false };
      under = undefined;
      if (!plain) return;
      // On a selected shell the hand holds the shell; anywhere else it holds the view.
      const started = drag;
      void pick(x, y).then((found) => {
        under = found;
        const { target, shells } = useBench.getState();
        started.kind = target === 'shells' && found && shells.has(found.shell) ? 'shells' : 'view';
      });
    };
    const shift = (event: PointerEvent): UvMatrix | undefined => {
      if (!drag || !handle.renderer) return undefined;
      const { scale } = handle.renderer.board;
      return [1, 0, 0, 1, (event.clientX - drag.x) / scale, (drag.y - event.clientY) / scale];
    };
    const onMove = (event: PointerEvent) => {
      const { renderer } = handle;
      if (!drag || !renderer) {
        if (event.buttons === 0 && !space.held) void hover.at(event.clientX, event.clientY);
        return;
      }
      if (Math.hypot(event.clientX - drag.x, event.clientY - drag.y) > CLICK_REACH) drag.moved = true;
      if (!drag.moved) return;
      const matrix = shift(event);
      if (drag.kind === 'shells' && matrix) renderer.previewTransform(useBench.getState().shells, matrix);
      if (drag.kind === 'view') {
        renderer.board.u -= (event.clientX - drag.lastX) / renderer.board.scale;
        renderer.board.v += (event.clientY - drag.lastY) / renderer.board.scale;
        renderer.request();
        boardMoved();
      }
      drag.lastX = event.clientX;
      drag.lastY = event.clientY;
    };
    const onUp = (event: PointerEvent) => {
      const ended = drag;
      const matrix = shift(event);
      drag = undefined;
      if (!ended) return;
      if (ended.moved) {
        if (ended.kind === 'shells' && matrix) void transformShells(matrix);
        return;
      }
      if (event.button !== 0 || space.held || event.detail > 1) return;
      if (under) clicked(under, event);
      else afterPick(pick(event.clientX, event.clientY).then((found) => clicked(found, event)));
    };
    const onDouble = (event: MouseEvent) => {
      afterPick(pick(event.clientX, event.clientY).then((found) => doubleClicked(found, event)));
    };
    const onWheel = (event: WheelEvent) => {
      event.preventDefault();
      const { renderer } = handle;
      if (!renderer) return;
      const [u, v] = toUv(event.clientX, event.clientY);
      const factor = Math.exp(-event.deltaY * 0.0015);
      const { board } = renderer;
      board.scale = Math.max(20, Math.min(200_000, board.scale * factor));
      board.u = u + (board.u - u) / factor;
      board.v = v + (board.v - v) / factor;
      renderer.request();
      boardMoved();
    };
    const noMenu = (event: Event) => event.preventDefault();
    element.addEventListener('pointerdown', onDown);
    element.addEventListener('pointermove', onMove);
    element.addEventListener('pointerup', onUp);
    element.addEventListener('dblclick', onDouble);
    element.addEventListener('wheel', onWheel, { passive: false });
    element.addEventListener('pointerleave', hover.leave);
    element.addEventListener('contextmenu', noMenu);
    return () => {
      element.removeEventListener('pointerdown', onDown);
      element.removeEventListener('pointermove', onMove);
      element.removeEventListener('pointerup', onUp);
      element.removeEventListener('dblclick', onDouble);
      element.removeEventListener('wheel', onWheel);
      element.removeEventListener('pointerleave', hover.leave);
      element.removeEventListener('contextmenu', noMenu);
    };
  }, [pane]);
}

/** Marks drawn over the Board must follow it. */
const boardMoved = () => window.dispatchEvent(new Event('hem-board-moved'));
