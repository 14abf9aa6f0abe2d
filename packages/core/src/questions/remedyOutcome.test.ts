import { describe, expect, it } from 'vitest';
import { type HemDocument, openDocument, topologyOf } from '../document/document.ts';
import { localJobs } from '../jobs/index.ts';
import { modelFromMesh } from '../mesh/model.ts';
import { request } from '../operations/catalogue.ts';
import { unattended } from '../progress.ts';
import { after } from '../testing/acts.ts';
import { sheet } from '../testing/shapes.ts';
import { answerQuestion } from './index.ts';

const context = { ...unattended, jobs: localJobs };
const outcome = (document: HemDocument, kind: 'density' | 'outside' | 'overlap-between' | 'stretched') =>
  answerQuestion(document, 'remedy-outcome', { kind }, context);

/** Three strips of a wave, laid flat and packed. */
async function strips(): Promise<HemDocument> {
  const start = openDocument(
    modelFromMesh(
      'Waves',
      sheet(12, 12, (i, j) => [j, 2 * Math.sin(i / 2), i]),
    ),
  );
  const { edgeVertices } = topologyOf(start.model).connectivity;
  const isAcross = (e: number, row: number) =>
    [edgeVertices[2 * e], edgeVertices[2 * e + 1]].every((v) => Math.floor(v / 13) === row);
  const edges = [...start.seams.keys()].filter((e) => isAcross(e, 4) || isAcross(e, 8));
  return after(start, request('cut', { edges }), request('unfold', {}), request('pack', {}));
}

describe('a remedy that is tried', () => {
  it('tells how many are left, and changes nothing', async () => {
    const packed = await strips();
    const out = await after(packed, request('transform-shells', { shells: [0], matrix: [1, 0, 0, 1, 2, 0] }));
    const before = out.uvSets[0].uv.slice();
    expect(await outcome(out, 'outside')).toMatchObject({ before: 1, after: 0, worse: [], gains: true });
    expect(out.uvSets[0].uv).toEqual(before);
    // Nothing is wrong: there is nothing to try.
    expect(await outcome(packed, 'outside')).toBeUndefined();
  });

  it('is refused in a sentence where it cannot be done', async () => {
    const out = await after(
      await strips(),
      request('transform-shells', { shells: [0], matrix: [1, 0, 0, 1, 2, 0] }),
      request('lock-shells', { shells: [0], locked: true }),
    );
    const { gains, refusal } = (await outcome(out, 'outside')) ?? {};
    expect(gains).toBe(false);
    expect(refusal).toMatch(/locked.*unlock/);
  });

  it('keeps what it scales clear of others', async () => {
    const packed = await strips();
    const small = await after(
      packed,
      request('transform-shells', { shells: [0], matrix: [0.4, 0, 0, 0.4, 0.1, 0.1] }),
    );
    const found = await outcome(small, 'density');
    expect(found).toMatchObject({ before: 1, after: 0, gains: true });
    expect(found?.worse.join()).not.toMatch(/near|on each other/);
  });
});
