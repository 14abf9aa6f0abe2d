import { used, withoutLoosePoints } from '../mesh/edit.ts';
import { type Check, findingOf } from './check.ts';

/** Points that no face uses. */
export const loosePoints: Check = {
  kind: 'loose-points',
  when: 'no face uses them',
  severity: 'hint',
  thing: ['loose point', 'loose points'],
  effect: 'It has no surface and gets no UV; it only makes the model look larger than it is.',
  find({ mesh }) {
    const inUse = used(mesh);
    return findingOf({ vertices: Array.from(inUse.keys()).filter((v) => !inUse[v]) });
  },
  repair: { label: 'Delete them', safe: true, run: ({ mesh }) => withoutLoosePoints(mesh) },
};
