import type { Figure } from './figure.ts';
import { showWhere } from './showing.ts';

export const shells: Figure = {
  name: 'Shells',
  read: (totals) => String(totals.shells),
  show: (s) => showWhere(s, () => true),
};

export const flipped: Figure = {
  name: 'Flipped',
  read: (totals) => (totals.unfolded ? String(totals.flipped) : undefined),
  isBad: (totals) => totals.flipped > 0,
  show: (s) => showWhere(s, ({ stretch }) => (stretch?.flipped ?? 0) > 0),
};

export const overlaps: Figure = {
  name: 'Overlaps',
  read: () => undefined,
  readNow({ overlaps: found, figures }) {
    if (!found || !figures?.totals.unfolded) return undefined;
    return `${found.atLeast ? '≥ ' : ''}${(found.faces.length / 2).toLocaleString('en-GB')}`;
  },
  isBad: (_, s) => (s.overlaps?.faces.length ?? 0) > 0,
  show(s) {
    const { flat, overlaps: found } = s;
    if (!flat || !found) return;
    const involved = new Set(Array.from(found.faces, (f) => flat.faceShell[f]));
    showWhere(s, (_, shell) => involved.has(shell));
  },
};

export const tileUse: Figure = {
  name: 'Tile use',
  read: (totals) => (totals.unfolded ? `${(100 * totals.tileUse).toFixed(0)} %` : undefined),
};

export const density: Figure = {
  name: 'Density',
  read: ({ unfolded, densitySpread }) =>
    unfolded ? (densitySpread < 1.005 ? 'even' : `1 : ${densitySpread.toFixed(2)}`) : undefined,
  isBad: ({ densitySpread }) => densitySpread > 2,
};
