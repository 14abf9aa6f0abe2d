import { describe, expect, it } from 'vitest';
import { applyDelta } from '../../document/delta.ts';
import { current, type HemDocument, topologyOf } from '../../document/document.ts';
import { figuresOf, totalsOf } from '../../document/figures.ts';
import { shellBoxes } from '../../document/layout.ts';
import { densities } from '../../inspect/densities.ts';
import { type Jobs, localJobs } from '../../jobs/index.ts';
import { findEdge } from '../../mesh/connectivity.ts';
import { unattended } from '../../progress.ts';
import { answerQuestion } from '../../questions/index.ts';
import { FIRST_TILE, isOutside, type Tile } from '../../surface/tiles.ts';
import type { UvBox } from '../../surface/uvBox.ts';
import { after } from '../../testing/acts.ts';
import { boxes, columns, findings, packed } from '../../testing/packedDocument.ts';
import { squares } from '../../testing/squares.ts';
import type { ParamsOf } from '../catalogue.ts';
import { carryOut, request } from '../catalogue.ts';
import { localContext } from '../localContext.ts';

const tile = (number: number, more: Partial<Tile> = {}): Tile => ({ ...FIRST_TILE, number, ...more });

/** Squares over all of the tile and beyond. */
const spilt = (count: number) =>
  squares(
    ...Array.from(
      { length: count },
      (_, i) => [0.3 * (i % 5), 0.2 * Math.floor(i / 5), 0.25 + 0.02 * (i % 3)] as const,
    ),
  );

/** Which way the first side of a shell runs, quarter turns; a fraction where it runs askew. */
const quarterOf = (document: HemDocument, face: number): number => {
  const { uv } = current(document);
  const c = document.model.mesh.faceStart[face];
  const angle = Math.atan2(uv[2 * c + 3] - uv[2 * c + 1], uv[2 * c + 2] - uv[2 * c]);
  return (((angle / (Math.PI / 2)) % 4) + 4) % 4;
};

describe('packing several tiles', () => {
  it('packs each with what lies there, at one density in all', async () => {
    const document = await after(
      squares([0.1, 0.1, 0.5], [1.1, 0.1, 0.2], [1.1, 0.6, 0.1], [1.6, 0.1, 0.3], [5.5, 7.5, 0.1]),
      request('set-tiles', { tiles: [tile(1001), tile(1002, { width: 4096, height: 4096, padding: 16 })] }),
    );
    const packed = await after(document, request('pack', {}));
    expect(shellBoxes(packed).some((box) => isOutside(packed.tiles, box as UvBox))).toBe(false);
    const columns = shellBoxes(packed).map((box) => Math.floor((box as UvBox)[0]));
    // What lay in no tile goes into the first.
    expect(columns).toEqual([0, 1, 1, 1, 0]);
    const { density } = densities(packed);
    expect(Math.max(...density) / Math.min(...density)).toBeCloseTo(1, 6);
    const context = { ...unattended, jobs: localJobs };
    expect((await answerQuestion(packed, 'inspection', {}, context)).findings).toEqual([]);
    const { uv } = current(packed);
    // The same again, bit by bit.
    expect(current(await after(document, request('pack', {}))).uv).toEqual(uv);
    const loose = await after(document, request('pack', { equalDensity: false }));
    expect(shellBoxes(loose).some((box) => isOutside(loose.tiles, box as UvBox))).toBe(false);
  });

  it('packs round what is locked in each', async () => {
    const document = await after(
      squares([0.1, 0.1, 0.2], [0.5, 0.1, 0.2], [1.1, 0.6, 0.2], [1.6, 0.1, 0.2]),
      request('lock-shells', { shells: [0, 2], locked: true }),
    );
    const packed = await after(document, request('pack', {}));
    expect([boxes(packed)[0], boxes(packed)[2]]).toEqual([boxes(document)[0], boxes(document)[2]]);
    expect(shellBoxes(packed).map((box) => Math.floor((box as UvBox)[0]))).toEqual([0, 0, 1, 1]);
    expect(
      (await answerQuestion(packed, 'inspection', {}, { ...unattended, jobs: localJobs })).findings,
    ).toEqual([]);
  });

  it('spreads shells over tiles evenly, or by part and material together', async () => {
    const document = await after(
      squares([0, 0, 0.2], [0.3, 0, 0.2], [0.6, 0, 0.2], [0, 0.5, 0.2]),
      request('set-tiles', { tiles: [tile(1001), tile(1002)] }),
    );
    expect(columns(await packed(document)).sort()).toEqual([0, 0, 0, 0]);
    expect(columns(await packed(document, { spread: 'even' })).sort()).toEqual([0, 0, 1, 1]);
    const parts = {
      ...document,
      model: { ...document.model, objects: ['A', 'B'], faceObject: Uint32Array.of(0, 1, 1, 1) },
    };
    const [first, ...others] = columns(await packed(parts, { spread: 'part' }));
    expect(new Set(others)).toEqual(new Set([1 - first]));
    const materials = {
      ...document,
      model: { ...document.model, faceMaterial: Int32Array.of(0, -1, 0, -1) },
    };
    const [a, b, c, d] = columns(await packed(materials, { spread: 'material' }));
    expect([a, b]).toEqual([c, d]);
    expect(a).not.toBe(b);
  });
});

describe('packing', () => {
  it('turns shells as it may and no other way', async () => {
    const document = squares([0.1, 0.1, 0.2], [0.4, 0.1, 0.3], [0.1, 0.6, 0.25]);
    const turns = async (turning: ParamsOf<'pack'>['turning']) => {
      const done = await packed(document, { turning });
      expect(await findings(done)).toEqual([]);
      return [0, 1, 2].map((face) => Number(quarterOf(done, face).toFixed(9)) % 4);
    };
    expect(await turns('none')).toEqual([0, 0, 0]);
    for (const turn of await turns('half')) expect([0, 2]).toContain(turn);
    for (const turn of await turns('quarter')) expect([0, 1, 2, 3]).toContain(turn);
    for (const turn of await turns('eighth')) expect(2 * turn).toBe(Math.round(2 * turn));
    await turns('free');
  });

  it('turns shells along their grain first, and keeps them so', async () => {
    const document = squares([0.1, 0.1, 0.2], [0.4, 0.1, 0.3]);
    const askew = await after(
      document,
      request('transform-shells', { shells: [1], matrix: [0.6, 0.8, -0.8, 0.6, 0.5, 0] }),
    );
    expect(quarterOf(askew, 1)).toBeCloseTo(0.59, 2);
    const done = await packed(askew, { turning: 'grain' });
    // The first side of a square is level on the model.
    expect(quarterOf(done, 0) % 4).toBeCloseTo(0, 9);
    expect(Math.abs(quarterOf(done, 1) - 4) % 4).toBeCloseTo(0, 9);
  });

  it('keeps to a grain line that was drawn, however the others are turned', async () => {
    const document = squares([0.1, 0.1, 0.2], [0.4, 0.1, 0.3]);
    // The left side of the first runs up on the model.
    const side = findEdge(topologyOf(document.model).connectivity, 0, 3);
    const askew = await after(
      document,
      request('set-grain', { edges: [side], along: true }),
      request('transform-shells', { shells: [0, 1], matrix: [0.6, 0.8, -0.8, 0.6, 0.5, 0] }),
    );
    const done = await packed(askew, { turning: 'none' });
    expect(Math.abs(quarterOf(done, 0) - 4) % 4).toBeCloseTo(0, 9);
    expect(quarterOf(done, 1)).toBeCloseTo(quarterOf(askew, 1), 9);
  });

  it('packs those that are chosen beside the others, which stay, at their scale where there is room', async () => {
    const document = squares([0.1, 0.1, 0.3], [0.35, 0.15, 0.2], [0.6, 0.6, 0.3], [3, 3, 0.1]);
    const done = await packed(document, { shells: [1, 3] });
    expect([boxes(done)[0], boxes(done)[2]]).toEqual([boxes(document)[0], boxes(document)[2]]);
    expect(await findings(done)).toEqual([]);
    const sides = boxes(done).map(([left, , right]) => right - left);
    for (const side of sides) expect(side).toBeCloseTo(0.3, 5);
    const full = squares([0, 0, 0.999], [1.8, 1.8, 0.5]);
    await expect(carryOut(full, request('pack', { shells: [1] }), localContext)).rejects.toThrow(
      /leaves no room/,
    );
    const tight = squares([0.02, 0.02, 0.8], [1.8, 1.8, 0.5]);
    const told = await carryOut(tight, request('pack', { shells: [1] }), localContext);
    expect(told.delta.notes[0]).toMatch(/^1 shell had to be laid at 2\d % of their size/);
    expect(await findings(applyDelta(tight, told.delta))).toHaveLength(1);
  });

  it('comes to a density in as many tiles as that needs, and takes them back with an undo', async () => {
    const document = await after(spilt(12), request('set-tiles', { tiles: [tile(1001)] }));
    const told = await carryOut(document, request('pack', { density: 600 }), localContext);
    const done = applyDelta(document, told.delta);
    for (const value of densities(done).density) expect(value).toBeCloseTo(600, 3);
    // Nine squares of 600 texels go into 2048 with 8 between, and the rest into a second.
    expect(done.tiles.map(({ number }) => number)).toEqual([1001, 1002]);
    expect(columns(done).filter((column) => column === 0)).toHaveLength(9);
    expect(told.delta.notes[0]).toBe('1 tile added: 2 hold all at this density.');
    expect(await findings(done)).toEqual([]);
  });

  it('comes to the same on one core as on several, whichever is done first', async () => {
    const document = spilt(14);
    const params = { steps: 80, seed: 7, turning: 'free' } as const;
    const alone = current(await packed(document, params)).uv;
    let calls = 0;
    const jobs: Jobs = {
      width: 2,
      // Every other one waits for the next to be done.
      run: (name, input, context) =>
        new Promise((resolve) => setTimeout(resolve, calls++ % 2 === 0 ? 20 : 0)).then(() =>
          localJobs.run(name, input, context),
        ),
    };
    const told = await carryOut(document, request('pack', params), { ...localContext, jobs });
    expect(current(applyDelta(document, told.delta)).uv).toEqual(alone);
    expect(current(await packed(document, { ...params, seed: 8 })).uv).not.toEqual(alone);
  });

  it('is no worse the longer it takes, and keeps the best when it is stopped', async () => {
    const document = spilt(14);
    const sideOf = (of: HemDocument) => boxes(of)[0][2] - boxes(of)[0][0];
    const [none, some, more] = await Promise.all(
      [0, 25, 150].map((steps) => packed(document, { steps, turning: 'free' })),
    );
    expect(sideOf(some)).toBeGreaterThanOrEqual(sideOf(none));
    expect(sideOf(more)).toBeGreaterThan(sideOf(none));
    let shown = 0;
    const told = await carryOut(document, request('pack', { steps: 100_000 }), {
      ...localContext,
      signal: {
        get aborted() {
          return shown > 0;
        },
      },
      show: () => {
        shown++;
      },
    });
    const stopped = applyDelta(document, told.delta);
    expect(await findings(stopped)).toEqual([]);
    expect(shellBoxes(stopped).some((box) => isOutside(stopped.tiles, box as UvBox))).toBe(false);
  });

  it('keeps together what belongs together, as it lies: stacked stays stacked', async () => {
    const document = squares(
      [0.1, 0.1, 0.2],
      [0.1, 0.1, 0.2],
      [0.5, 0.1, 0.3],
      [0.6, 0.5, 0.3],
      [0.1, 0.5, 0.25],
    );
    const grouped = await after(
      document,
      request('group-shells', { shells: [0, 1], together: true }),
      request('group-shells', { shells: [2, 3], together: true }),
    );
    const done = await packed(grouped, { turning: 'none' });
    expect(boxes(done)[0]).toEqual(boxes(done)[1]);
    const [two, three] = [boxes(done)[2], boxes(done)[3]];
    const scale = (two[2] - two[0]) / 0.3;
    expect((three[0] - two[0]) / scale).toBeCloseTo(0.1, 4);
    expect((three[1] - two[1]) / scale).toBeCloseTo(0.4, 4);
    expect((await findings(done)).map(({ kind }) => kind)).toEqual(['stacked']);
    for (const value of densities(done).density) expect(value / densities(done).density[0]).toBeCloseTo(1, 6);
    // One of them chosen alone takes the other along; one that is locked keeps it.
    const moved = await after(
      done,
      request('transform-shells', { shells: [2, 3], matrix: [1, 0, 0, 1, 3, 3] }),
    );
    const alone = boxes(await packed(moved, { shells: [2] }));
    expect(alone[3][0] - alone[2][0]).toBeCloseTo(three[0] - two[0], 4);
    expect(alone[3][2]).toBeLessThan(1);
    const held = await after(done, request('lock-shells', { shells: [2], locked: true }));
    expect(boxes(await packed(held))[3]).toEqual(three);
    const apart = await packed(
      await after(grouped, request('group-shells', { shells: 'all', together: false })),
    );
    expect(await findings(apart)).toEqual([]);
    await expect(
      carryOut(document, request('group-shells', { shells: [1], together: true }), localContext),
    ).rejects.toThrow(/takes two/);
  });

  it('makes patches finer than the rest by their weights, which is no fault then', async () => {
    const document = await after(
      squares([0.1, 0.1, 0.2], [0.4, 0.1, 0.2], [0.7, 0.1, 0.2], [0.1, 0.5, 0.2]),
      request('paint-patch', { faces: [1], patch: 'new' }),
      request('weigh-patch', { patch: 1, times: 2 }),
    );
    const sides = (of: HemDocument) => boxes(of).map(([left, , right]) => right - left);
    const done = await packed(document);
    const [side, double] = sides(done);
    expect(double / side).toBeCloseTo(2, 4);
    expect(await findings(done)).toEqual([]);
    const figures = [0, 1, 2, 3].map((s) => figuresOf(done, s));
    expect(totalsOf(figures).densitySpread).toBeCloseTo(1, 4);
    const dense = await packed(document, { density: 300 });
    expect(sides(dense).map((each) => Math.round(2048 * each))).toEqual([300, 600, 300, 300]);
    const even = await after(dense, request('even-density', { shells: 'all', density: 200 }));
    expect(sides(even).map((each) => Math.round(2048 * each))).toEqual([200, 400, 200, 200]);
    // Beside what stays, too.
    const held = await after(done, request('lock-shells', { shells: [1], locked: true }));
    expect(sides(await packed(held))[0]).toBeCloseTo(side, 4);
    const plain = await after(done, request('weigh-patch', { patch: 1, times: 1 }));
    expect((await findings(plain)).map(({ kind }) => kind)).toEqual(['density']);
  });
});
