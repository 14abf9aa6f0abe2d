import { describe, expect, it } from 'vitest';
import { type HemDocument, openDocument, shellOf, shellsOf, shellUv } from '../../document/document.ts';
import { applyPatch } from '../../document/patch.ts';
import { type Jobs, localJobs } from '../../jobs/index.ts';
import { measureStretch } from '../../measure/stretch.ts';
import { meshFromPolygons } from '../../mesh/mesh.ts';
import { modelFromMesh } from '../../mesh/model.ts';
import { sheet } from '../../testing/shapes.ts';
import { carryOut } from '../catalogue.ts';
import { localContext } from '../localContext.ts';

/** A hill over a square of 8 × 8 quads; vertex 9 i + j. */
const hill = () =>
  openDocument(
    modelFromMesh(
      'Hill',
      sheet(8, 8, (i, j) => [j, 3 * Math.exp(-((i - 4) ** 2 + (j - 4) ** 2) / 6), -i]),
    ),
  );

async function after(document: HemDocument, operation: string, params: object): Promise<HemDocument> {
  return applyPatch(document, (await carryOut(document, { operation, params }, localContext)).patch);
}

/** UV of a vertex of the first shell. */
function place(document: HemDocument, vertex: number): number[] {
  const { cornerVertex } = document.model.mesh;
  const { uv } = document.uvSets[0];
  const c = cornerVertex.indexOf(vertex);
  return [uv[2 * c], uv[2 * c + 1]];
}

const stretch = (document: HemDocument) => {
  const shell = shellOf(document, 0);
  return measureStretch(shell, shellUv(document, shell) as Float64Array);
};

describe('pins and stays of operations', () => {
  it('lie where they were put, in the tile', async () => {
    const pins = [
      { vertex: 0, uv: [0.1, 0.1] },
      { vertex: 8, uv: [0.9, 0.1] },
      { vertex: 76, uv: [0.5, 0.8] },
    ];
    for (const method of ['conformal', 'angle-based']) {
      const pinned = await after(hill(), 'unfold', { method, pins });
      for (const { vertex, uv } of pins) expect(place(pinned, vertex)).toEqual(uv);
      expect(stretch(pinned).flipped).toBe(0);
      const held = pins.map(({ vertex }) => ({ vertex }));
      const relaxed = await after(pinned, 'relax', { held });
      for (const { vertex, uv } of pins) expect(place(relaxed, vertex)).toEqual(uv);
      expect(stretch(relaxed).l2).toBeLessThan(stretch(pinned).l2);
    }
    const one = await after(hill(), 'unfold', { pins: pins.slice(0, 1) });
    expect(place(one, 0)).toEqual([0.1, 0.1]);
  });

  it('keep a chain straight through unfold and relax', async () => {
    const stays = [{ vertices: Array.from({ length: 9 }, (_, i) => 9 * i + 4) }];
    let document = await after(hill(), 'unfold', { stays });
    const bend = () => {
      const points = stays[0].vertices.map((v) => place(document, v));
      const [a, b] = [points[0], points[8]];
      return Math.max(
        ...points.map(([u, v]) => Math.abs((u - a[0]) * (b[1] - a[1]) - (v - a[1]) * (b[0] - a[0]))),
      );
    };
    expect(bend()).toBeLessThan(1e-9);
    document = await after(document, 'relax', { stays });
    expect(bend()).toBeLessThan(1e-9);
    expect(stretch(document).flipped).toBe(0);
  });

  it('need a face where a seam runs through', async () => {
    const pair = openDocument(
      modelFromMesh(
        'Pair',
        meshFromPolygons(
          [
            [0, 0, 0],
            [1, 0, 0],
            [2, 0, 0],
            [0, 1, 0],
            [1, 1, 0],
            [2, 1, 0],
          ],
          [
            [0, 1, 4, 3],
            [1, 2, 5, 4],
          ],
        ),
      ),
    );
    const edge = Array.from(shellsOf(pair).faceShell); // one shell before the cut
    expect(new Set(edge).size).toBe(1);
    const cut = await after(pair, 'cut', { edges: [...pair.seams.keys()] });
    expect(shellsOf(cut).shellCount).toBe(2);
    const pins = [{ vertex: 1, uv: [0, 0] }];
    await expect(after(cut, 'unfold', { pins })).rejects.toThrow(/Vertex 1 lies on a seam/);
    const told = await after(cut, 'unfold', { pins: [{ vertex: 1, face: 1, uv: [0.25, 0.5] }] });
    expect([told.uvSets[0].uv[8], told.uvSets[0].uv[9]]).toEqual([0.25, 0.5]);
    await expect(after(cut, 'unfold', { stays: [{ vertices: [0, 2] }] })).rejects.toThrow(/in none of these/);
    await expect(after(cut, 'unfold', { pins: [{ vertex: 1, face: 7, uv: [0, 0] }] })).rejects.toThrow(
      /no face 7/,
    );
  });
});

describe('relax', () => {
  it('trades angles for area by its balance', async () => {
    const start = await after(hill(), 'unfold', {});
    const [angles, area] = [
      stretch(await after(start, 'relax', { balance: 0.1 })),
      stretch(await after(start, 'relax', { balance: 0.9 })),
    ];
    expect(area.areaMean).toBeLessThan(angles.areaMean);
    expect(area.angleMean).toBeGreaterThan(angles.angleMean);
  });

  it('loosens chosen faces and nothing else, or all but the border', async () => {
    const start = await after(hill(), 'unfold', {});
    const faces = [18, 19, 26, 27]; // round vertex 30
    const region = await after(start, 'relax', { faces });
    const changed = [...region.uvSets[0].uv.keys()].filter(
      (i) => region.uvSets[0].uv[i] !== start.uvSets[0].uv[i],
    );
    const vertices = new Set(changed.map((i) => start.model.mesh.cornerVertex[i >> 1]));
    expect([...vertices]).toEqual([30]);
    const inside = await after(start, 'relax', { keepBorder: true });
    for (const v of [0, 4, 8, 44, 80]) expect(place(inside, v)).toEqual(place(start, v));
    expect(place(inside, 30)).not.toEqual(place(start, 30));
  });

  it('fits the smoothed surface when asked to', async () => {
    const cage = await after(hill(), 'unfold', {});
    const smoothed = await after(hill(), 'unfold', { surface: 'smoothed' });
    const against = (document: HemDocument) => {
      const shell = shellOf(document, 0, 'smoothed');
      return measureStretch(shell, shellUv(document, shell) as Float64Array).angleMean;
    };
    expect(against(smoothed)).toBeLessThan(against(cage));
  });
});

it('unfolds thousands of shells in batches', async () => {
  const quads = Array.from({ length: 1200 }, (_, i) => [0, 1, 2, 3].map((k) => 4 * i + k));
  const corners = quads.flatMap((_, i) => [
    [2 * i, 0, 0],
    [2 * i + 1, 0, 0.2],
    [2 * i + 1, 1, 0],
    [2 * i, 1, 0],
  ]);
  const document = openDocument(modelFromMesh('Scales', meshFromPolygons(corners, quads)));
  const calls: number[] = [];
  const jobs: Jobs = {
    width: 1,
    run(name, input, context) {
      if (name === 'unfold') calls.push((input as readonly unknown[]).length);
      return localJobs.run(name, input, context);
    },
  };
  const context = { ...localContext, jobs };
  const { patch } = await carryOut(document, { operation: 'unfold', params: {} }, context);
  expect(calls).toEqual([500, 500, 200]);
  expect(applyPatch(document, patch).uvSets[0].uv.some(Number.isNaN)).toBe(false);
});
