import { describe, expect, it } from 'vitest';
import { applyDelta } from '../../document/delta.ts';
import type { HemDocument } from '../../document/document.ts';
import { densities } from '../../inspect/densities.ts';
import { FIRST_TILE, type Tile } from '../../surface/tiles.ts';
import { after } from '../../testing/acts.ts';
import { boxes, columns, findings, packed } from '../../testing/packedDocument.ts';
import { squares } from '../../testing/squares.ts';
import type { ParamsOf } from '../catalogue.ts';
import { carryOut, request } from '../catalogue.ts';
import { localContext } from '../localContext.ts';

const tile = (number: number, more: Partial<Tile> = {}): Tile => ({ ...FIRST_TILE, number, ...more });
const told = async (document: HemDocument, params: ParamsOf<'pack'>) => {
  const { delta, label } = await carryOut(document, request('pack', params), localContext);
  return { document: applyDelta(document, delta), notes: delta.notes, label };
};
const sides = (document: HemDocument): number[] =>
  boxes(document).map(([left, , right]) => Math.round(2048 * (right - left)));

describe('packing into a region', () => {
  it('fills it and leaves it nowhere, beside what lies in it and stays', async () => {
    const document = await after(
      squares([0.1, 0.1, 0.3], [0.5, 0.5, 0.3], [2, 2, 0.2], [0.75, 0.02, 0.2]),
      request('lock-shells', { shells: [3], locked: true }),
    );
    const region = [0.5, 0, 1, 0.6] as const;
    const { document: done, label, notes } = await told(document, { region });
    expect(label).toBe('Pack into a region');
    expect(notes).toEqual(['1 locked shell left as it is.']);
    expect(boxes(done)[3]).toEqual(boxes(document)[3]);
    for (const [left, low, right, high] of boxes(done).slice(0, 3)) {
      expect(Math.min(left - 0.5, low)).toBeGreaterThanOrEqual(8 / 2048);
      expect(Math.max(right - 1, high - 0.6)).toBeLessThanOrEqual(-8 / 2048);
    }
    expect((await findings(done)).filter(({ kind }) => kind !== 'density')).toEqual([]);
  });

  it('is held to the tile in which its middle lies, and comes to a density where there is room', async () => {
    const document = await after(
      squares([0.1, 0.1, 0.3], [0.5, 0.5, 0.3]),
      request('set-tiles', { tiles: [tile(1001), tile(1002)] }),
    );
    const done = await packed(document, { region: [0.9, 0.5, 1.5, 1.3], density: 300 });
    expect(columns(done)).toEqual([1, 1]);
    expect(sides(done)).toEqual([300, 300]);
    expect(await findings(done)).toEqual([]);
    const { document: tight, notes } = await told(document, { region: [0, 0, 0.2, 0.2], density: 300 });
    expect(notes[0]).toMatch(/^2 shells had to be laid at 6\d % of that density to fit\.$/);
    expect(await findings(tight)).toEqual([]);
  });

  it.each([
    ['of no width', [0.5, 0, 0.5, 1]],
    ['that is turned round', [0.9, 0, 0.1, 1]],
    ['in no tile', [3, 3, 4, 4]],
  ] as const)('says that a region %s is none', async (_, region) => {
    await expect(told(squares([0.1, 0.1, 0.3]), { region })).rejects.toThrow(/draw it inside a tile/);
  });

  it('says that there is no room in one that is smaller than the padding', async () => {
    const tiny = told(squares([0.1, 0.1, 0.3], [0.5, 0.5, 0.3]), { region: [0.5, 0.5, 0.502, 0.502] });
    await expect(tiny).rejects.toThrow(/do not fit/);
  });
});

describe('tidying', () => {
  it('brings shells clear and to one density near where they are, not turned', async () => {
    const document = squares([0.1, 0.1, 0.3], [0.3, 0.2, 0.25], [0.6, 0.6, 0.3], [-0.05, 0.7, 0.2]);
    const { document: done, label, notes } = await told(document, { start: 'here', steps: 0 });
    expect(label).toBe('Tidy 1 tile');
    expect(notes).toEqual([]);
    expect(await findings(done)).toEqual([]);
    for (const value of densities(done).density) expect(value / densities(done).density[0]).toBeCloseTo(1, 6);
    const middles = (of: HemDocument) => boxes(of).map(([l, b, r, t]) => [(l + r) / 2, (b + t) / 2]);
    middles(done).forEach(([u, v], i) => {
      const [was] = [middles(document)[i]];
      expect(Math.hypot(u - was[0], v - was[1])).toBeLessThan(0.2);
    });
    // As large as they were, all told.
    const area = (of: HemDocument) => boxes(of).reduce((sum, [l, b, r, t]) => sum + (r - l) * (t - b), 0);
    expect(area(done) / area(document)).toBeCloseTo(1, 3);
    // Once more changes nothing, and says so.
    const { notes: again, document: same } = await told(done, { start: 'here', steps: 0 });
    expect(again).toEqual(['All lies clear and at one density already.']);
    expect(boxes(same)).toEqual(boxes(done));
    // With time they grow, and stay near.
    const grown = await packed(document, { start: 'here', steps: 60 });
    expect(area(grown)).toBeGreaterThan(area(done));
    expect(await findings(grown)).toEqual([]);
  });

  it('comes to a density that is given, beside what is locked', async () => {
    const document = await after(
      squares([0.1, 0.1, 0.3], [0.3, 0.2, 0.25], [0.6, 0.6, 0.3]),
      request('lock-shells', { shells: [2], locked: true }),
    );
    const done = await packed(document, { start: 'here', density: 400, steps: 0 });
    expect(sides(done).slice(0, 2)).toEqual([400, 400]);
    expect(boxes(done)[2]).toEqual(boxes(document)[2]);
  });
});

describe('packing by what shells have in common', () => {
  /** Twenty-four squares all over the tile, of three parts by turns. */
  const mixed = () => {
    const document = squares(
      ...Array.from(
        { length: 24 },
        (_, i) => [0.2 * (i % 5), 0.2 * Math.floor(i / 5), 0.12 + 0.02 * (i % 3)] as const,
      ),
    );
    return {
      ...document,
      model: {
        ...document.model,
        objects: ['A', 'B', 'C'],
        faceObject: Uint32Array.from({ length: 24 }, (_, i) => i % 3),
      },
    };
  };

  it('lays shells of one part near each other', async () => {
    const document = mixed();
    const done = await packed(document, { near: 'part' });
    expect(await findings(done)).toEqual([]);
    /** Area of the boxes round each part. */
    const taken = (of: HemDocument) =>
      [0, 1, 2].reduce((sum, part) => {
        const own = boxes(of).filter((_, i) => i % 3 === part);
        const [l, b] = [0, 1].map((k) => Math.min(...own.map((box) => box[k])));
        const [r, t] = [2, 3].map((k) => Math.max(...own.map((box) => box[k])));
        return sum + (r - l) * (t - b);
      }, 0);
    expect(taken(done)).toBeLessThan(1.3);
    expect(taken(await packed(document))).toBeGreaterThan(1.6);
  });

  it('says that there is no room for them near each other', async () => {
    const tight = told(mixed(), { near: 'part', region: [0.4, 0.4, 0.41, 0.41] });
    await expect(tight).rejects.toThrow('no room for shells of one kind near each other');
  });

  it('spreads patches over tiles', async () => {
    const document = await after(
      squares([0, 0, 0.2], [0.3, 0, 0.2], [0.6, 0, 0.2], [0, 0.5, 0.2]),
      request('set-tiles', { tiles: [tile(1001), tile(1002)] }),
      request('paint-patch', { faces: [0, 2], patch: 'new' }),
      request('paint-patch', { faces: [1, 3], patch: 'new' }),
    );
    const [a, b, c, d] = columns(await packed(document, { spread: 'patch' }));
    expect([a, b]).toEqual([c, d]);
    expect(a).not.toBe(b);
  });
});

describe('packing to a density', () => {
  it('names a shell that is larger than a tile, which alone is made smaller', async () => {
    const document = await after(
      squares([0, 0, 0.2], [0.3, 0, 0.2], [0.6, 0, 0.2]),
      request('paint-patch', { faces: [1], patch: 'new' }),
      request('weigh-patch', { patch: 1, times: 4 }),
    );
    const { document: done, notes } = await told(document, { density: 600 });
    expect(notes[0]).toBe('1 tile added: 2 hold all at this density.');
    expect(notes[1]).toMatch(
      /^Shell 2 is larger than a tile at this density, and was laid at 8[0-9] % of it\.$/,
    );
    expect(sides(done).filter((side) => side === 600)).toHaveLength(2);
    expect(await findings(done)).not.toContainEqual(expect.objectContaining({ kind: 'too-near' }));
    const { notes: many } = await told(squares([0, 0, 0.2], [0.3, 0, 0.2], [0.6, 0, 0.2], [0.6, 0, 0.2]), {
      density: 2100,
    });
    expect(many[1]).toMatch(
      /^4 shells are larger than a tile at this density, and were laid smaller, down to 9\d %\.$/,
    );
  });

  it('says where there would be more tiles than a set has', async () => {
    const document = squares(...Array.from({ length: 500 }, (_, i) => [0.04 * i, 0, 0.03] as const));
    await expect(told(document, { density: 2000 })).rejects.toThrow(/more than 400 tiles/);
  });

  it('empties a tile again whose shells find room in the others', async () => {
    // Rows of three and of seven fill a tile to nine tenths; laid from the largest on they leave some over.
    const document = squares(
      ...Array.from({ length: 6 }, (_, i) => [0.32 * (i % 3), 0.4 * Math.floor(i / 3), 0.3] as const),
      ...Array.from({ length: 12 }, (_, i) => [0.1 * (i % 7), 0.8 + 0.1 * Math.floor(i / 7), 0.1] as const),
    );
    const at = (steps: number) => packed(document, { density: 690, steps, turning: 'free', seed: 2 });
    const [once, better] = [await at(0), await at(400)];
    expect(better.tiles.length).toBeLessThanOrEqual(once.tiles.length);
    expect(await findings(better)).toEqual([]);
  });
});
