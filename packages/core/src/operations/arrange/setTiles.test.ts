import { describe, expect, it } from 'vitest';
import { applyDelta } from '../../document/delta.ts';
import type { HemDocument } from '../../document/document.ts';
import { figuresOf } from '../../document/figures.ts';
import { shellBoxes } from '../../document/layout.ts';
import { densities } from '../../inspect/densities.ts';
import { localJobs } from '../../jobs/index.ts';
import { unattended } from '../../progress.ts';
import { answerQuestion } from '../../questions/index.ts';
import { FIRST_TILE, isOutside, type Tile } from '../../surface/tiles.ts';
import type { UvBox } from '../../surface/uvBox.ts';
import { after } from '../../testing/acts.ts';
import { squares } from '../../testing/squares.ts';
import { carryOut, request } from '../catalogue.ts';
import { localContext } from '../localContext.ts';

const tile = (number: number, more: Partial<Tile> = {}): Tile => ({ ...FIRST_TILE, number, ...more });

const boxes = (document: HemDocument): number[][] =>
  shellBoxes(document).map((box) => [...(box as UvBox)].map((x) => Number(x.toFixed(6))));
const exported = async (document: HemDocument, kind: 'obj' | 'glb' | 'svg', tileNumber?: number) => {
  const file = await answerQuestion(
    document,
    'export',
    { kind, tile: tileNumber },
    { ...unattended, jobs: localJobs },
  );
  return { name: file.fileName, text: new TextDecoder().decode(file.bytes) };
};

describe('tiles of a UV set', () => {
  it('are those that whole shells of the file lie in', () => {
    const document = squares([0.1, 0.1, 0.5], [2.2, 1.3, 0.4], [0.8, 0.5, 0.5]);
    expect(document.tiles.map(({ number }) => number)).toEqual([1001, 1013]);
    // The third lies across two, and in neither.
    expect(shellBoxes(document).map((box) => isOutside(document.tiles, box as UvBox))).toEqual([
      false,
      false,
      true,
    ]);
  });

  it('keep the shapes of shells when their textures get another shape, and where they begin', async () => {
    const document = squares([0.1, 0.2, 0.4], [1.5, 0.1, 0.3]);
    const wide = await after(
      document,
      request('set-tiles', { tiles: [1001, 1002].map((n) => tile(n, { width: 4096 })) }),
    );
    expect(boxes(wide)).toEqual([
      [0.1, 0.2, 0.5, 0.6],
      [2.5, 0.1, 2.8, 0.4],
    ]);
    expect(figuresOf(wide, 0).stretch?.l2).toBeCloseTo(1, 9);
    // In the file they are half as wide as high: the texture is twice as wide.
    const { text } = await exported(wide, 'obj');
    expect(text).toContain('vt 0.05 0.2');
    expect(text).toContain('vt 1.4 0.4');
    // In a narrower one they are as much smaller, and still inside.
    const narrow = await after(
      wide,
      request('set-tiles', { tiles: [1001, 1002].map((n) => tile(n, { width: 1024 })) }),
    );
    expect(shellBoxes(narrow).some((box) => isOutside(narrow.tiles, box as UvBox))).toBe(false);
    expect(figuresOf(narrow, 1).stretch?.l2).toBeCloseTo(1, 9);
  });

  it('or keep the UVs as the file has them, so that the stretch is told that is seen', async () => {
    const document = squares([0.1, 0.2, 0.4]);
    const { delta } = await carryOut(
      document,
      request('set-tiles', { tiles: [tile(1001, { width: 4096 })], keeping: 'places' }),
      localContext,
    );
    const wide = applyDelta(document, delta);
    expect(boxes(wide)).toEqual([[0.2, 0.2, 1, 0.6]]);
    expect((await exported(wide, 'obj')).text).toContain('vt 0.1 0.2');
    // Twice as long one way as the other, at no change of area: σ = √2 and 1/√2, L2 = √((2 + ½) / 2) (Sander et al. 2001).
    expect(figuresOf(wide, 0).stretch?.l2).toBeCloseTo(Math.sqrt(1.25), 9);
  });

  it('say how many shells lie outside when one is taken away', async () => {
    const document = squares([0.1, 0.1, 0.5], [1.2, 0.3, 0.4]);
    const told = await carryOut(document, request('set-tiles', { tiles: [tile(1001)] }), localContext);
    expect(told.delta.notes).toEqual(['1 shell lies outside the tiles now.']);
    await expect(
      carryOut(
        document,
        request('set-tiles', { tiles: [tile(1001), tile(1002, { width: 100 })] }),
        localContext,
      ),
    ).rejects.toThrow(/one shape/);
  });

  it('are told by themselves: how full, how dense, how near, and as templates', async () => {
    const document = squares([0, 0, 0.5], [0.501, 0, 0.2], [1, 0, 0.4], [1.401, 0, 0.4]);
    const two = await after(
      document,
      request('set-tiles', {
        tiles: [tile(1001, { padding: 0 }), tile(1002, { width: 4096, height: 4096 })],
      }),
    );
    const context = { ...unattended, jobs: localJobs };
    const covered = await answerQuestion(two, 'coverage', {}, context);
    expect(covered[0]).toBeCloseTo(0.29, 3);
    expect(covered[1]).toBeCloseTo(0.32, 3);
    expect([...densities(two).density].map(Math.round)).toEqual([1024, 410, 1638, 1638]);
    // 4.1 px apart on the second, where 8 are asked for; 2 px on the first, where none are.
    expect([...(await answerQuestion(two, 'inspection', {}, context)).near]).toEqual([2, 3]);
    const template = await exported(two, 'svg', 1002);
    expect(template.name).toBe('Squares-template.1002.svg');
    expect(template.text).toContain('width="4096" height="4096"');
    expect(template.text).toMatch(/<g id="shell-3"><path d="M0.00 4096.00/);
  });
});
