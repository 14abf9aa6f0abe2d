import type { UvMatrix } from '@blunt-hem/core/surface/similarity';
import { useDrag } from '@use-gesture/react';
import { useEffect, useRef, useState } from 'react';
import { useBench } from '../../store/bench.ts';
import { gripShells } from '../tools/holdShells.ts';
import type { Grip } from '../tools/tool.ts';
import { paneElement, placeOf } from './places.ts';
import { handle } from './rendererHandle.ts';

/** Round the selected shells on the Board: a frame, a corner to scale by and a knob to turn by. */
export function ShellHandles() {
  const chosen = useBench((s) => s.chosen);
  const rows = useBench((s) => s.shells);
  const [, redraw] = useState(0);

  useEffect(() => {
    const again = () => redraw((n) => n + 1);
    const stop = handle.renderer?.onViewChange(again);
    window.addEventListener('resize', again);
    return () => {
      stop?.();
      window.removeEventListener('resize', again);
    };
  }, []);

  const boxes = [...chosen].flatMap((s) => rows[s]?.box ?? []);
  const { renderer } = handle;
  const frame = frameOf(boxes);
  const scale = useHandle(frame, ([fx, fy], [x, y]) => {
    const factor = Math.max(0.05, Math.hypot(x, y) / Math.hypot(fx, fy));
    return [factor, 0];
  });
  const turn = useHandle(frame, ([fx, fy], [x, y]) => {
    const angle = Math.atan2(fy, fx) - Math.atan2(y, x);
    return [Math.cos(angle), Math.sin(angle)];
  });
  if (!frame || !renderer) return null;
  return (
    <div className="handles" style={frame.style}>
      <button
        type="button"
        className="handle handle-scale"
        aria-label="Scale the selected shells"
        {...scale()}
      />
      <button
        type="button"
        className="handle handle-turn"
        aria-label="Turn the selected shells"
        {...turn()}
      />
    </div>
  );
}

interface Frame {
  /** Middle of the selected shells, u and v, and pixels of the page. */
  readonly middle: readonly [number, number];
  readonly page: readonly [number, number];
  readonly style: {
    readonly left: number;
    readonly top: number;
    readonly width: number;
    readonly height: number;
  };
}

/** Where boxes of shells are in the pane; u and v of their corners, four numbers each. */
function frameOf(boxes: readonly number[]): Frame | undefined {
  const { renderer } = handle;
  if (boxes.length === 0 || !renderer) return undefined;
  const pane = paneElement('board').getBoundingClientRect();
  const section = (paneElement('board').offsetParent ?? document.body).getBoundingClientRect();
  const at = (k: number) => boxes.filter((_, i) => i % 4 === k);
  const [u0, v0, u1, v1] = [Math.min(...at(0)), Math.min(...at(1)), Math.max(...at(2)), Math.max(...at(3))];
  const { board } = renderer;
  const x = (u: number) => pane.left + pane.width / 2 + (u - board.u) * board.scale;
  const y = (v: number) => pane.top + pane.height / 2 - (v - board.v) * board.scale;
  const middle = [(u0 + u1) / 2, (v0 + v1) / 2] as const;
  return {
    middle,
    page: [x(middle[0]), y(middle[1])],
    style: {
      left: x(u0) - section.left,
      top: y(v1) - section.top,
      width: x(u1) - x(u0),
      height: y(v0) - y(v1),
    },
  };
}

type Point = readonly [number, number];

/**
 * A handle that scales and turns about the middle of the selected shells.
 *
 * @param factorOf  real and imaginary part of the factor, from where the pointer was to where it is, about the middle
 */
function useHandle(frame: Frame | undefined, factorOf: (from: Point, to: Point) => Point) {
  const grip = useRef<Grip | undefined>(undefined);
  return useDrag(
    ({ first, last, event, initial }) => {
      if (first && frame) {
        const { middle, page } = frame;
        const from = [initial[0] - page[0], initial[1] - page[1]] as const;
        grip.current = gripShells((to) =>
          aboutMiddle(middle, factorOf(from, [to.x - page[0], to.y - page[1]])),
        );
      }
      const at = placeOf('board', event as PointerEvent);
      if (!last) grip.current?.move(at);
      else if (event.type === 'pointercancel') grip.current?.cancel();
      else grip.current?.drop(at);
    },
    { pointer: { keys: false } },
  );
}

const aboutMiddle = ([u, v]: Point, [a, b]: Point): UvMatrix => [
  a,
  b,
  -b,
  a,
  u - a * u + b * v,
  v - b * u - a * v,
];
