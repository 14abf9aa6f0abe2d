import type { TargetId } from '@blunt-hem/core/select/targets/index';
import { afterPick, hint } from '../../store/acts.ts';
import { useBench } from '../../store/bench.ts';
import { select } from '../../store/select.ts';
import { type How, SELECTED } from '../../store/selection.ts';
import { ask } from '../../store/worker.ts';
import { spotOf } from '../panes/spot.ts';
import { newestOnly } from './newestOnly.ts';
import type { Picked, Place, Tool } from './tool.ts';

/** Edges that were selected before the last click: the first half of a double click is taken back, for the whole takes its place. */
let beforeClick: ReadonlySet<number> | undefined;

/** Selects what lies under a click; beside everything, nothing. */
function pickAt(at: Place): void {
  beforeClick = useBench.getState().edges;
  afterPick(
    at.pick().then((found) => {
      const { target } = useBench.getState();
      if (found) select(target, withTogether(target, found[SELECTED[target].part]), at.how);
      else if (at.how === 'only') select(target, [], 'only');
    }),
  );
}

/** What is kept together is picked together: a stack moves as one. In the list each is picked by itself. */
function withTogether(target: TargetId, item: number): number[] {
  const { shells } = useBench.getState();
  const group = target === 'shells' ? shells[item]?.group : 0;
  return group ? [...shells.keys()].filter((s) => shells[s].group === group) : [item];
}

/** Selects the whole loop or ring of an edge, the whole piece of a face. */
function pickWhole(at: Place): void {
  // By keys there is no click before.
  const before = at.ctrl ? undefined : beforeClick;
  afterPick(at.pick().then((found) => found && selectWhole(found, at.how, before)));
}

async function selectWhole(found: Picked, how: How, before?: ReadonlySet<number>): Promise<void> {
  const { target, model } = useBench.getState();
  if (target === 'shells') return;
  if (target === 'points') {
    const all = await ask('changed-pick', { how: 'connected', points: [found.point] });
    if (all) select('points', all.points, how);
    return;
  }
  if (target === 'edges') {
    const loop = await ask('edge-loop', { edge: found.edge });
    if (!loop) return;
    if (before) useBench.setState({ edges: before });
    select('edges', loop.edges, how);
    if (loop.what === 'ring') hint('No loop of quads here: this is the tightest ring through the edge.');
    if (loop.what === 'run')
      hint('Neither a loop nor a ring here: this is the straightest run through the edge.');
    if (loop.what === 'edge') hint('Neither a loop nor a ring runs through this edge: it was taken alone.');
    return;
  }
  const piece = model?.parts.find(({ kind }) => kind === 'piece')?.facePart;
  const faces: number[] = [];
  useBench.getState().flat?.faceShell.forEach((_, f) => {
    if (!piece || piece[f] === piece[found.face]) faces.push(f);
  });
  select('faces', faces, how);
}

/** Shows what a click would pick, one question at a time; only the newest answer counts. */
function hoverPicker() {
  /** Counts how often the pointer has left: what was asked before that is of no more use. */
  let visit = 0;
  const settle = (at: Place, found: Picked | undefined) => {
    const { hover, stage, model, flat } = useBench.getState();
    if (stage === 'inspect' && found?.place && model && flat)
      useBench.setState({ spot: spotOf(model, flat, at.pane, found.face, found.place) });
    if (!found) {
      if (hover) useBench.setState({ hover: undefined });
    } else if (
      hover?.pane !== at.pane ||
      (['edge', 'face', 'point'] as const).some((part) => hover[part] !== found[part])
    ) {
      const { edge, face, point, shell } = found;
      const whole = hover?.edge === edge ? hover.whole : undefined;
      useBench.setState({ hover: { pane: at.pane, edge, face, point, shell, whole } });
    }
  };
  const look = newestOnly(async ({ place, during }: { place: Place; during: number }, isNewest) => {
    if (during !== visit) return;
    const found = await place.pick().catch(() => undefined);
    if (isNewest() && during === visit) settle(place, found);
  });
  return {
    at: (place: Place) => look({ place, during: visit }),
    leave(): void {
      visit++;
      if (useBench.getState().hover) useBench.setState({ hover: undefined });
    },
  };
}

const hovering = hoverPicker();

/** Lights up what is pointed at, picks it by a click, and its loop or piece by a double click: what every picking tool does. */
export const byClick: Pick<Tool, 'hover' | 'leave' | 'click' | 'double'> = {
  hover: (at) => void hovering.at(at),
  leave: hovering.leave,
  click: pickAt,
  double: pickWhole,
};
