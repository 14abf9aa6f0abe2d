import { snapToBorders } from '@blunt-hem/core/measure/snapToBorders';
import type { UvMatrix } from '@blunt-hem/core/surface/similarity';
import { gapOf, tileOf } from '@blunt-hem/core/surface/tiles';
import type { UvBox } from '@blunt-hem/core/surface/uvBox';
import { useBench } from '../../store/bench.ts';
import { handle } from '../panes/rendererHandle.ts';
import { snapMove, snapsChosen } from '../snaps/index.ts';
import type { HeldBorders } from './flatBorders.ts';
import type { Place } from './tool.ts';

/** How near something has to be to take hold, pixels. */
const REACH = 7;
/** Boxes farther than this, heights of a tile, do not take hold: lines of far away shells are in the way. */
const NEAR = 0.15;

/** What the hand holds and what is round it. */
export interface Held {
  readonly box: UvBox;
  /** Boxes of shells that stay. */
  readonly others: readonly UvBox[];
  readonly borders: HeldBorders;
  /** Whether its outline comes to lie beside others; points have none. */
  readonly hasOutline: boolean;
}

/** How what the hand holds is moved, with what is near taking hold; with Ctrl held nothing does. */
export function snappedMove(start: Place, held: Held | undefined): (to: Place) => UvMatrix {
  return (to) => {
    const scale = handle.renderer?.board.view.scale ?? 1;
    const by = [(to.x - start.x) / scale, (start.y - to.y) / scale] as const;
    const takesHold = held && useBench.getState().snaps && !to.ctrl;
    const [du, dv] = takesHold ? taken(held, by, REACH / scale) : [0, 0];
    if (!takesHold) guide([]);
    return [1, 0, 0, 1, by[0] + du, by[1] + dv];
  };
}

/** By how much more it is moved where something takes hold; what does is drawn. */
function taken(
  { box, others, borders, hasOutline }: Held,
  [u, v]: readonly [number, number],
  reach: number,
): readonly [number, number] {
  const state = useBench.getState();
  const there: UvBox = [box[0] + u, box[1] + v, box[2] + u, box[3] + v];
  const tile = tileOf(state.tiles, there) ?? state.tiles[0];
  const { outline, ...near } = snapToBorders(borders.moved, [u, v], borders.still, reach, gapOf(tile));
  const holds = snapMove(
    {
      box: there,
      others: others.filter((other) => isNear(other, there)),
      tile,
      near: hasOutline ? { ...near, outline } : near,
    },
    snapsChosen(state),
    reach,
  );
  guide(holds.map((hold) => hold.guide));
  const sum = (k: 0 | 1) => holds.reduce((all, { by }) => all + by[k], 0);
  return [sum(0), sum(1)];
}

/** Draws what takes hold; where nothing did and nothing does, nobody is told. */
function guide(guides: ReturnType<typeof useBench.getState>['guides']): void {
  if (guides.length + useBench.getState().guides.length > 0) useBench.setState({ guides });
}

const isNear = (other: UvBox, box: UvBox): boolean =>
  other[0] <= box[2] + NEAR &&
  other[2] >= box[0] - NEAR &&
  other[1] <= box[3] + NEAR &&
  other[3] >= box[1] - NEAR;
