import { describe, expect, it } from 'vitest';
import { applyDelta, inverse } from '../document/delta.ts';
import { openDocument, shellOf, shellsOf, shellUv, topologyOf } from '../document/document.ts';
import { localJobs } from '../jobs/index.ts';
import { measureStretch } from '../measure/stretch.ts';
import { connectivityOf, findEdge } from '../mesh/connectivity.ts';
import { type Mesh, meshFromPolygons } from '../mesh/mesh.ts';
import { modelFromMesh } from '../mesh/model.ts';
import { carryOut, request } from '../operations/catalogue.ts';
import { localContext } from '../operations/localContext.ts';
import { unattended } from '../progress.ts';
import { answerQuestion } from '../questions/index.ts';
import { after } from '../testing/acts.ts';
import { cube, sheet, torus } from '../testing/shapes.ts';
import { families } from './families.ts';
import { type Isometry, imageOf, mirrorIn, reverses, turnAbout } from './isometry.ts';

const context = { ...unattended, jobs: localJobs };

/** A lopsided bowl: no two of its corners are alike. */
const bowl = sheet(5, 4, (i, j) => [j + 0.1 * i, 0.2 * i * j + 0.3 * (i - 2) ** 2, i + 0.05 * j * j]);

/** A piece moved, scaled and numbered anew. */
function moved(
  { positions, faceStart, cornerVertex }: Mesh,
  by: Isometry,
  scale: number,
  away: number,
): Mesh {
  const count = positions.length / 3;
  // Vertices backwards, faces from the middle on, each begun at another corner.
  const at = (v: number) => count - 1 - v;
  const vertices: number[][] = [];
  for (let v = 0; v < count; v++)
    vertices[at(v)] = imageOf(by, positions, v).map((x, k) => scale * x + (k === 0 ? away : 0));
  const faces = Array.from({ length: faceStart.length - 1 }, (_, f) => {
    const face = [...cornerVertex.subarray(faceStart[f], faceStart[f + 1])].map(at);
    if (reverses(by)) face.reverse();
    return [...face.slice(1), face[0]];
  });
  return meshFromPolygons(vertices, [...faces.slice(7), ...faces.slice(0, 7)]);
}

function together(...pieces: readonly Mesh[]): Mesh {
  const vertices: number[][] = [];
  const faces: number[][] = [];
  for (const { positions, faceStart, cornerVertex } of pieces) {
    const first = vertices.length;
    for (let v = 0; 3 * v < positions.length; v++) vertices.push([...positions.subarray(3 * v, 3 * v + 3)]);
    for (let f = 0; f + 1 < faceStart.length; f++)
      faces.push([...cornerVertex.subarray(faceStart[f], faceStart[f + 1])].map((v) => v + first));
  }
  return meshFromPolygons(vertices, faces);
}

const turned = turnAbout([0.6, 0, 0.8], [1, 2, 3], 1.1);
const all = together(
  bowl,
  moved(bowl, turned, 1, 20),
  moved(bowl, mirrorIn([0, 0, 1], 4), 2.5, 60),
  sheet(5, 4, (i, j) => [j + 120, 0.25 * i * j, i]),
);

describe('families of the same shape', () => {
  it('are found under turn, mirror, scale and other numbers, and nothing else is', () => {
    const [family, ...others] = families(all, connectivityOf(all), 2e-3);
    expect(others).toEqual([]);
    expect(family.faces).toHaveLength(20);
    expect(family.copies.map(({ mirrored, scale }) => [mirrored, Number(scale.toFixed(6))])).toEqual([
      [false, 1],
      [true, 2.5],
    ]);
    // Every vertex of the first goes to where the map takes it.
    const at = (c: number) => [
      ...all.positions.subarray(3 * all.cornerVertex[c], 3 * all.cornerVertex[c] + 3),
    ];
    family.copies[0].corners.forEach((onto, i) => {
      const from = all.faceStart[family.faces[Math.floor(i / 4)]] + (i % 4);
      const [x, y, z] = imageOf(turned, all.positions, all.cornerVertex[from]);
      expect(Math.hypot(at(onto)[0] - x - 20, at(onto)[1] - y, at(onto)[2] - z)).toBeLessThan(1e-6);
    });
  });

  it('differ where one point is off by more than the tolerance, and not where it is by less', () => {
    const off = (by: number) => {
      const other = moved(bowl, turned, 1, 20);
      other.positions[25] += by;
      const two = together(bowl, other);
      return families(two, connectivityOf(two), 1e-2).length;
    };
    expect(off(0.3)).toBe(0);
    expect(off(0.001)).toBe(1);
  });

  it('tell apart what is folded otherwise along the same edges', () => {
    const folded = (last: number, away: number) =>
      sheet(3, 4, (i, j) => [
        1.3 * j + away + 0.1 * i,
        ...(
          [
            [0, 1],
            [0, 0],
            [1, 0],
            [1, last],
          ] as const
        )[i],
      ]);
    const two = (last: number) => together(folded(1, 0), folded(last, 30));
    expect(families(two(1), connectivityOf(two(1)), 1e-3)).toHaveLength(1);
    expect(families(two(-1), connectivityOf(two(-1)), 1e-3)).toEqual([]);
  });

  it('hold shapes that are symmetric themselves, and many of them', () => {
    const shift = (mesh: Mesh, x: number): Mesh => ({
      ...mesh,
      positions: mesh.positions.map((p, i) => (i % 3 === 0 ? p + x : p)),
    });
    const many = together(
      ...Array.from({ length: 30 }, (_, k) => shift(k % 2 ? cube() : torus(8, 6), 9 * k)),
    );
    const found = families(many, connectivityOf(many), 1e-3);
    expect(found.map(({ copies }) => copies.length)).toEqual([14, 14]);
    expect(families(cube(), connectivityOf(cube()), 1e-3)).toEqual([]);
  });
});

describe('carrying seams and UVs to copies', () => {
  it('lays the shells of all on one another, none flipped, cut alike, whichever is taken after', async () => {
    const bare = openDocument(modelFromMesh('bowls', all));
    const { connectivity } = topologyOf(bare.model);
    const edges = [6, 11, 16].map((v) => findEdge(connectivity, v, v + 5));
    const cut = await after(bare, request('cut', { edges }), request('unfold', {}));
    const carried = await after(cut, request('carry-to-copies', { face: 3 }));
    expect(carried.seams.reduce((sum, s) => sum + s, 0)).toBe(9);
    const shells = shellsOf(carried);
    const boxes = [0, 25, 45].map((f) => {
      const shell = shellOf(carried, shells.faceShell[f]);
      const uv = shellUv(carried, shell) as Float64Array;
      const { flipped, l2 } = measureStretch(shell, uv);
      expect(flipped).toBe(0);
      return { l2, low: Math.min(...uv), high: Math.max(...uv) };
    });
    for (const box of boxes) {
      expect(box.l2).toBeCloseTo(boxes[0].l2, 6);
      expect(box.low).toBeCloseTo(boxes[0].low, 6);
      expect(box.high).toBeCloseTo(boxes[0].high, 6);
    }
    expect(carried.stale.includes(1)).toBe(false);
    // Taken back, everything is as it was.
    const { delta } = await carryOut(cut, request('carry-to-copies', { face: 3 }), localContext);
    const again = applyDelta(applyDelta(cut, delta), inverse(delta));
    for (const field of ['seams', 'stale', 'relaxed'] as const) expect(again[field]).toEqual(cut[field]);
    expect(again.uvSets).toEqual(cut.uvSets);
    // The other way: from one that was never cut, seams go.
    const back = await after(cut, request('carry-to-copies', { face: 25 }));
    expect(back.seams.includes(1)).toBe(false);
    await expect(after(cut, request('carry-to-copies', { face: 79 }))).rejects.toThrow(/No other piece/);
    await expect(after(cut, request('carry-to-copies', { face: 800 }))).rejects.toThrow(/no face 800/);
  });

  it('is told by families', async () => {
    const told = await answerQuestion(openDocument(modelFromMesh('bowls', all)), 'copies', {}, context);
    expect(told).toEqual([
      {
        face: 0,
        faces: 20,
        copies: [
          { face: 20, mirrored: false, scale: expect.closeTo(1, 6) },
          { face: 40, mirrored: true, scale: expect.closeTo(2.5, 6) },
        ],
      },
    ]);
  });
});
