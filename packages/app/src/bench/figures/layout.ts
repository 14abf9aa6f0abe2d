import { useBench } from '../../store/bench.ts';
import { select, selectNothing } from '../../store/select.ts';
import type { Figure } from './figure.ts';
import { pairsInWords } from './pairs.ts';
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
  show: (s) => showWhere(s, ({ stretch }) => (stretch?.flipped ?? 0) > 0, { where: 'flipped', above: 0 }),
};

export const collapsed: Figure = {
  name: 'Collapsed',
  read: (totals) => (totals.unfolded ? String(totals.collapsed) : undefined),
  isBad: (totals) => totals.collapsed > 0,
  show: (s) => showWhere(s, ({ stretch }) => (stretch?.collapsed ?? 0) > 0, { where: 'collapsed', above: 0 }),
};

/** Polygons that some way of splitting them flips. */
export const folded: Figure = {
  name: 'Folded',
  read: (totals) => (totals.unfolded ? String(totals.folded) : undefined),
  isBad: (totals) => totals.folded > 0,
  show: (s) => showWhere(s, (row) => (row.folded ?? 0) > 0, { where: 'folded', above: 0 }),
};

export const overlaps: Figure = {
  name: 'Overlaps',
  read: () => undefined,
  readNow: ({ layout, figures }) => (layout && figures?.totals.unfolded ? pairsInWords(layout) : undefined),
  isBad: (_, s) => (s.layout?.overlaps.length ?? 0) > 0,
  show({ layout }) {
    if (!layout) return;
    selectNothing();
    useBench.setState({ target: 'faces' });
    select('faces', new Set(layout.overlaps), 'only');
  },
};

export const tileUse: Figure = {
  name: 'Tile use',
  read: () => undefined,
  readNow: ({ layout, figures }) =>
    layout && figures?.totals.unfolded ? percent(mean(layout.covered)) : undefined,
  readBefore: ({ layout, figures }) =>
    layout?.coveredBefore !== undefined && figures?.before.unfolded
      ? percent(mean(layout.coveredBefore))
      : undefined,
};

/** Of all tiles together: they have one shape. */
const mean = (parts: readonly number[]): number => parts.reduce((sum, part) => sum + part, 0) / parts.length;

const percent = (part: number): string => `${(100 * part).toFixed(0)} %`;

export const density: Figure = {
  name: 'Density',
  read({ unfolded, density, densitySpread }) {
    if (unfolded === 0) return undefined;
    // Files hold UV sets in which every place is the same.
    if (density === 0) return 'set is empty';
    if (densitySpread < 1.005) return 'even';
    return `1 : ${Number.isFinite(densitySpread) ? densitySpread.toFixed(2) : '∞'}`;
  },
  isBad: ({ unfolded, density, densitySpread }) => unfolded > 0 && (density === 0 || densitySpread > 2),
};
