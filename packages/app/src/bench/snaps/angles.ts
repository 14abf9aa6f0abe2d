import type { Snap } from './snap.ts';

const STEP = Math.PI / 12;

/** Every fifteen degrees. */
export const angles: Snap = {
  name: 'angles',
  label: 'Angles of 15°',
  angles: ({ angle }) => [STEP * Math.round(angle / STEP)],
};

/** Chosen edges of what is turned come to lie along chosen edges of what stays, or level or upright. */
export const parallel: Snap = {
  name: 'parallel',
  label: 'Along chosen edges',
  *angles({ angle, own, still }) {
    for (const from of own)
      for (const to of [...still, 0, Math.PI / 2]) {
        // Either way round: edges have no direction.
        const turn = to - from;
        yield turn + Math.PI * Math.round((angle - turn) / Math.PI);
      }
  },
};
