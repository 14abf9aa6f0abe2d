import { IconArrowsMove } from '@tabler/icons-react';
import { Button } from 'antd';
import { afterPick, fail, hint, perform } from '../../store/acts.ts';
import { useBench } from '../../store/bench.ts';
import { select } from '../../store/select.ts';
import { ArtistError, ask } from '../../store/worker.ts';
import { seamNear } from '../panes/seamNear.ts';
import { newestOnly } from './newestOnly.ts';
import { byClick } from './picking.ts';
import type { Grip, Place, Tool } from './tool.ts';

/** Moves a seam over to where the hand takes it; the shells on its sides keep what they can of their UVs. */
export const shift: Tool = {
  name: 'shift',
  label: 'Shift',
  help: 'Drag a seam over to another place; from fork to fork, or as much of it as is selected',
  key: 'r',
  icon: IconArrowsMove,
  panes: ['model', 'board'],
  hover: (at) => void pointAtSeam(at),
  leave: byClick.leave,
  click: byClick.click,
  double: byClick.double,
  press: seamAt,
  leaveHand: () => useBench.setState({ shifting: undefined }),
  Settings() {
    const edges = useBench((s) => s.edges.size);
    const shifting = useBench((s) => s.shifting);
    if (shifting)
      return (
        <p className="rail-text">
          {shifting.edges.length === 0
            ? 'It cannot run there.'
            : `${shifting.faces.toLocaleString('en-GB')} faces change sides.`}
        </p>
      );
    if (edges === 0) return <p className="rail-text">Drag a seam, or pick one and move it by rows.</p>;
    return (
      <div className="button-grid">
        <Button size="small" onClick={() => void byRows(1)}>
          One row over
        </Button>
        <Button size="small" onClick={() => void byRows(-1)}>
          One row back
        </Button>
      </div>
    );
  },
};

/** Lights up the seam that a press would take hold of; off every seam nothing, for there a press turns the view. */
const pointAtSeam = newestOnly(async (at: Place, isNewest) => {
  const found = await at.pick().catch(() => undefined);
  const { flat, hover } = useBench.getState();
  const edge =
    !found || !flat ? undefined : flat.seams.includes(found.edge) ? found.edge : seamNear(at, found);
  if (!isNewest()) return;
  if (!found || edge === undefined) {
    if (hover) useBench.setState({ hover: undefined });
  } else if (hover?.edge !== edge) {
    const { face, point, shell } = found;
    useBench.setState({ hover: { pane: at.pane, edge, face, point, shell } });
  }
});

/** Takes hold of the seam under a press. */
async function seamAt(at: Place): Promise<Grip | undefined> {
  const found = await at.pick();
  if (!found) return undefined;
  const { edges: selected, flat } = useBench.getState();
  const edge = flat?.seams.includes(found.edge) ? found.edge : seamNear(at, found);
  if (!flat || edge === undefined) return undefined;
  const isSeam = new Set(flat.seams);
  const chosen = selected.has(edge) && [...selected].every((e) => isSeam.has(e)) ? [...selected] : undefined;
  const run = chosen ?? (await ask('edge-loop', { edge, rings: false }))?.edges;
  return run && hold(run);
}

/** A run of seam under the hand. */
function hold(run: readonly number[]): Grip {
  let to: number | undefined;
  let asking = false;
  let next: Place | undefined;
  let ended = false;
  let working: Promise<void> = Promise.resolve();
  const follow = async (): Promise<void> => {
    while (next) {
      const now: Place = next;
      next = undefined;
      const vertex = (await now.pick().catch(() => undefined))?.vertex;
      if (vertex === undefined || vertex === to) continue;
      to = vertex;
      const there = await ask('shifted-seam', { edges: [...run], to: vertex }).catch((error) => {
        if (!(error instanceof ArtistError)) throw error;
        return { edges: [], faces: 0 };
      });
      if (there && !ended) useBench.setState({ shifting: there });
    }
    asking = false;
  };
  const move = (place: Place): void => {
    next = place;
    if (asking) return;
    asking = true;
    working = follow();
  };
  const letGo = (): void => {
    ended = true;
    useBench.setState({ shifting: undefined });
  };
  return {
    move,
    drop(place) {
      move(place);
      afterPick(
        working.then(async () => {
          letGo();
          if (to === undefined) return hint('Drag the seam over the model, or over its shell.');
          await shiftTo(run, { to });
        }),
      );
    },
    cancel: letGo,
  };
}

async function byRows(rows: number): Promise<void> {
  await shiftTo([...useBench.getState().edges], { rows });
}

/** Shifts a seam, and keeps it selected where it is now, to be shifted on. */
async function shiftTo(
  run: readonly number[],
  by: { readonly to: number } | { readonly rows: number },
): Promise<void> {
  try {
    const there = await ask('shifted-seam', { edges: [...run], ...by });
    if (!there || !(await perform('shift-seam', { edges: [...run], ...by }))) return;
    useBench.setState({ target: 'edges' });
    select('edges', there.edges, 'only');
  } catch (error) {
    fail(error);
  }
}
