import { describe, expect, it } from 'vitest';
import { openDocument, shellsOf, topologyOf } from '../document/document.ts';
import { figuresOf } from '../document/figures.ts';
import { localJobs } from '../jobs/index.ts';
import { modelFromMesh } from '../mesh/model.ts';
import { request } from '../operations/catalogue.ts';
import { unattended } from '../progress.ts';
import { answerQuestion } from '../questions/index.ts';
import { after } from '../testing/acts.ts';
import { cube, horn, sheet, wholeShell } from '../testing/shapes.ts';
import { darts } from './darts.ts';

const context = { ...unattended, jobs: localJobs };

describe('darts', () => {
  it('from the tip of a cone lay it flat as the sector it is rolled from, whichever way they run', () => {
    const cone = horn(40, 12, 20);
    const found = darts(cone, 40 * 12, () => 1, unattended);
    expect(found.length).toBeGreaterThan(1);
    for (const { l2, edges } of found) {
      expect(l2).toBeCloseTo(1, 3);
      expect(edges).toHaveLength(2 * 40);
    }
  });

  it('are none from the border, nor where nothing stretches', () => {
    expect(darts(horn(10, 8, 5), 0, () => 1, unattended)).toEqual([]);
    const level = wholeShell(sheet(8, 8, (i, j) => [j, i, 0]));
    expect(darts(level, 40, () => 1, unattended)).toEqual([]);
  });

  it('bring what they tell, and leave the shell in one piece', async () => {
    const hill = sheet(16, 16, (i, j) => [j, i, 9 * Math.exp(-((i - 8) ** 2 + (j - 8) ** 2) / 9)]);
    const document = await after(openDocument(modelFromMesh('hill', hill)), request('unfold', {}));
    const asked = { face: 8 * 16 + 8, vertex: 8 * 17 + 8 };
    const told = await answerQuestion(document, 'darts', asked, context);
    expect(told.length).toBeGreaterThan(1);
    expect(told.map(({ l2 }) => l2)).toEqual(told.map(({ l2 }) => l2).sort((a, b) => a - b));
    const { connectivity } = topologyOf(document.model);
    for (const { edges, l2 } of told) {
      expect(edges.every((e) => connectivity.isInterior[e] === 1)).toBe(true);
      const cut = await after(document, request('cut', { edges }), request('unfold', { shells: 'stale' }));
      expect(shellsOf(cut).shellCount).toBe(1);
      expect(figuresOf(cut, 0).stretch?.l2).toBeCloseTo(l2, 2);
    }
    const relaxed = await after(document, request('relax', { steps: 20 }));
    const then = (await answerQuestion(relaxed, 'darts', asked, context)).map(({ l2 }) => l2);
    expect(then).toEqual([...then].sort((a, b) => a - b));
    expect(await answerQuestion(document, 'darts', { face: 0, vertex: 0 }, context)).toEqual([]);
    await expect(answerQuestion(document, 'darts', { face: 0, vertex: 280 }, context)).resolves.toEqual([]);
  });

  it('say why when the piece cannot lie flat at all', async () => {
    const box = openDocument(modelFromMesh('box', cube()));
    await expect(answerQuestion(box, 'darts', { face: 0, vertex: 0 }, context)).rejects.toThrow(/Closed/);
  });
});
