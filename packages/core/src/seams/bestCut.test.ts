import { describe, expect, it } from 'vitest';
import { openDocument, shellsOf, topologyOf } from '../document/document.ts';
import { figuresOf } from '../document/figures.ts';
import { StoppedError } from '../errors.ts';
import { localJobs } from '../jobs/index.ts';
import { modelFromMesh } from '../mesh/model.ts';
import { request } from '../operations/catalogue.ts';
import { unattended } from '../progress.ts';
import { answerQuestion } from '../questions/index.ts';
import { meshOfShell } from '../surface/cutShell.ts';
import { after } from '../testing/acts.ts';
import { glove, head } from '../testing/sculpts.ts';
import { horn, sheet, tube, wholeShell } from '../testing/shapes.ts';
import { bestCut } from './bestCut.ts';

const context = { ...unattended, jobs: localJobs };

describe('the best single cut', () => {
  it('opens a horn from its tip and a sleeve from end to end, after which they lie flat as what they are rolled from', () => {
    const cone = bestCut(horn(40, 12, 20), unattended);
    expect(cone?.edges).toHaveLength(2 * 40);
    expect(cone?.edges.includes(40 * 12)).toBe(true);
    expect(cone?.l2).toBeCloseTo(1, 3);
    const sleeve = bestCut(tube(30, 12, 14), unattended);
    expect(sleeve?.edges).toHaveLength(2 * 30);
    expect(sleeve?.l2).toBeCloseTo(1, 6);
    expect(sleeve?.angleMean).toBeLessThan(0.01);
  });

  it('tells of a large shell by a coarser one, and that it does', () => {
    const cone = bestCut(horn(100, 60, 50), unattended, { relaxSteps: 10 });
    expect(cone?.isRough).toBe(true);
    expect(cone?.edges).toHaveLength(2 * 100);
    expect(cone?.l2).toBeLessThan(1.02);
    expect(bestCut(horn(40, 12, 20), unattended)?.isRough).toBe(false);
  });

  it('takes, of cuts that help about as much, the one that shows least', () => {
    // A sleeve is opened as well along any of its lines; a side of it is seen.
    const sleeve = tube(30, 12, 14);
    const seenOf = (cut: ReturnType<typeof bestCut>, visibility: Float32Array): number => {
      const edges = cut?.edges ?? new Uint32Array(0);
      return edges.reduce((sum, v) => sum + visibility[v], 0) / (edges.length || 1);
    };
    for (const side of [-1, 1]) {
      const visibility = Float32Array.from({ length: sleeve.positions.length / 3 }, (_, v) =>
        side * sleeve.positions[3 * v] > 0 ? 1 : 0,
      );
      const cut = bestCut(sleeve, unattended, { visibility });
      expect(cut?.l2).toBeCloseTo(1, 6);
      expect(seenOf(cut, visibility)).toBeLessThanOrEqual(seenOf(bestCut(sleeve, unattended), visibility));
    }
  });

  it('finds none on what lies flat already', () => {
    expect(bestCut(wholeShell(sheet(8, 8, (i, j) => [j, i, 0])), unattended)).toBeUndefined();
  });

  it.each([
    ['unfolded', []],
    ['relaxed', [request('relax', { steps: 20 })]],
  ] as const)('tells what comes of it on a sculpted head that was %s', async (_, acts) => {
    const bare = openDocument(modelFromMesh('head', meshOfShell(head(16))));
    const document = await after(bare, request('unfold', {}), ...acts);
    const now = figuresOf(document, shellsOf(document).faceShell[5]).stretch;
    const { edges, l2 = NaN, angleMean } = await answerQuestion(document, 'best-cut', { face: 5 }, context);
    expect(now && l2 / now.l2).toBeLessThan(0.85);
    expect(edges.every((e) => topologyOf(document.model).connectivity.isInterior[e] === 1)).toBe(true);
    const follow = [request('unfold', { shells: 'stale' }), ...acts];
    const cut = await after(document, request('cut', { edges }), ...follow);
    expect(shellsOf(cut).shellCount).toBe(shellsOf(document).shellCount);
    const then = figuresOf(cut, shellsOf(cut).faceShell[5]).stretch;
    expect(then?.l2).toBeCloseTo(l2, 2);
    expect(then?.angleMean).toBeCloseTo(angleMean as number, 0);
  });

  it('goes along the edges of polygons, not across them', async () => {
    const bare = openDocument(
      modelFromMesh(
        'hill',
        sheet(16, 16, (i, j) => [j, i, 14 * Math.exp(-((i - 8) ** 2 + (j - 8) ** 2) / 8)]),
      ),
    );
    const document = await after(bare, request('unfold', {}));
    const { edges } = await answerQuestion(document, 'best-cut', { face: 0 }, context);
    expect(edges.length).toBeGreaterThan(4);
    expect(Math.min(...edges)).toBeGreaterThanOrEqual(0);
  });

  it('stops', () => {
    let asked = 0;
    const signal = {
      get aborted() {
        return ++asked > 40;
      },
    };
    expect(() => bestCut(glove(36), { signal, report: () => undefined })).toThrow(StoppedError);
  });
});
