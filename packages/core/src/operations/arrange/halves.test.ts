import { describe, expect, it } from 'vitest';
import { applyDelta } from '../../document/delta.ts';
import {
  type HemDocument,
  openDocument,
  shellOf,
  shellsOf,
  shellUv,
  topologyOf,
} from '../../document/document.ts';
import { shellBoxes } from '../../document/layout.ts';
import type { Remedy } from '../../inspect/inspection.ts';
import { inspectLayout } from '../../jobs/inspectLayout.ts';
import { findEdge } from '../../mesh/connectivity.ts';
import { modelFromMesh } from '../../mesh/model.ts';
import { unattended } from '../../progress.ts';
import { signedArea } from '../../surface/flatArea.ts';
import type { UvBox } from '../../surface/uvBox.ts';
import { after } from '../../testing/acts.ts';
import { sheet } from '../../testing/shapes.ts';
import { squares } from '../../testing/squares.ts';
import { carryOut, request } from '../catalogue.ts';
import { localContext } from '../localContext.ts';

/** A sheet that is its own mirror image about x = 0, humped so that its halves are not flat, cut down the middle and unfolded. */
const COLUMNS = 8;
const at = (i: number, j: number) => (COLUMNS + 1) * i + j;
async function halves(): Promise<HemDocument> {
  const document = openDocument(
    modelFromMesh(
      'Mask',
      sheet(6, COLUMNS, (i, j) => {
        const x = j - COLUMNS / 2;
        return [x, 1.5 * Math.exp(-(x * x) / 6 - (i - 2) ** 2 / 5), i + 0.1 * Math.abs(x)];
      }),
    ),
  );
  const { connectivity } = topologyOf(document.model);
  const middle = Array.from({ length: 6 }, (_, i) =>
    findEdge(connectivity, at(i, COLUMNS / 2), at(i + 1, COLUMNS / 2)),
  );
  return after(document, request('cut', { edges: middle }), request('unfold', {}));
}
const areaOf = (document: HemDocument, s: number) => {
  const shell = shellOf(document, s);
  return signedArea(shell.triangles, shellUv(document, shell) as Float64Array);
};
const findings = async (document: HemDocument) =>
  (await inspectLayout.run({ document }, unattended)).findings;

describe('mirrored halves', () => {
  const stacked = async () => after(await halves(), request('give-uvs', { like: 0, where: 'stacked' }));

  it('that lie on each other on purpose are told as a stack, and set apart the right way round, clear of each other', async () => {
    const start = await stacked();
    expect(areaOf(start, 0) * areaOf(start, 1)).toBeLessThan(0);
    const told = (await findings(start)).find(({ kind }) => kind === 'stacked');
    const remedy = told?.remedy as Remedy;
    expect(remedy).toMatchObject({ label: 'Set them apart', request: { operation: 'set-apart' } });
    const document = await after(start, remedy.request);
    expect(areaOf(document, 1)).toBeGreaterThan(0);
    const kinds = (await findings(document)).map(({ kind }) => kind);
    for (const kind of ['stacked', 'overlap-between', 'mirrored', 'outside', 'too-near'])
      expect(kinds).not.toContain(kind);
    // The first stays.
    expect(shellBoxes(document)[0]).toEqual(shellBoxes(start)[0]);
  });

  it('go one tile to the right as they lie, each by one more, for a bake', async () => {
    const start = await squares([0.1, 0.1, 0.2], [0.1, 0.1, 0.2], [0.1, 0.1, 0.2], [0.5, 0.5, 0.1]);
    const { delta } = await carryOut(start, request('set-apart', { where: 'tile' }), localContext);
    const boxes = shellBoxes(applyDelta(start, delta)) as UvBox[];
    expect(boxes.slice(0, 3).map(([u]) => u)).toEqual([0, 1, 2].map((n) => expect.closeTo(0.1 + n, 12)));
    expect(boxes[3]).toEqual(shellBoxes(start)[3]);
    expect(delta.notes[0]).toBe('2 shells of 1 stack set apart.');
  });

  it('kept together are no longer, once they are set apart', async () => {
    const start = await after(await stacked(), request('group-shells', { shells: 'all', together: true }));
    const document = await after(start, request('set-apart', {}));
    expect(document.groups[shellOf(document, 1).triangleFace[0]]).toBe(0);
  });

  it('are joined down the middle and lie flat as one, which has one border; one of them chosen is enough', async () => {
    const start = await halves();
    const document = await after(start, request('join-halves', { shells: [0] }));
    expect(shellsOf(document).shellCount).toBe(1);
    expect(document.seams.includes(1)).toBe(false);
    const laid = await after(document, request('unfold', { shells: 'stale' }));
    expect(areaOf(laid, 0)).toBeGreaterThan(0);
  });

  it('or the one comes over to the other, which stays bit by bit', async () => {
    const start = await halves();
    const { delta } = await carryOut(
      start,
      request('join-halves', { shells: [0], lay: 'over' }),
      localContext,
    );
    expect(delta.notes[0]).toMatch(/Both sides differ by up to/);
    const document = applyDelta(start, delta);
    expect(shellsOf(document).shellCount).toBe(1);
    const { uv: before } = start.uvSets[0];
    const { uv: now } = document.uvSets[0];
    // Both are as large; the larger of two alike is the first.
    const { faceStart } = start.model.mesh;
    for (const f of shellOf(start, 0).triangleFace)
      expect([...now.subarray(2 * faceStart[f], 2 * faceStart[f + 1])]).toEqual([
        ...before.subarray(2 * faceStart[f], 2 * faceStart[f + 1]),
      ]);
  });

  it('of a slit tube are joined along one seam alone, so that it stays open', async () => {
    const round = 12;
    const tube = sheet(6, round, (i, j) => {
      const angle = (2 * Math.PI * (j % round)) / round;
      return [Math.sin(angle) * (1 + 0.1 * i), i, Math.cos(angle) * (1 + 0.1 * i)];
    });
    // Its first and last column are cracks apart: one slit; the other is cut.
    const document = openDocument(modelFromMesh('Tube', tube));
    const { connectivity } = topologyOf(document.model);
    const cut = Array.from({ length: 6 }, (_, i) => findEdge(connectivity, 13 * i + 6, 13 * i + 19));
    const start = await after(document, request('cut', { edges: cut }), request('unfold', {}));
    expect(shellsOf(start).shellCount).toBe(2);
    const joined = await after(start, request('join-halves', { shells: [0] }), request('unfold', {}));
    expect(shellsOf(joined).shellCount).toBe(1);
  });

  it('are said to be none where no mirror image is beside', async () => {
    const start = await squares([0.1, 0.1, 0.2], [0.5, 0.5, 0.1]);
    await expect(carryOut(start, request('join-halves', { shells: [0] }), localContext)).rejects.toThrow(
      'None of these shells meets its mirror image',
    );
    await expect(carryOut(start, request('set-apart', {}), localContext)).rejects.toThrow(
      'None of these shells lies exactly on another',
    );
  });
});
