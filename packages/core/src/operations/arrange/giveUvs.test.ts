import { describe, expect, it } from 'vitest';
import { applyDelta } from '../../document/delta.ts';
import { current, type HemDocument, openDocument, topologyOf } from '../../document/document.ts';
import { findEdge } from '../../mesh/connectivity.ts';
import { modelFromMesh } from '../../mesh/model.ts';
import { after } from '../../testing/acts.ts';
import { boxes, findings } from '../../testing/packedDocument.ts';
import { sheet } from '../../testing/shapes.ts';
import { squares } from '../../testing/squares.ts';
import { carryOut, type ParamsOf, request } from '../catalogue.ts';
import { localContext } from '../localContext.ts';

const told = async (document: HemDocument, params: ParamsOf<'give-uvs'>) => {
  const { delta } = await carryOut(document, request('give-uvs', params), localContext);
  return { document: applyDelta(document, delta), notes: delta.notes };
};

/** A sheet that is the same on both sides of its middle column, cut there: two mirrored halves of one mesh, not the same as rectangles are. */
async function halves(): Promise<HemDocument> {
  const document = openDocument(
    modelFromMesh(
      'Halves',
      sheet(4, 8, (i, j) => [j + 0.2 * i * Math.sign(j - 4), 0.3 * (j - 4) ** 2 * i, i]),
    ),
  );
  const { connectivity } = topologyOf(document.model);
  const edges = Array.from({ length: 4 }, (_, i) => findEdge(connectivity, 9 * i + 4, 9 * (i + 1) + 4));
  return after(document, request('cut', { edges }), request('unfold', { shells: 'all' }));
}
/** UV of a vertex in a face. */
const uvIn = (document: HemDocument, face: number, vertex: number): number[] => {
  const { faceStart, cornerVertex } = document.model.mesh;
  for (let c = faceStart[face]; c < faceStart[face + 1]; c++)
    if (cornerVertex[c] === vertex) return [...current(document).uv.subarray(2 * c, 2 * c + 2)];
  throw new Error('not there');
};

describe('giving UVs to copies', () => {
  it('stacks them exactly, moves them by one tile, or leaves each its place', async () => {
    const document = squares([0.1, 0.1, 0.2], [0.5, 0.5, 0.1], [0.6, 0.1, 0.3]);
    const stacked = await told(document, { like: 0 });
    expect(stacked.notes[0]).toBe('Given to 2 shells of the same shape.');
    for (const box of boxes(stacked.document)) expect(box).toEqual(boxes(document)[0]);
    expect((await findings(stacked.document)).map(({ kind }) => kind)).toEqual(['stacked']);
    const beside = await told(document, { like: 0, where: 'tile', shells: [1] });
    expect(boxes(beside.document)).toEqual([boxes(document)[0], [1.1, 0.1, 1.3, 0.3], boxes(document)[2]]);
    const own = await told(document, { like: 0, where: 'own' });
    expect(
      boxes(own.document).map(([l, b, r, t]) =>
        [(l + r) / 2, (b + t) / 2, r - l].map((x) => Number(x.toFixed(5))),
      ),
    ).toEqual([
      [0.2, 0.2, 0.2],
      [0.55, 0.55, 0.2],
      [0.75, 0.25, 0.2],
    ]);
  });

  it('finds mirrored halves of one mesh: point by point on each other, or unmirrored in their own places', async () => {
    const document = await halves();
    const { document: stacked } = await told(document, { like: 0 });
    // Column 1 of the one side is column 7 of the other.
    for (let i = 0; i <= 4; i++) {
      const row = Math.min(i, 3);
      const [a, b] = [uvIn(stacked, 8 * row + 1, 9 * i + 1), uvIn(stacked, 8 * row + 6, 9 * i + 7)];
      expect(b).toEqual(a);
    }
    expect((await findings(stacked)).map(({ kind }) => kind)).toContain('mirrored');
    const { document: own } = await told(document, { like: 0, where: 'own' });
    expect((await findings(own)).map(({ kind }) => kind)).not.toContain('mirrored');
    const width = (s: number) => boxes(own)[s][2] - boxes(own)[s][0];
    expect(width(1)).toBeCloseTo(width(0), 6);
  });

  it('leaves locked ones, and says where there is no copy', async () => {
    const document = squares([0.1, 0.1, 0.2], [0.5, 0.5, 0.1], [0.6, 0.1, 0.3]);
    const locked = await after(document, request('lock-shells', { shells: [1], locked: true }));
    const { document: some, notes } = await told(locked, { like: 0 });
    expect(boxes(some)[1]).toEqual(boxes(document)[1]);
    expect(notes).toContain('1 locked shell left as it is.');
    const alone = await after(
      openDocument(
        modelFromMesh(
          'Sheet',
          sheet(3, 5, (i, j) => [j, 0, i * (1 + j)]),
        ),
      ),
      request('unfold', { shells: 'all' }),
    );
    await expect(told(alone, { like: 0 })).rejects.toThrow('None of these shells has the same shape');
    const bare = openDocument(
      modelFromMesh(
        'Sheet',
        sheet(2, 2, (i, j) => [j, 0, i]),
      ),
    );
    await expect(told(bare, { like: 0 })).rejects.toThrow('does not lie flat');
  });
});
