import { describe, expect, it } from 'vitest';
import { applyDelta } from '../../document/delta.ts';
import { current, type HemDocument, topologyOf } from '../../document/document.ts';
import { densities } from '../../inspect/densities.ts';
import { findEdge } from '../../mesh/connectivity.ts';
import { FIRST_TILE } from '../../surface/tiles.ts';
import { after } from '../../testing/acts.ts';
import { boxes } from '../../testing/packedDocument.ts';
import { squares } from '../../testing/squares.ts';
import { carryOut, type OperationName, type ParamsOf, request } from '../catalogue.ts';
import { localContext } from '../localContext.ts';

const done = <N extends OperationName>(document: HemDocument, name: N, params: ParamsOf<N>) =>
  after(document, request(name, params));
const failed = <N extends OperationName>(document: HemDocument, name: N, params: ParamsOf<N>) =>
  expect(carryOut(document, request(name, params), localContext)).rejects;

const three = () => squares([0.1, 0.1, 0.1], [0.35, 0.4, 0.2], [0.7, 0.2, 0.15]);
const all = [0, 1, 2];
/** One number of each box. */
const sidesOf = (document: HemDocument, k: number): number[] => boxes(document).map((box) => box[k]);
/** Corners of the flat of one square, from its first. */
const cornersOf = (document: HemDocument, s: number): number[] => [
  ...current(document).uv.subarray(8 * s, 8 * s + 8),
];

describe('aligning shells', () => {
  it.each([
    ['left', 0, 0.1],
    ['right', 2, 0.85],
    ['bottom', 1, 0.1],
    ['top', 3, 0.6],
  ] as const)('brings their %s sides to one line, and moves nothing else', async (to, k, line) => {
    const document = three();
    const aligned = await done(document, 'align-shells', { shells: all, to });
    expect(sidesOf(aligned, k)).toEqual([line, line, line]);
    expect(sidesOf(aligned, 1 - (k % 2))).toEqual(sidesOf(document, 1 - (k % 2)));
  });

  it('brings middles to one line, and sides to the padding of the tile', async () => {
    const aligned = await done(three(), 'align-shells', { shells: all, to: 'middle-v' });
    for (const [, low, , high] of boxes(aligned)) expect((low + high) / 2).toBeCloseTo(0.35, 6);
    const inTile = await done(three(), 'align-shells', { shells: [1], to: 'right', within: 'tile' });
    expect(sidesOf(inTile, 2)[1]).toBeCloseTo(1 - 8 / 2048, 6);
    expect(sidesOf(inTile, 2)[0]).toBeCloseTo(0.2, 6);
    await failed(three(), 'align-shells', { shells: [1], to: 'left' }).toThrow('It takes two shells');
  });

  it('keeps the shape to the last bits, and locked shells where they are', async () => {
    const locked = await done(three(), 'lock-shells', { shells: [2], locked: true });
    const { delta } = await carryOut(
      locked,
      request('align-shells', { shells: all, to: 'left' }),
      localContext,
    );
    const aligned = applyDelta(locked, delta);
    expect(cornersOf(aligned, 2)).toEqual(cornersOf(locked, 2));
    const [a, b] = [cornersOf(locked, 1), cornersOf(aligned, 1)];
    for (let i = 0; i < 8; i++) expect(b[i] - a[i]).toBeCloseTo(i % 2 ? 0 : -0.25, 15);
    expect(delta.notes).toContain('1 locked shell left as it is.');
  });
});

describe('spreading shells', () => {
  it('makes gaps even between the first and the last, or as wide as is said', async () => {
    const even = await done(three(), 'spread-shells', { shells: all, along: 'u' });
    const [a, b, c] = boxes(even);
    expect([a[0], c[2]]).toEqual([0.1, 0.85]);
    expect(b[0] - a[2]).toBeCloseTo(c[0] - b[2], 6);
    const apart = await done(three(), 'spread-shells', { shells: all, along: 'v', gap: 64 });
    // From below: the first, the third, the second.
    const [p, q, r] = boxes(apart);
    expect([p[1], (r[1] - p[3]) * 2048, (q[1] - r[3]) * 2048].map((x) => Number(x.toFixed(2)))).toEqual([
      0.1, 64, 64,
    ]);
    await failed(three(), 'spread-shells', { shells: [0, 1], along: 'u' }).toThrow('It takes three shells');
  });
});

describe('matching shells', () => {
  it('gives them the texture scale, the turn or the place of another, which stays', async () => {
    const document = three();
    const scaled = await done(document, 'match-shells', { shells: all, like: 1, what: 'scale' });
    for (const value of densities(scaled).density) expect(value).toBeCloseTo(0.2 * 2048, 4);
    expect(cornersOf(scaled, 1)).toEqual(cornersOf(document, 1));
    const placed = await done(document, 'match-shells', { shells: [2], like: 1, what: 'place' });
    const [, model, own] = boxes(placed);
    expect(own[0] + own[2]).toBeCloseTo(model[0] + model[2], 5);
    const askew = await done(document, 'transform-shells', {
      shells: [1],
      matrix: [0.8, 0.6, -0.6, 0.8, 0.3, 0],
    });
    const turned = await done(askew, 'match-shells', { shells: [0], like: 1, what: 'turn' });
    const wayOf = (s: number) => {
      const [u0, v0, u1, v1] = cornersOf(turned, s);
      return Math.atan2(v1 - v0, u1 - u0);
    };
    expect(wayOf(0)).toBeCloseTo(wayOf(1), 9);
    await failed(document, 'match-shells', { shells: [1], like: 1, what: 'turn' }).toThrow('beside the one');
    await failed(document, 'match-shells', { shells: [1], like: 77, what: 'turn' }).toThrow();
  });
});

describe('swapping, fitting and gathering shells', () => {
  it('lets two change places', async () => {
    const document = three();
    const swapped = await done(document, 'swap-shells', { shells: [0, 2] });
    const middle = ([l, b, r, t]: number[]) => [(l + r) / 2, (b + t) / 2];
    middle(boxes(swapped)[0]).forEach((x, k) => {
      expect(x).toBeCloseTo(middle(boxes(document)[2])[k], 5);
    });
    expect(boxes(swapped)[1]).toEqual(boxes(document)[1]);
    await failed(document, 'swap-shells', { shells: all }).toThrow('Only two shells change places, not 3');
  });

  it('fills the tile or a region as they lie to one another', async () => {
    const fitted = await done(three(), 'fit-shells', { shells: all });
    const gap = 8 / 2048;
    expect(Math.min(...sidesOf(fitted, 0))).toBeCloseTo(gap, 6);
    expect(Math.max(...sidesOf(fitted, 2))).toBeCloseTo(1 - gap, 6);
    const [a, b] = boxes(fitted);
    expect((b[2] - b[0]) / (a[2] - a[0])).toBeCloseTo(2, 4);
    const there = await done(three(), 'fit-shells', { shells: [1], region: [0.5, 0.5, 1, 0.75] });
    const [, low, , high] = boxes(there)[1];
    expect([low, high]).toEqual([0.5 + gap, 0.75 - gap].map((x) => Number(x.toFixed(6))));
    await failed(three(), 'fit-shells', { shells: all, region: [0.5, 0.5, 0.501, 0.501] }).toThrow('no room');
    await failed(three(), 'fit-shells', { shells: all, region: [3, 3, 4, 4] }).toThrow('inside a tile');
  });

  it('gathers them by whole tiles', async () => {
    const away = squares([2.3, 1.1, 0.2], [-0.8, 0.4, 0.2], [0.1, 0.6, 0.1]);
    const gathered = await done(away, 'gather-shells', { shells: all });
    expect(sidesOf(gathered, 0)).toEqual([0.3, 0.2, 0.1]);
    expect(sidesOf(gathered, 1)).toEqual([0.1, 0.4, 0.6]);
    const tiles = [FIRST_TILE, { ...FIRST_TILE, number: 1012 }];
    const second = await done(await done(away, 'set-tiles', { tiles }), 'gather-shells', {
      shells: [2],
      tile: 1012,
    });
    expect(boxes(second)[2].slice(0, 2)).toEqual([1.1, 1.6]);
    await failed(away, 'gather-shells', { shells: all, tile: 1002 }).toThrow('There is no tile 1002');
  });
});

describe('laying edges level', () => {
  it('turns their shell by the least angle, of several edges by their best line', async () => {
    const document = three();
    const askew = await done(document, 'transform-shells', {
      shells: [1],
      matrix: [0.8, 0.6, -0.6, 0.8, 0.3, 0],
    });
    const edge = (a: number, b: number) => findEdge(topologyOf(document.model).connectivity, a, b);
    const [lower, right] = [edge(4, 5), edge(5, 6)];
    const level = await done(askew, 'level-edges', { edges: [lower], to: 'level' });
    const [u0, v0, u1, v1] = cornersOf(level, 1);
    expect(v1).toBeCloseTo(v0, 12);
    // Turned back by 36.9°, not on by 143.1°.
    expect(u1).toBeGreaterThan(u0);
    expect(cornersOf(level, 0)).toEqual(cornersOf(askew, 0));
    const upright = await done(askew, 'level-edges', { edges: [right], to: 'upright' });
    expect(cornersOf(upright, 1)[2]).toBeCloseTo(cornersOf(upright, 1)[4], 12);
    // Two opposite sides have one line.
    const both = await done(askew, 'level-edges', { edges: [lower, edge(6, 7)], to: 'level' });
    expect(cornersOf(both, 1)[1]).toBeCloseTo(cornersOf(both, 1)[3], 12);
    const bare = {
      ...document,
      uvSets: document.uvSets.map((set) => ({ ...set, uv: set.uv.map(() => Number.NaN) })),
    };
    await failed(bare, 'level-edges', { edges: [lower], to: 'level' }).toThrow('lie nowhere on the Board');
  });
});
