import { describe, expect, it } from 'vitest';
import { findEdge } from '../mesh/connectivity.ts';
import { modelFromMesh } from '../mesh/model.ts';
import { carryOut, request } from '../operations/catalogue.ts';
import { localContext } from '../operations/localContext.ts';
import { after } from '../testing/acts.ts';
import { sheet } from '../testing/shapes.ts';
import { carryAlong } from './carryAlong.ts';
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

/** The same with its points numbered from the last to the first and its faces turned over. */
function reorderedHill(document: HemDocument): HemDocument {
  const { positions, cornerVertex, faceStart } = document.model.mesh;
  const last = positions.length / 3 - 1;
  const cornerSource = Uint32Array.from(
    { length: cornerVertex.length },
    (_, c) => 4 * Math.floor(c / 4) + 3 - (c % 4),
  );
  const mesh = {
    positions: Float64Array.from(positions, (_, i) => positions[3 * (last - Math.floor(i / 3)) + (i % 3)]),
    cornerVertex: Uint32Array.from(cornerSource, (c) => last - cornerVertex[c]),
    faceStart,
  };
  const faceSource = Uint32Array.from({ length: faceStart.length - 1 }, (_, f) => f);
  return carryAlong(document, { mesh, faceSource, cornerSource });
}

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

  it.each([
    [[21, 22, 23, 24, 25], 1],
    [[25, 24, 23, 22, 21], -1],
  ])('runs as it is told where it is told: %j', async (line, sign) => {
    const start = await after(hill(), { operation: 'unfold', params: {} });
    const along = edges(start, ...line.slice(1).map((v, i) => [line[i], v] as const));
    const params = { edges: along, from: line.slice(0, -1), along: true };
    const set = await after(start, request('set-grain', params));
    const rise = ({ model, uvSets }: HemDocument): number => {
      const v = (vertex: number) => uvSets[0].uv[2 * model.mesh.cornerVertex.indexOf(vertex) + 1];
      return v(25) - v(21);
    };
    expect(sign * rise(set)).toBeGreaterThan(0.1);
    const again = await after(set, request('unfold', { method: 'angle-based' }));
    expect(sign * rise(again)).toBeGreaterThan(0.1);
  });

  it('keeps its direction when points are renumbered and faces turned over', async () => {
    const start = await after(hill(), request('unfold', {}));
    const line = [25, 24, 23, 22];
    const along = edges(start, [25, 24], [24, 23], [23, 22]);
    const set = await after(
      start,
      request('set-grain', { edges: along, from: line.slice(0, 3), along: true }),
    );
    const { positions } = set.model.mesh;
    const place = (v: number, { model }: HemDocument) =>
      model.mesh.positions.subarray(3 * v, 3 * v + 3).join(' ');
    const oldPlaces = line.map((v) => place(v, set));
    /** Places from which marked edges run, and to which. */
    const ways = (document: HemDocument) => {
      const { edgeVertices } = topologyOf(document.model).connectivity;
      return [...document.grain.keys()]
        .filter((e) => document.grain[e])
        .map((e) => {
          const [a, b] = edgeVertices.subarray(2 * e, 2 * e + 2);
          expect(document.grain[e]).toBeGreaterThan(1);
          return (document.grain[e] === 2 ? [a, b] : [b, a]).map((v) => place(v, document)).join(' → ');
        })
        .sort();
    };
    const expected = [0, 1, 2].map((i) => `${oldPlaces[i]} → ${oldPlaces[i + 1]}`).sort();
    expect(ways(set)).toEqual(expected);
    const reversed = reorderedHill(set);
    expect(ways(reversed)).toEqual(expected);
    expect(positions.length).toBe(reversed.model.mesh.positions.length);
  });

  it.each([
    [{ from: [21] }, 'There are 2 edges but 1 point at which they begin.'],
    [{ from: [21, 25] }, 'Edge'],
  ])('is refused where its edges do not begin there: %j', async (params, message) => {
    const start = hill();
    const along = edges(start, [21, 22], [22, 23]);
    const act = request('set-grain', { edges: along, along: true, ...params });
    await expect(carryOut(start, act, localContext)).rejects.toThrow(message);
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
