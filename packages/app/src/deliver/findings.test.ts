import { LIMIT_PRESETS } from '@blunt-hem/core/document/limits';
import { describe, expect, it } from 'vitest';
import type { Layout, ShellRow } from '../worker/protocol.ts';
import { deliverFindings } from './findings.ts';

const row: ShellRow = {
  name: 0,
  faces: 4,
  unfolded: true,
  stale: false,
  relaxed: true,
  method: 'conformal',
  smoothed: false,
  locked: false,
  folded: 0,
  box: [0, 0, 0.5, 0.5],
  verdict: { kind: 'flat', canUnfold: true, borderCount: 1, genus: 0, sentence: '' },
  stretch: {
    l2: 1,
    linf: 1,
    angleMean: 0,
    areaMean: 1,
    flipped: 0,
    collapsed: 0,
    area: 1,
    uvArea: 1,
  },
};
const limits = LIMIT_PRESETS.usual;
const layout = (pairs: number, atLeast = false): Layout => ({
  overlaps: new Uint32Array(2 * pairs),
  lying: new Uint32Array(2 * pairs),
  findings: [],
  atLeast,
  covered: 0.2,
  coveredBefore: undefined,
  near: new Uint32Array(0),
});
const stretch = (more: object) => ({ stretch: { ...row.stretch, ...more } as ShellRow['stretch'] });
const found = (more: Partial<ShellRow>, pairs = 0, atLeast = false) =>
  deliverFindings({
    shells: [row, { ...row, ...more }],
    layout: layout(pairs, atLeast),
    measured: true,
    limits,
  });

describe('before the model is handed over', () => {
  it('tells shells that are too near, unless some overlap, which is worse', () => {
    const near = (pairs: number) =>
      deliverFindings({
        shells: [row, row],
        layout: { ...layout(pairs), near: Uint32Array.of(0, 1) },
        measured: true,
        limits,
      });
    expect(near(0)).toMatch(/^1 pair of shells is nearer than 4 px/);
    expect(near(1)).not.toMatch(/nearer/);
  });

  it('finds nothing where nothing is wrong, and says nothing before it has looked', () => {
    expect(found({})).toBe('');
    expect(found({ stretch: undefined })).toBeUndefined();
    expect(found({ verdict: undefined })).toBeUndefined();
    expect(deliverFindings({ shells: [row], layout: layout(0), measured: false, limits })).toBeUndefined();
  });

  it.each<[string, Partial<ShellRow>, RegExp]>([
    ['no UVs', { unfolded: false, stretch: undefined, box: undefined }, /^1 shell has no UVs yet\.$/],
    ['flipped', stretch({ flipped: 2 }), /^2 faces are flipped\.$/],
    ['collapsed', stretch({ collapsed: 1 }), /^1 face is collapsed\.$/],
    ['folded', { folded: 3 }, /^3 faces are folded/],
    ['outside', { box: [0, 0, 1.2, 1] }, /^1 shell lies outside the tile\.$/],
    ['stretched', stretch({ l2: 1.3 }), /^1 shell is stretched more/],
    ['changed', { stale: true }, /^1 shell was cut or sewn since/],
  ])('tells what is %s', (_, more, sentence) => {
    expect(found(more)).toMatch(sentence);
  });

  it('counts overlaps as they are counted elsewhere', () => {
    expect(found({}, 1)).toBe('1 pair of faces overlaps.');
    expect(found({}, 10_000, true)).toBe('≥ 10,000 pairs of faces overlap.');
  });
});
