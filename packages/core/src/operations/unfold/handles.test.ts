import { describe, expect, it } from 'vitest';
import { pinsOf, staysOf } from '../../document/constraints.ts';
import { applyDelta } from '../../document/delta.ts';
import {
  type HemDocument,
  openDocument,
  shellOf,
  shellsOf,
  shellUv,
  topologyOf,
} from '../../document/document.ts';
import { shellPicture } from '../../document/shellPicture.ts';
import { type Jobs, localJobs } from '../../jobs/index.ts';
import { measureStretch } from '../../measure/stretch.ts';
import { findEdge } from '../../mesh/connectivity.ts';
import { meshFromPolygons } from '../../mesh/mesh.ts';
import { modelFromMesh } from '../../mesh/model.ts';
import { unattended } from '../../progress.ts';
import { answerQuestion } from '../../questions/index.ts';
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
  return applyDelta(document, (await carryOut(document, { operation, params }, localContext)).delta);
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
  const { delta } = await carryOut(document, { operation: 'unfold', params: {} }, context);
  expect(calls).toEqual([500, 500, 200]);
  expect(applyDelta(document, delta).uvSets[0].uv.some(Number.isNaN)).toBe(false);
});

describe('what is held from now on', () => {
  const spine = Array.from({ length: 9 }, (_, i) => 9 * i + 4);
  const edgesAlong = ({ model }: HemDocument, vertices: readonly number[]) =>
    vertices.slice(1).map((v, i) => findEdge(topologyOf(model).connectivity, vertices[i], v));
  /** How far vertices lie from the line between the first and the last, over its length. */
  const bend = (document: HemDocument, vertices: readonly number[]) => {
    const [a, b] = [place(document, vertices[0]), place(document, vertices[vertices.length - 1])];
    const long = Math.hypot(b[0] - a[0], b[1] - a[1]);
    const off = (v: number) => {
      const p = place(document, v);
      return Math.abs((b[0] - a[0]) * (p[1] - a[1]) - (b[1] - a[1]) * (p[0] - a[0])) / long ** 2;
    };
    return Math.max(...vertices.map(off));
  };

  const apart = (a: HemDocument, b: HemDocument) =>
    a.uvSets[0].uv.reduce((most, x, i) => Math.max(most, Math.abs(x - b.uvSets[0].uv[i])), 0);

  it('are pins: unfold, relax and a cut go round them, and letting go frees them', async () => {
    const flat = await after(hill(), 'unfold', {});
    const places = [0, 8, 72].map((vertex) => ({ vertex, face: vertex === 0 ? 0 : vertex === 8 ? 7 : 56 }));
    const pinned = await after(flat, 'set-pins', { places, pinned: true });
    const where = places.map(({ vertex }) => place(pinned, vertex));
    expect(pinned.placed).toBe(0);
    const moved = await after(pinned, 'unfold', { pins: [{ vertex: 80, uv: [0.95, 0.05] }] });
    const relaxed = await after(moved, 'relax', {});
    for (const document of [moved, relaxed])
      expect(places.map(({ vertex }) => place(document, vertex))).toEqual(where);
    expect(place(moved, 80)).toEqual([0.95, 0.05]);
    const free = await after(relaxed, 'set-pins', { places, pinned: false });
    expect(free.pins.includes(1)).toBe(false);
    expect(place(await after(free, 'relax', {}), 8)).not.toEqual(where[1]);
  });

  it('move: all of the shell follows, what was relaxed is relaxed again, and what cannot be met changes nothing', async () => {
    const flat = await after(await after(hill(), 'unfold', {}), 'relax', {});
    const far = { vertex: 80, face: 63 };
    const pinned = await after(flat, 'set-pins', { places: [{ vertex: 0, face: 0 }, far], pinned: true });
    const [held, from] = [place(pinned, 0), place(pinned, 80)];
    const to = [from[0] + 0.05, from[1] + 0.1];
    const moved = await after(pinned, 'move-pin', { ...far, uv: to });
    expect(place(moved, 0)).toEqual(held);
    expect(place(moved, 80)).toEqual(to);
    expect(moved.relaxed.every((r) => r === 1)).toBe(true);
    expect(stretch(moved).flipped).toBe(0);
    await expect(after(moved, 'move-pin', { ...far, uv: held })).rejects.toThrow(/one place/);
    // Three corners of a face, the third on the other side of the first two.
    const places = [40, 41].map((vertex) => ({ vertex, face: 36 }));
    const three = await after(moved, 'set-pins', { places, pinned: true });
    const [a, b, c] = [40, 41, 50].map((vertex) => place(three, vertex));
    const over = [a[0] + b[0] - c[0], a[1] + b[1] - c[1]];
    await expect(after(three, 'move-pin', { vertex: 50, face: 36, uv: over })).rejects.toThrow(
      /cannot all be met/,
    );
    // Before it is dropped the shell is shown as it would follow, from where it lies.
    const context = { ...unattended, jobs: localJobs };
    const still = await answerQuestion(
      pinned,
      'moved-pin',
      { ...far, uv: from as [number, number] },
      context,
    );
    const real = shellPicture(pinned, new Map([[0, shellUv(pinned, shellOf(pinned, 0)) as Float64Array]]));
    still.uv.forEach((x, i) => {
      expect(x).toBeCloseTo(real.uv[i], 5);
    });
    const follows = await answerQuestion(
      pinned,
      'moved-pin',
      { ...far, uv: to as [number, number] },
      context,
    );
    expect(follows.triangles).toEqual(real.triangles);
    // What is far from the hand hardly moves.
    const { triangleCorners } = topologyOf(pinned.model).triangulation;
    const at = triangleCorners.findIndex((c) => pinned.model.mesh.cornerVertex[c] === 72);
    const i = 6 * follows.triangles.indexOf(Math.floor(at / 3)) + 2 * (at % 3);
    const far72 = Math.hypot(follows.uv[i] - real.uv[i], follows.uv[i + 1] - real.uv[i + 1]);
    expect(far72).toBeLessThan(0.3 * Math.hypot(0.05, 0.1));
    expect(follows.uv).not.toEqual(real.uv);
  });

  it('hold on their side of a seam alone', async () => {
    const cut = await after(hill(), 'cut', { edges: edgesAlong(hill(), spine) });
    const flat = await after(cut, 'unfold', {});
    const pinned = await after(flat, 'set-pins', { places: [{ vertex: 40, face: 35 }], pinned: true });
    const { faceShell } = shellsOf(pinned);
    const held = [...pinned.pins.keys()].filter((c) => pinned.pins[c]);
    const { cornerFace } = topologyOf(pinned.model).connectivity;
    expect(held.length).toBeGreaterThan(1);
    expect(held.every((c) => faceShell[cornerFace[c]] === faceShell[35])).toBe(true);
    expect(pinsOf(pinned, shellOf(pinned, faceShell[35]))).toHaveLength(1);
    expect(pinsOf(pinned, shellOf(pinned, 1 - faceShell[35]))).toHaveLength(0);
  });

  it('are stays: straight at true length, in undo and when faces are deleted', async () => {
    const flat = await after(hill(), 'unfold', {});
    expect(bend(flat, spine)).toBeLessThan(1e-6);
    const side = Array.from({ length: 9 }, (_, i) => 9 * i + 2);
    expect(bend(flat, side)).toBeGreaterThan(0.02);
    const edges = edgesAlong(flat, side);
    const marked = await after(flat, 'set-stays', { edges, straight: true });
    expect(marked.stale.every((s) => s === 1)).toBe(true);
    let stayed = await after(marked, 'unfold', { shells: 'stale' });
    for (const act of [undefined, 'relax'] as const) {
      if (act) stayed = await after(stayed, act, {});
      expect(bend(stayed, side)).toBeLessThan(1e-6);
    }
    const cut = await after(stayed, 'delete-faces', { faces: [7, 15] });
    expect(cut.stays.reduce((sum, s) => sum + s, 0)).toBe(8);
    const [run] = staysOf(cut, 0);
    const shell = shellOf(cut, 0);
    const column = run.vertices.map(
      (v) => cut.model.mesh.positions[3 * cut.model.mesh.cornerVertex[shell.vertexCorner[v]]],
    );
    expect(column.every((x) => x === 2)).toBe(true);
    const freed = await after(stayed, 'set-stays', { edges, straight: false });
    expect(bend(await after(freed, 'unfold', { shells: 'stale' }), side)).toBeGreaterThan(0.02);
  });

  it('say why they cannot be: crossing, closed, pinned where nothing lies', async () => {
    const bare = hill();
    const across = edgesAlong(
      bare,
      Array.from({ length: 9 }, (_, i) => 36 + i),
    );
    const one = await after(bare, 'set-stays', { edges: edgesAlong(bare, spine), straight: true });
    await expect(after(one, 'set-stays', { edges: across, straight: true })).rejects.toThrow(
      /Two stays meet/,
    );
    const stairs = edgesAlong(bare, [20, 21, 30, 31]);
    await expect(after(bare, 'set-stays', { edges: stairs, straight: true })).rejects.toThrow(
      /corner of a face/,
    );
    await expect(after(bare, 'unfold', { stays: [{ vertices: [20, 21, 30, 31] }] })).rejects.toThrow(
      /corner of a face/,
    );
    const ring = edgesAlong(bare, [10, 11, 20, 19, 10]);
    await expect(after(bare, 'set-stays', { edges: ring, straight: true })).rejects.toThrow(/closes/);
    const places = [{ vertex: 0, face: 0 }];
    await expect(after(bare, 'set-pins', { places, pinned: true })).rejects.toThrow(/Only what lies flat/);
    await expect(
      after(bare, 'set-pins', { places: [{ vertex: 80, face: 0 }], pinned: true }),
    ).rejects.toThrow(/no corner/);
  });

  it('is the method of a shell', async () => {
    const first = await after(hill(), 'unfold', { method: 'angle-based' });
    const again = await after(first, 'unfold', {});
    const other = await after(hill(), 'unfold', {});
    expect(apart(again, first)).toBeLessThan(1e-9);
    expect(apart(other, first)).toBeGreaterThan(1e-4);
    expect((await after(again, 'unfold', { method: 'conformal' })).method.includes(1)).toBe(false);
  });

  it('is the surface: what is smoothed is flattened and measured as it looks', async () => {
    const flat = await after(hill(), 'unfold', {});
    const faces = [...topologyOf(flat.model).mesh.faceStart.keys()].slice(0, -1);
    const marked = await after(flat, 'set-surface', { faces, surface: 'smoothed' });
    const smooth = await after(marked, 'unfold', { shells: 'stale' });
    const asked = await after(hill(), 'unfold', { surface: 'smoothed' });
    expect(apart(smooth, asked)).toBeLessThan(1e-9);
    expect(stretch(smooth).l2).toBeLessThan(stretch(flat).l2);
    const shell = shellOf(smooth, 0);
    expect(Array.from(shell.positions)).toEqual(Array.from(shellOf(flat, 0, 'smoothed').positions));
    const back = await after(smooth, 'set-surface', { faces, surface: 'cage' });
    expect(shellOf(back, 0).positions).toEqual(shellOf(flat, 0).positions);
  });
});
