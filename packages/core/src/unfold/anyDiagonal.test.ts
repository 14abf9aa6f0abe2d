import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { foldsOf } from '../measure/folds.ts';
import { type Mesh, meshFromPolygons } from '../mesh/mesh.ts';
import { unattended } from '../progress.ts';
import { relax } from '../relax/relax.ts';
import { invertedTriangles, removeInversions } from '../relax/removeInversions.ts';
import { anyDiagonal } from '../surface/anyDiagonal.ts';
import { type Shell, shellFromTriangles } from '../surface/shell.ts';
import { apart } from '../testing/apart.ts';
import { sheet } from '../testing/shapes.ts';
import { unfoldShell } from './unfold.ts';

/** A mesh of quads as one shell, each split along its first or its second diagonal. */
function quadShell({ positions, ...polygons }: Mesh, diagonal: (face: number) => 0 | 1): Shell {
  const triangles: number[] = [];
  for (let f = 0; f + 1 < polygons.faceStart.length; f++) {
    const corner = (k: number) => polygons.cornerVertex[polygons.faceStart[f] + (k % 4)];
    const s = diagonal(f);
    triangles.push(corner(s), corner(s + 1), corner(s + 2), corner(s), corner(s + 2), corner(s + 3));
  }
  const triangleFace = Uint32Array.from({ length: triangles.length / 3 }, (_, t) => t >> 1);
  return { ...shellFromTriangles(positions, triangles), triangleFace, polygons };
}

/** Faces folded in a map of a shell. */
function folded({ positions, polygons }: Shell, uv: Float64Array): readonly number[] {
  if (!polygons) return [];
  const ofCorner = new Float64Array(2 * polygons.cornerVertex.length);
  polygons.cornerVertex.forEach((v, c) => {
    ofCorner.set(uv.subarray(2 * v, 2 * v + 2), 2 * c);
  });
  const faces = Array.from({ length: polygons.faceStart.length - 1 }, (_, f) => f);
  return foldsOf({ positions, ...polygons }, ofCorner, faces).folded;
}

/** A bump, steep enough to stretch. */
const bump = sheet(10, 10, (i, j) => [j - 5, 4 * Math.exp(-((i - 5) ** 2 + (j - 5) ** 2) / 6), 5 - i]);

describe('polygons whichever way they are split', () => {
  it('come out the same, unfolded and relaxed', () => {
    const one = quadShell(bump, () => 0);
    const other = quadShell(bump, (f) => (f % 3 === 0 ? 0 : 1));
    const [a, b] = [one, other].map((shell) => unfoldShell(shell, 'conformal', unattended).uv);
    expect(apart(a, b)).toBeLessThan(1e-9);
    const [c, d] = [one, other].map((shell) => relax(shell, a, {}, unattended).uv);
    expect(apart(c, d)).toBeLessThan(1e-9);
  });

  it('keep the symmetry of a cage', () => {
    const shell = quadShell(bump, () => 0);
    const flat = unfoldShell(shell, 'conformal', unattended).uv;
    for (const uv of [flat, relax(shell, flat, {}, unattended).uv]) {
      // Column j mirrors column 10 − j: the distance from the corner above, in both halves.
      const from = (corner: number, v: number) =>
        Math.hypot(uv[2 * v] - uv[2 * corner], uv[2 * v + 1] - uv[2 * corner + 1]);
      for (let i = 0; i <= 10; i++)
        for (let j = 0; j <= 10; j++) expect(from(0, 11 * i + j)).toBeCloseTo(from(10, 11 * i + 10 - j), 6);
    }
  });

  it('have the area of their surface', () => {
    const { rest } = anyDiagonal(
      quadShell(
        sheet(3, 5, (i, j) => [j, i, 0]),
        () => 0,
      ),
    );
    expect(rest.totalArea).toBeCloseTo(15, 12);
    expect(rest.area.reduce((a, b) => a + b, 0)).toBeCloseTo(15, 12);
  });

  it('count their convex corners where one is not, or where they have more than four', () => {
    // A dart, and an L of six corners.
    const dart = meshFromPolygons(
      [
        [0, 0, 0],
        [2, -1, 0],
        [0.5, 0, 0],
        [2, 1, 0],
      ],
      [[0, 1, 2, 3]],
    );
    const { triangles, rest } = anyDiagonal(quadShell(dart, () => 0));
    // The two halves, and the three corners that do not turn back.
    expect(triangles.length / 3).toBe(5);
    expect(rest.totalArea).toBeCloseTo(0.5, 12);
  });
});

/** Sheets of uneven quads, bent enough for folds. */
const rough = fc
  .record({
    rows: fc.integer({ min: 3, max: 7 }),
    columns: fc.integer({ min: 3, max: 7 }),
    jitter: fc.array(fc.double({ min: -0.35, max: 0.35, noNaN: true }), { minLength: 37, maxLength: 37 }),
    height: fc.double({ min: 0, max: 8, noNaN: true }),
  })
  .map(({ rows, columns, jitter, height }) =>
    sheet(rows, columns, (i, j) => {
      const noise = (k: number) => jitter[(7 * i + 11 * j + k) % jitter.length];
      return [j + noise(0), i + noise(1), height * noise(2)];
    }),
  );

describe('folded quads', () => {
  it('are never left by unfolding and relaxing rough sheets', () => {
    fc.assert(
      fc.property(rough, (mesh) => {
        const shell = quadShell(mesh, (f) => (f % 2 ? 1 : 0));
        const { uv } = unfoldShell(shell, 'conformal', unattended);
        expect(folded(shell, uv)).toEqual([]);
        const relaxed = relax(shell, uv, { steps: 8 }, unattended);
        expect(folded(shell, relaxed.uv)).toEqual([]);
      }),
      { numRuns: 60 },
    );
  });

  it('are unfolded by relaxing, and by nothing else when all round them is fixed', () => {
    const flat = sheet(4, 4, (i, j) => [j, i, 0]);
    const shell = quadShell(flat, () => 0);
    const uv = Float64Array.from({ length: 50 }, (_, k) => flat.positions[3 * (k >> 1) + (k & 1)]);
    // Over the other diagonal of the quad below left of it, within its own.
    uv.set([1.2, 1.2], 2 * 12);
    uv.set([1.85, 1.05], 2 * 7);
    const fold = folded(shell, uv);
    expect(fold.length).toBeGreaterThan(0);
    const whole = { triangles: shell.triangles, rest: anyDiagonal({ ...shell, polygons: undefined }).rest };
    expect(invertedTriangles(whole, uv, 0)).toEqual([]);
    const { uv: mended, energyAfter } = relax(shell, uv, {}, unattended);
    expect(folded(shell, mended)).toEqual([]);
    expect(energyAfter).toBeCloseTo(4, 3);
    const fixed = new Uint8Array(25).fill(1);
    fixed[24] = 0;
    expect(folded(shell, relax(shell, uv, { fixed }, unattended).uv)).toEqual(fold);
  });
});

describe('removing inversions', () => {
  const flat = sheet(8, 8, (i, j) => [j, i, 0]);
  const whole = anyDiagonal(quadShell(flat, () => 0));
  const places = Float64Array.from({ length: 162 }, (_, k) => flat.positions[3 * (k >> 1) + (k & 1)]);

  it('turns flipped triangles up and leaves what is far from them', () => {
    const uv = places.slice();
    // A point of the middle is dragged over its neighbours.
    uv.set([5.4, 4.6], 2 * 40);
    expect(invertedTriangles(whole, uv, 0).length).toBeGreaterThan(2);
    const mended = removeInversions(whole, uv, new Uint8Array(81), unattended) as Float64Array;
    expect(invertedTriangles(whole, mended, 1e-6)).toEqual([]);
    expect([...mended.subarray(0, 18)]).toEqual([...uv.subarray(0, 18)]);
  });

  it('says so when what is fixed does not let it', () => {
    const uv = places.slice();
    uv.set([7.5, 4], 2 * 40);
    const fixed = new Uint8Array(81).fill(1);
    fixed[31] = 0;
    expect(removeInversions(whole, uv, fixed, unattended)).toBeUndefined();
  });
});
