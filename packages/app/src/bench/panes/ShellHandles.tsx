import type { UvMatrix } from '@blunt-hem/core/surface/similarity';
import type { UvBox } from '@blunt-hem/core/surface/uvBox';
import { useDrag } from '@use-gesture/react';
import { useEffect, useRef, useState } from 'react';
import { useBench } from '../../store/bench.ts';
import { boxOfChosen } from '../../store/select.ts';
import { gripShells } from '../tools/holdShells.ts';
import { snapAngle } from '../tools/snapping.ts';
import type { Grip } from '../tools/tool.ts';
import { pageOf, paneElement, placeOf } from './places.ts';
import { handle } from './rendererHandle.ts';
import { onViewChange } from './viewChange.ts';

/** Round the selected shells on the Board: a frame, a corner to scale by and a knob to turn by. */
export function ShellHandles() {
  const chosen = useBench((s) => s.chosen);
  const rows = useBench((s) => s.shells);
  const dragged = useBench((s) => s.dragged);
  const [, redraw] = useState(0);

  useEffect(() => {
    const again = () => redraw((n) => n + 1);
    const stop = onViewChange(again);
    window.addEventListener('resize', again);
    return () => {
      stop();
      window.removeEventListener('resize', again);
    };
  }, []);

  // What is locked is not moved.
  const box = boxOfChosen({ chosen: [...chosen].filter((s) => !rows[s]?.locked), shells: rows });
  const { renderer } = handle;
  const frame = frameOf(box);
  const scale = useHandle(frame, ([fx, fy], [x, y]) => {
    const factor = Math.max(0.05, Math.hypot(x, y) / Math.hypot(fx, fy));
    return [factor, 0];
  });
  const turn = useHandle(frame, ([fx, fy], [x, y], isFree) => {
    const drawn = Math.atan2(fy, fx) - Math.atan2(y, x);
    const angle = isFree ? drawn : snapAngle(drawn);
    return [Math.cos(angle), Math.sin(angle)];
  });
  if (!frame || !renderer) return null;
  return (
    <div
      className="handles"
      style={{ ...frame.style, transform: dragged && asDragged(frame, dragged, renderer.board.view.scale) }}
    >
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

/** What a map of the flat does to the frame, as a style: u goes right and v up, about the frame's upper left corner. */
function asDragged({ corner: [u, v] }: Frame, [a, b, c, d, e, f]: UvMatrix, scale: number): string {
  const [du, dv] = [a * u + c * v + e - u, b * u + d * v + f - v];
  return `matrix(${a}, ${-b}, ${-c}, ${d}, ${du * scale}, ${-dv * scale})`;
}

interface Frame {
  /** Its upper left corner, u and v. */
  readonly corner: readonly [number, number];
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

/** Where a box is in the pane. */
function frameOf(box: UvBox | undefined): Frame | undefined {
  if (!box) return undefined;
  const [u0, v0, u1, v1] = box;
  const middle = [(u0 + u1) / 2, (v0 + v1) / 2] as const;
  const [corner, other, page] = [pageOf(u0, v1), pageOf(u1, v0), pageOf(...middle)];
  if (!corner || !other || !page) return undefined;
  const section = (paneElement('board').offsetParent ?? document.body).getBoundingClientRect();
  return {
    corner: [u0, v1],
    middle,
    page,
    style: {
      left: corner[0] - section.left,
      top: corner[1] - section.top,
      width: other[0] - corner[0],
      height: other[1] - corner[1],
    },
  };
}

type Point = readonly [number, number];

/**
 * A handle that scales and turns about the middle of the selected shells.
 *
 * @param factorOf  real and imaginary part of the factor, from where the pointer was to where it is, about the middle, and whether nothing is to take hold
 */
function useHandle(frame: Frame | undefined, factorOf: (from: Point, to: Point, isFree: boolean) => Point) {
  const grip = useRef<Grip | undefined>(undefined);
  return useDrag(
    ({ first, last, event, initial }) => {
      if (first && frame) {
        const { middle, page } = frame;
        const from = [initial[0] - page[0], initial[1] - page[1]] as const;
        grip.current = gripShells((to) =>
          aboutMiddle(
            middle,
            factorOf(from, [to.x - page[0], to.y - page[1]], to.ctrl || !useBench.getState().snaps),
          ),
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
