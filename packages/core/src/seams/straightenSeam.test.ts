import { describe, expect, it } from 'vitest';
import { openDocument, shellsOf, topologyOf } from '../document/document.ts';
import { connectivityOf } from '../mesh/connectivity.ts';
import type { Mesh } from '../mesh/mesh.ts';
import { modelFromMesh } from '../mesh/model.ts';
import { request } from '../operations/catalogue.ts';
import { runsOfEdges } from '../select/orderedRun.ts';
import { ringAround } from '../select/ringAround.ts';
import { edgeLength, shortestPath } from '../select/shortestPath.ts';
import { straightRing } from '../select/straightRing.ts';
import { meshOfShell } from '../surface/cutShell.ts';
import { distanceFrom } from '../surface/distanceFrom.ts';
import { shellsFromSeams } from '../surface/shells.ts';
import { after } from '../testing/acts.ts';
import { glove, head } from '../testing/sculpts.ts';
import { sheet } from '../testing/shapes.ts';
import { seeded } from '../testing/wander.ts';
import { router } from './route.ts';
import { courseOf, straightenSeam } from './straightenSeam.ts';

/** A sheet of triangles with a seam in stairs from one side to the other. */
function stairs() {
  const mesh = sheet(16, 16, (i, j) => [j, 0, i]);
  const connectivity = connectivityOf(mesh);
  const seams = new Uint8Array(connectivity.isInterior.length);
  const at = (i: number, j: number) => 17 * i + j;
  const ends = new Map<string, number>();
  connectivity.isInterior.forEach((_, e) => {
    const [a, b] = connectivity.edgeVertices.subarray(2 * e, 2 * e + 2);
    ends.set(a < b ? `${a} ${b}` : `${b} ${a}`, e);
  });
  const run: number[] = [];
  const step = (a: number, b: number) => run.push(ends.get(a < b ? `${a} ${b}` : `${b} ${a}`) as number);
  // Up and down by one row, every other column.
  let row = 8;
  for (let j = 0; j < 16; j++) {
    step(at(row, j), at(row, j + 1));
    if (j % 2 === 1 && j < 15) {
      const next = row === 8 ? 9 : 8;
      step(at(row, j + 1), at(next, j + 1));
      row = next;
    }
  }
  for (const e of run) seams[e] = 1;
  return { mesh, connectivity, seams, run };
}

describe('a seam that is straightened', () => {
  it('loses its stairs, and keeps its ends', () => {
    const { mesh, connectivity, seams, run } = stairs();
    const found = straightenSeam({ mesh, connectivity, seams }, [run[3]], (e) =>
      edgeLength(mesh, connectivity, e),
    );
    expect(found.before.turning).toBeCloseTo(14 * (Math.PI / 2), 6);
    // From the one end to the other one row on: two turns at most.
    expect(found.after.turning).toBeLessThanOrEqual(Math.PI + 1e-9);
    expect(found.after.length).toBeLessThan(found.before.length);
    const now = new Set(run.filter((e) => !found.sewn.includes(e)).concat(found.cut));
    const [fresh, ...more] = runsOfEdges(connectivity, now);
    expect(more).toEqual([]);
    const [old] = runsOfEdges(connectivity, run);
    const endsOf = ({ vertices }: typeof old) => [vertices[0], vertices[vertices.length - 1]].sort();
    expect(endsOf(fresh)).toEqual(endsOf(old));
  });

  it('crosses no other seam, and refuses what is none', () => {
    const { mesh, connectivity, seams, run } = stairs();
    // Another seam beside it, from where the stairs would be cut short.
    const wall = [...connectivity.isInterior.keys()].filter((e) => {
      const [a, b] = connectivity.edgeVertices.subarray(2 * e, 2 * e + 2);
      return [a, b].every((v) => v % 17 === 7 && Math.floor(v / 17) <= 7);
    });
    for (const e of wall) seams[e] = 1;
    const pieces = shellsFromSeams(mesh, connectivity, seams).shellCount;
    const found = straightenSeam({ mesh, connectivity, seams }, run, (e) =>
      edgeLength(mesh, connectivity, e),
    );
    for (const e of found.sewn) seams[e] = 0;
    for (const e of found.cut) seams[e] = 1;
    expect(shellsFromSeams(mesh, connectivity, seams).shellCount).toBe(pieces);
    expect(found.after.turning).toBeLessThan(found.before.turning);
    const free = [...connectivity.isInterior.keys()].find(
      (e) => !seams[e] && connectivity.isInterior[e],
    ) as number;
    expect(() => straightenSeam({ mesh, connectivity, seams }, [free], () => 1)).toThrow(/Pick a seam/);
  });

  it('is an act: the shells beside it are laid anew, once more there is nothing to do, and undo brings the stairs back', async () => {
    const { mesh, seams, run } = stairs();
    const start = { ...openDocument(modelFromMesh('Sheet', mesh)), seams };
    const flat = await after(start, request('unfold', {}));
    const straight = await after(flat, request('straighten-seams', { edges: [run[5]] }));
    expect(straight.seams).not.toEqual(flat.seams);
    expect(straight.stale.includes(1)).toBe(true);
    expect(shellsOf(straight).shellCount).toBe(2);
    const [edge] = [...straight.seams.keys()].filter(
      (e) => straight.seams[e] && topologyOf(flat.model).connectivity.isInterior[e],
    );
    const again = await after(straight, request('straighten-seams', { edges: [edge] }));
    expect(again.seams).toEqual(straight.seams);
  });
});

/** Turning of a run per length, and its length against the way straight over the surface. */
describe('ways over triangles', () => {
  const perLength = (
    mesh: Mesh,
    connectivity: ReturnType<typeof connectivityOf>,
    edges: readonly number[],
  ) => {
    const [run] = runsOfEdges(connectivity, edges);
    const { length, turning } = courseOf(mesh, connectivity, run);
    return { length, turning };
  };

  it.each([
    ['head', head(34)],
    ['glove', glove(48)],
  ])('turn much less than the shortest, and are hardly longer: %s', (_, shell) => {
    const mesh = meshOfShell(shell);
    const connectivity = connectivityOf(mesh);
    const lengths = Float64Array.from(connectivity.isInterior.keys(), (e) =>
      edgeLength(mesh, connectivity, e),
    );
    const ways = router(mesh, connectivity, lengths);
    const random = seeded(3);
    const count = mesh.positions.length / 3;
    let [raw, straight, over] = [0, 0, 0];
    let [rawLength, straightLength] = [0, 0];
    for (let i = 0; i < 12; i++) {
      const [a, b] = [Math.floor(random() * count), Math.floor(random() * count)];
      const path = shortestPath(connectivity, a, b, (e) => lengths[e]);
      const way = ways.leg(a, b) ?? [];
      if (way.length < 5) continue;
      const [one, other] = [
        perLength(mesh, connectivity, path.edgesTo(b)),
        perLength(mesh, connectivity, way),
      ];
      raw += one.turning;
      straight += other.turning;
      rawLength += one.length;
      straightLength += other.length;
      over = Math.max(over, other.length / distanceFrom(mesh.positions, shell.triangles, [a])[b]);
    }
    expect(straight / straightLength).toBeLessThan(0.75 * (raw / rawLength));
    expect(straightLength).toBeLessThan(1.03 * rawLength);
    expect(over).toBeLessThan(1.2);
  });

  it('are rings that close once, and turn less', () => {
    const mesh = meshOfShell(glove(44));
    const connectivity = connectivityOf(mesh);
    const { positions } = mesh;
    const heights = Array.from({ length: positions.length / 3 }, (_, v) => positions[3 * v + 1]);
    const top = Math.max(...heights);
    const size = top - Math.min(...heights);
    const side = heights.findIndex((y) => Math.abs(y - (top - 0.16 * size)) < 0.01 * size);
    const ring = ringAround(mesh, connectivity, side);
    const [run, ...more] = runsOfEdges(connectivity, ring);
    expect(more).toEqual([]);
    expect(run.closed).toBe(true);
    expect(run.vertices).toContain(side);
    // A ring in stairs over a sheet of quads comes out as a rectangle that stays clear of itself.
    const quads = sheet(12, 12, (i, j) => [j, 0, i]);
    const own = connectivityOf(quads);
    const stair = [40, 41, 54, 55, 68, 81, 80, 93, 92, 79, 66, 53];
    const between = (a: number, b: number) =>
      [...own.isInterior.keys()].find((e) => {
        const [p, q] = own.edgeVertices.subarray(2 * e, 2 * e + 2);
        return (p === a && q === b) || (p === b && q === a);
      });
    const edges = stair.map((v, i) => between(v, stair[(i + 1) % stair.length]) as number);
    expect(edges.every((e) => e !== undefined)).toBe(true);
    const straight = straightRing(quads, own, 40, edges, (e) => edgeLength(quads, own, e));
    const [round] = runsOfEdges(own, straight);
    expect(round.closed).toBe(true);
    expect(courseOf(quads, own, round).turning).toBeLessThanOrEqual(
      courseOf(quads, own, runsOfEdges(own, edges)[0]).turning,
    );
  });
});
