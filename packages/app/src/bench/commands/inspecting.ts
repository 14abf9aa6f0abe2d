import { IconCircles, IconFocus2 } from '@tabler/icons-react';
import { note } from '../../store/acts.ts';
import { useBench } from '../../store/bench.ts';
import { angle } from '../overlays/angle.ts';
import { area } from '../overlays/area.ts';
import { overlayShown } from '../overlays/index.ts';
import { frameFaces } from '../panes/framing.ts';
import { worstPlaces } from '../worstPlaces.ts';
import type { Command } from './command.ts';

export const ellipses: Command = {
  name: 'ellipses',
  label: () => 'Ellipses',
  help: 'Ellipses of stretch: circles of one pane as they lie in the other',
  key: 'k',
  icon: IconCircles,
  pressed: (s) => s.ellipsesOn,
  act: (s) => useBench.setState({ ellipsesOn: !s.ellipsesOn }),
};

/** How much is shown round a place, as a part of the model and of the tile. */
const AROUND = 0.2;

/** What was shown last, and of which figures. */
let shown: { readonly of: unknown; readonly by: string; next: number } | undefined;

export const nextWorst: Command = {
  name: 'next-worst',
  label: () => 'Worst place',
  help: 'Show the place that stretches most, by the map that is shown; pressed again, the next. Nothing is selected by it',
  key: 'n',
  icon: IconFocus2,
  act(state) {
    const { figures, model, flat } = state;
    const overlay = overlayShown(state) === angle ? angle : area;
    if (!figures || !model || !flat) return;
    const values = overlay.values(state);
    const places = values ? worstPlaces(model, flat, values, overlay.place) : [];
    if (places.length === 0) return note('Nothing stretches: no place is worse than another.');
    if (shown?.of !== figures || shown.by !== overlay.name)
      shown = { of: figures, by: overlay.name, next: 0 };
    const at = shown.next++ % places.length;
    const pointedOut = new Set(places[at].faces);
    useBench.setState({ overlay: overlay.name, pointedOut });
    frameFaces(pointedOut, AROUND);
    note(`Worst place ${at + 1} of ${places.length}: ${places[at].told(overlay.name)}.`);
  },
};
