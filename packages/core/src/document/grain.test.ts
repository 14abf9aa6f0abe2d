import { describe, expect, it } from 'vitest';
import { findEdge } from '../mesh/connectivity.ts';
import { modelFromMesh } from '../mesh/model.ts';
import { after } from '../testing/acts.ts';
import { sheet } from '../testing/shapes.ts';
import { type HemDocument, openDocument, shellOf, shellUv, topologyOf } from './document.ts';
import { grainInFlat } from './grain.ts';

/** A hill of 6 × 6 quads; vertex 7 i + j; it stands along y. */
const hill = () =>
  openDocument(
    modelFromMesh(
      'Hill',
      sheet(6, 6, (i, j) => [j, i, 2 * Math.exp(-((i - 3) ** 2 + (j - 3) ** 2) / 5)]),
    ),
  );

const edges = (document: HemDocument, ...pairs: readonly (readonly [number, number])[]) =>
  pairs.map(([a, b]) => findEdge(topologyOf(document.model).connectivity, a, b));

/** Degrees of the grain of the one shell from up on the texture. */
function off(document: HemDocument): number {
  const shell = shellOf(document, 0);
  const [u, v] = grainInFlat(document, 0, shell, shellUv(document, shell) as Float64Array)?.along ?? [1, 0];
  return (Math.abs(Math.atan2(u, v)) * 180) / Math.PI;
}

describe('a grain line', () => {
  it('runs up on the texture, whichever way it is set, and comes out so by unfolding', async () => {
    const start = await after(hill(), { operation: 'unfold', params: {} });
    // Along x: a quarter turn from up.
    const across = edges(start, [21, 22], [22, 23], [23, 24], [24, 25], [25, 26], [26, 27]);
    const set = await after(start, { operation: 'set-grain', params: { edges: across, along: true } });
    expect(off(set)).toBeLessThan(1e-6);
    const uv = (vertex: number, document: HemDocument) => {
      const c = document.model.mesh.cornerVertex.indexOf(vertex);
      return document.uvSets[0].uv.subarray(2 * c, 2 * c + 2);
    };
    expect(uv(27, set)[1]).toBeGreaterThan(uv(21, set)[1] + 0.1);
    expect(Math.abs(uv(27, set)[0] - uv(21, set)[0])).toBeLessThan(1e-9);
    const again = await after(set, { operation: 'unfold', params: { method: 'angle-based' } });
    expect(off(again)).toBeLessThan(1e-6);
    // Places that are kept are turned all the same.
    const kept = await after(
      set,
      { operation: 'keep-places', params: { keep: true } },
      { operation: 'unfold', params: {} },
    );
    expect(off(kept)).toBeLessThan(1e-6);
    const free = await after(set, { operation: 'set-grain', params: { edges: across, along: false } });
    expect(off(free)).toBeLessThan(1e-6);
    expect(Math.abs(uv(27, free)[0] - uv(21, free)[0])).toBeGreaterThan(0.1);
  });

  it.each([1, -1])('leads upwards, whichever of its ends comes first: rows that go by %i', async (way) => {
    const sheetUp = openDocument(
      modelFromMesh(
        'Sheet',
        sheet(6, 6, (i, j) => [j, way * i, 0.3 * Math.sin(i + j)]),
      ),
    );
    const start = await after(sheetUp, { operation: 'unfold', params: {} });
    const upright = edges(start, [3, 10], [10, 17], [17, 24]);
    const set = await after(start, { operation: 'set-grain', params: { edges: upright, along: true } });
    const v = (vertex: number) => set.uvSets[0].uv[2 * set.model.mesh.cornerVertex.indexOf(vertex) + 1];
    expect(way * (v(24) - v(3))).toBeGreaterThan(0.1);
  });

  it('is found to run across, and turned upright by its remedy', async () => {
    const start = await after(hill(), { operation: 'unfold', params: {} });
    const set = await after(start, {
      operation: 'set-grain',
      params: { edges: edges(start, [0, 8 - 7], [1, 2]), along: true },
    });
    const turned = await after(set, {
      operation: 'transform-shells',
      params: { shells: [0], matrix: [0, 1, -1, 0, 1, 0] },
    });
    expect(off(turned)).toBeCloseTo(90, 6);
    expect(off(await after(turned, { operation: 'turn-upright', params: { shells: [0] } }))).toBeLessThan(
      1e-6,
    );
  });
});
