import { openDocument, topologyOf } from '@blunt-hem/core/document/document';
import { findEdge } from '@blunt-hem/core/mesh/connectivity';
import { modelFromMesh } from '@blunt-hem/core/mesh/model';
import { request } from '@blunt-hem/core/operations/catalogue';
import { after } from '@blunt-hem/core/testing/acts';
import { sheet } from '@blunt-hem/core/testing/shapes';
import { describe, expect, it } from 'vitest';
import { flatBuffers, modelBuffers } from '../../worker/buffers.ts';
import { partnersOf } from './partners.ts';

describe('partners of seams', () => {
  it('are both sides of a seam that lies apart, and nothing of edges that are none', async () => {
    const start = openDocument(
      modelFromMesh(
        'Sheet',
        sheet(2, 4, (i, j) => [j, i, 0]),
      ),
    );
    const { connectivity } = topologyOf(start.model);
    const across = [findEdge(connectivity, 2, 7), findEdge(connectivity, 7, 12)];
    const inside = findEdge(connectivity, 6, 7);
    const document = await after(start, request('cut', { edges: across }), request('unfold', {}));
    const [model, flat] = [modelBuffers(document), flatBuffers(document)];
    const found = partnersOf(model, flat, new Set([across[0], inside]));
    expect(found.map(({ edge }) => edge)).toEqual([across[0]]);
    // Each side is the middle between its ends, as the document has them.
    const { uv } = document.uvSets[0];
    const { edgeCorners, edgeCornerStart, nextCorner } = connectivity;
    const middles = [...edgeCorners.subarray(edgeCornerStart[across[0]], edgeCornerStart[across[0] + 1])].map(
      (c) => [0, 1].map((k) => Math.fround((uv[2 * c + k] + uv[2 * nextCorner[c] + k]) / 2)),
    );
    const told = found[0].sides.map((side) => side.map(Math.fround));
    for (const middle of middles)
      expect(told.some((side) => Math.hypot(side[0] - middle[0], side[1] - middle[1]) < 1e-6)).toBe(true);
    expect(Math.hypot(told[0][0] - told[1][0], told[0][1] - told[1][1])).toBeGreaterThan(0.01);
  });
});
