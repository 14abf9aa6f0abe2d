import type { UvMatrix } from '@blunt-hem/core/surface/similarity';
import { texelsAt } from '@blunt-hem/core/surface/tiles';
import type { UvBox } from '@blunt-hem/core/surface/uvBox';
import { useDrag } from '@use-gesture/react';
import { type CSSProperties, type KeyboardEvent, useEffect, useRef, useState } from 'react';
import { useShallow } from 'zustand/react/shallow';
import { useBench } from '../../store/bench.ts';
import { snapsChosen, snapTurn } from '../snaps/index.ts';
import { chosenDirections } from '../tools/chosenDirections.ts';
import {
  type Linear,
  mapAbout,
  middleOf,
  type Point,
  type Subject,
  turnBy,
  useSubject,
} from '../tools/subject.ts';
import type { Grip } from '../tools/tool.ts';
import { pageOf, paneElement, placeOf, uvOf } from './places.ts';
import { handle } from './rendererHandle.ts';
import { onViewChange } from './viewChange.ts';

/** So many pixels the frame lies outside of what it is round, so that no handle covers that. */
const MARGIN = 9;
/** Smaller than this on screen, pixels, it has no handles on its sides and no pivot: they would lie on one another. */
const ROOMY = 40;

/** Handles at corners, which scale evenly, and at sides, which scale along one way; each as parts of the frame, from its upper left. */
const CORNERS = [
  [1, 0],
  [0, 0],
  [0, 1],
  [1, 1],
] as const;
const SIDES = [
  [1, 0.5],
  [0.5, 1],
  [0, 0.5],
  [0.5, 0],
] as const;
const NAMES = ['right', 'lower', 'left', 'upper'] as const;

/** Round what is selected on the Board: a frame with corners and sides to scale by, a knob to turn by, and the pivot about which both are done. */
export function Frame() {
  const subject = useSubject();
  const moving = useBench((s) => s.dragged ?? s.pulled);
  const pivot = useBench((s) => s.pivot);
  const box = subject?.box;
  useRedrawOnView();
  // A pivot was put for what was selected.
  const selection = useBench(useShallow((s) => [s.chosen, s.points, s.edges, s.faces]));
  // biome-ignore lint/correctness/useExhaustiveDependencies: it goes with the selection
  useEffect(() => useBench.setState({ pivot: undefined }), [selection]);
  const { renderer } = handle;
  const onPage = box && pageOf(box[0], box[3]);
  // A single point has no size to be drawn by.
  if (!subject || !box || !onPage || !renderer || (box[0] === box[2] && box[1] === box[3])) return null;
  const { scale } = renderer.board.view;
  const section = (paneElement('board').offsetParent ?? document.body).getBoundingClientRect();
  const [width, height] = [(box[2] - box[0]) * scale, (box[3] - box[1]) * scale];
  const frame: FrameOnPage = {
    subject,
    width,
    height,
    about: pivot ?? middleOf(box),
  };
  const isRoomy = Math.min(width, height) >= ROOMY;
  const style = { left: onPage[0] - section.left, top: onPage[1] - section.top, width, height };
  return (
    <div
      className="frame"
      style={{ ...style, transform: moving && asMoved([box[0], box[3]], moving, scale) }}
    >
      {CORNERS.map(([x, y], i) => (
        <Corner key={`${x} ${y}`} frame={frame} x={x} y={y} isMain={i === 0} />
      ))}
      {isRoomy &&
        SIDES.map(([x, y], i) => <Side key={`${x} ${y}`} frame={frame} x={x} y={y} name={NAMES[i]} />)}
      <Knob frame={frame} />
      {isRoomy && <Pivot frame={frame} box={box} />}
    </div>
  );
}

interface FrameOnPage {
  readonly subject: Subject;
  readonly width: number;
  readonly height: number;
  /** About what is turned and scaled, u and v. */
  readonly about: Point;
}

interface HandleProps {
  readonly frame: FrameOnPage;
  readonly x: number;
  readonly y: number;
}

/** Where a handle lies: on the frame, a little outside. */
const placed = ({ width, height }: FrameOnPage, x: number, y: number): CSSProperties => ({
  left: x * width + (2 * x - 1) * MARGIN,
  top: y * height + (2 * y - 1) * MARGIN,
});

/** Scales evenly about the pivot. */
function Corner({ frame, x, y, isMain }: HandleProps & { readonly isMain: boolean }) {
  const bind = useHandle(frame, (from, to) => {
    const factor = ratio(Math.hypot(...to), Math.hypot(...from));
    return [factor, 0, 0, factor];
  });
  const keys = useSteps(frame, ([right, up], isLarge) => {
    const factor = (isLarge ? 1.1 : 1.01) ** (right + up);
    return [factor, 0, 0, factor];
  });
  return (
    <button
      type="button"
      className="frame-corner"
      style={{ ...placed(frame, x, y), cursor: x === y ? 'nwse-resize' : 'nesw-resize' }}
      // One of them is enough for keys.
      tabIndex={isMain ? 0 : -1}
      aria-label={`Scale ${frame.subject.what}${isMain ? '' : `, by the ${y === 0 ? 'upper' : 'lower'} ${x === 0 ? 'left' : 'right'}`}`}
      {...bind()}
      onKeyDown={keys}
    />
  );
}

/** Scales along one way, about the pivot; about the side across where no pivot was put. */
function Side({ frame, x, y, name }: HandleProps & { readonly name: string }) {
  const axis = y === 0.5 ? 0 : 1;
  const { box } = frame.subject;
  const pivot = useBench((s) => s.pivot);
  const across: Point =
    axis === 0 ? [x === 1 ? box[0] : box[2], frame.about[1]] : [frame.about[0], y === 1 ? box[3] : box[1]];
  const own = { ...frame, about: pivot ?? across };
  const along = (factor: number): Linear => (axis === 0 ? [factor, 0, 0, 1] : [1, 0, 0, factor]);
  const bind = useHandle(own, (from, to) => along(ratio(to[axis], from[axis])));
  const keys = useSteps(own, ([right, up], isLarge) => along((isLarge ? 1.1 : 1.01) ** (right + up)));
  return (
    <button
      type="button"
      className="frame-side"
      style={{ ...placed(frame, x, y), cursor: axis === 0 ? 'ew-resize' : 'ns-resize' }}
      aria-label={`Scale along one way, ${name} side`}
      {...bind()}
      onKeyDown={keys}
    />
  );
}

/** Turns about the pivot. */
function Knob({ frame }: { readonly frame: FrameOnPage }) {
  const bind = useHandle(frame, (from, to, isFree) => {
    const drawn = Math.atan2(from[1], from[0]) - Math.atan2(to[1], to[0]);
    // From the last half turn on it goes the other way round.
    const angle = Math.atan2(Math.sin(drawn), Math.cos(drawn));
    if (isFree) return turnBy(angle);
    const state = useBench.getState();
    return turnBy(snapTurn({ angle, ...chosenDirections(state) }, snapsChosen(state)));
  });
  const keys = useSteps(frame, ([right, up], isLarge) =>
    turnBy(((isLarge ? 15 : 1) * -(right + up) * Math.PI) / 180),
  );
  return (
    <button
      type="button"
      className="frame-knob"
      style={{ left: frame.width / 2, top: -MARGIN - 22 }}
      aria-label={`Turn ${frame.subject.what}`}
      {...bind()}
      onKeyDown={keys}
    />
  );
}

/** About what is turned and scaled: the middle, until it is drawn from below the frame to anywhere; back by a double click. */
function Pivot({ frame, box }: { readonly frame: FrameOnPage; readonly box: UvBox }) {
  const isPut = useBench((s) => s.pivot !== undefined);
  const [u, v] = frame.about;
  const onFrame = {
    left: ((u - box[0]) / (box[2] - box[0] || 1)) * frame.width,
    top: ((box[3] - v) / (box[3] - box[1] || 1)) * frame.height,
  };
  const bind = useDrag(
    ({ event, tap }) => {
      const { clientX, clientY } = event as PointerEvent;
      if (!tap) useBench.setState({ pivot: uvOf(clientX, clientY) });
    },
    { pointer: { keys: false }, filterTaps: true },
  );
  const step = (event: KeyboardEvent) => {
    const way = ARROWS[event.key];
    if (!way) return;
    event.preventDefault();
    const texel = (event.shiftKey ? 10 : 1) / texelsAt(useBench.getState().tiles, box);
    useBench.setState({ pivot: [u + way[0] * texel, v + way[1] * texel] });
  };
  return (
    <button
      type="button"
      className="frame-pivot"
      style={isPut ? onFrame : { left: frame.width / 2, top: frame.height + MARGIN + 16 }}
      aria-label="Pivot: about what is turned and scaled"
      {...bind()}
      onDoubleClick={() => useBench.setState({ pivot: undefined })}
      onKeyDown={step}
    />
  );
}

/** Nothing is scaled to nothing, turned over, or to infinity where a handle is taken at the pivot itself. */
const ratio = (to: number, from: number): number =>
  Math.abs(from) < 1 ? 1 : Math.min(100, Math.max(0.01, to / from));

/**
 * A handle that the pointer drags.
 *
 * @param linearOf  what is done, from where the pointer was to where it is, pixels from the pivot, and whether nothing is to take hold
 */
function useHandle(
  { subject, about }: FrameOnPage,
  linearOf: (from: Point, to: Point, isFree: boolean) => Linear,
) {
  const grip = useRef<Grip | undefined>(undefined);
  return useDrag(
    ({ first, last, event, initial }) => {
      const page = first && pageOf(...about);
      if (page) {
        const from = [initial[0] - page[0], initial[1] - page[1]] as const;
        grip.current = subject.grip((to) =>
          mapAbout(
            about,
            linearOf(from, [to.x - page[0], to.y - page[1]], to.ctrl || !useBench.getState().snaps),
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

const ARROWS: Readonly<Record<string, Point>> = {
  ArrowRight: [1, 0],
  ArrowLeft: [-1, 0],
  ArrowUp: [0, 1],
  ArrowDown: [0, -1],
};

/** A handle that arrow keys work: a step, with Shift a large one. */
function useSteps({ subject, about }: FrameOnPage, linearOf: (way: Point, isLarge: boolean) => Linear) {
  return (event: KeyboardEvent) => {
    const way = ARROWS[event.key];
    if (!way) return;
    event.preventDefault();
    event.stopPropagation();
    void subject.transform(mapAbout(about, linearOf(way, event.shiftKey)));
  };
}

/** What a map of the flat does to the frame, as a style: u goes right and v up, about the frame's upper left corner. */
function asMoved([u, v]: Point, [a, b, c, d, e, f]: UvMatrix, scale: number): string {
  const [du, dv] = [a * u + c * v + e - u, b * u + d * v + f - v];
  return `matrix(${a}, ${-b}, ${-c}, ${d}, ${du * scale}, ${-dv * scale})`;
}

function useRedrawOnView(): void {
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
}
