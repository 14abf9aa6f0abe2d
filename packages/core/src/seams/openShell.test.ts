import { describe, expect, it } from 'vitest';
import { connectivityOf } from '../mesh/connectivity.ts';
import type { Mesh } from '../mesh/mesh.ts';
import { edgeLength } from '../select/shortestPath.ts';
import { surfaceArea } from '../surface/areas.ts';
import { cuttable, meshOfShell } from '../surface/cutShell.ts';
import { type Shell, shellFromTriangles } from '../surface/shell.ts';
import { type ShellTopology, shellTopology } from '../surface/shellTopology.ts';
import { homologyRank } from '../testing/homology.ts';
import { torus, tube, wholeShell } from '../testing/shapes.ts';
import { surfaceNets } from '../testing/surfaceNets.ts';
import { cutGraph, systemOfLoops } from './cutGraph.ts';
import { loopClasses } from './loopClasses.ts';
import { openShell } from './openShell.ts';
import { smallHandles } from './smallHandles.ts';

/** Distance to a ring about z. */
const ring = (x: number, y: number, z: number, R: number, r: number) =>
  Math.hypot(Math.hypot(x, y) - R, z) - r;
/** Two rings side by side, grown together. */
const doubleTorus = (cells: number) =>
  surfaceNets(
    (x, y, z) => Math.min(ring(x - 1.05, y, z, 1, 0.42), ring(x + 1.05, y, z, 1, 0.42)),
    [-2.7, -1.6, -0.6],
    [2.7, 1.6, 0.6],
    cells,
  );
const ball = (cells: number) =>
  surfaceNets((x, y, z) => Math.hypot(x, y, z) - 1, [-1.2, -1.2, -1.2], [1.2, 1.2, 1.2], cells);

/** A ball with small tunnels, like those of a scan where it closed a gap: two triangles out, and a tube of six from one to the other. */
function scan(tunnels: number): Shell {
  const { positions, triangles } = ball(40);
  const at = (t: number) => [...triangles.subarray(3 * t, 3 * t + 3)];
  const middle = (t: number) =>
    [0, 1, 2].map((k) => at(t).reduce((sum, v) => sum + positions[3 * v + k] / 3, 0));
  const apart = (s: number, t: number) => Math.hypot(...middle(s).map((x, k) => x - middle(t)[k]));
  const gone = new Set<number>();
  const tube: number[] = [];
  for (let n = 0; n < tunnels; n++) {
    const s = Math.floor((n * triangles.length) / 3 / tunnels);
    const t = Array.from({ length: triangles.length / 3 }, (_, i) => i).find(
      (i) => at(i).every((v) => !at(s).includes(v)) && apart(s, i) > 0.2 && apart(s, i) < 0.25,
    ) as number;
    gone.add(s).add(t);
    const [a, b] = [at(s), at(t).reverse()];
    for (let k = 0; k < 3; k++) {
      const next = (k + 1) % 3;
      tube.push(a[k], a[next], b[next], a[k], b[next], b[k]);
    }
  }
  const kept = [...triangles].filter((_, i) => !gone.has(Math.floor(i / 3)));
  return shellFromTriangles(positions, [...kept, ...tube]);
}

const lengthIn = (shell: Shell) => (a: number, b: number) =>
  Math.hypot(...[0, 1, 2].map((k) => shell.positions[3 * a + k] - shell.positions[3 * b + k]));

/** What a shell is once it is opened, and the length of the cut over √area. */
function opened(
  shell: Shell,
  disc = false,
): ShellTopology & { readonly length: number; readonly small: number } {
  const { edges, smallHandles: small } = openShell(shell, lengthIn(shell), { disc });
  const knife = cuttable(shell);
  const isCut = new Set(edges.map(([a, b]) => [Math.min(a, b), Math.max(a, b)].join()));
  const numbers = [...knife.connectivity.isInterior.keys()].filter((e) =>
    isCut.has(knife.connectivity.edgeVertices.subarray(2 * e, 2 * e + 2).join()),
  );
  expect(numbers).toHaveLength(isCut.size);
  const whole = knife.cut(numbers);
  if (!whole) throw new Error('It fell into pieces.');
  const length = edges.reduce((sum, [a, b]) => sum + lengthIn(shell)(a, b), 0);
  return {
    ...shellTopology(whole),
    length: length / Math.sqrt(surfaceArea(shell.positions, shell.triangles)),
    small,
  };
}

const loopsOf = (mesh: Mesh, root = 0) => {
  const connectivity = connectivityOf(mesh);
  const system = systemOfLoops(mesh, connectivity, root, (e) => edgeLength(mesh, connectivity, e));
  const { closing, paths } = system;
  const loops = closing.map((e) => [
    e,
    ...paths.edgesTo(connectivity.edgeVertices[2 * e]),
    ...paths.edgesTo(connectivity.edgeVertices[2 * e + 1]),
  ]);
  return { connectivity, system, loops };
};

describe('a system of loops', () => {
  it.each([
    ['a ball', ball(12), 0],
    ['a torus', wholeShell(torus(16, 12)), 1],
    ['a double torus', doubleTorus(40), 2],
  ] as const)('has two independent loops for every handle of %s', (_, shell, genus) => {
    const mesh = meshOfShell(shell);
    const { connectivity, loops } = loopsOf(mesh);
    expect(shellTopology(shell)).toMatchObject({ genus, borderCount: 0 });
    expect(loops).toHaveLength(2 * genus);
    expect(homologyRank(mesh, connectivity, loops)).toBe(2 * genus);
    // As many as Euler's formula has it: χ = 2 − 2 g.
    const vertices = new Set(mesh.cornerVertex).size;
    expect(vertices - connectivity.isInterior.length + shell.triangles.length / 3).toBe(2 - 2 * genus);
  });

  it('is, on a torus, once round and once across (common practice), the shorter of those there are', () => {
    const mesh = torus(16, 12);
    const { connectivity, system } = loopsOf(mesh, 6);
    const edges = cutGraph(connectivity, system);
    // From the inner rim: 16 edges round the hole, 12 round the tube.
    expect(edges).toHaveLength(28);
    const vertices = new Set(edges.flatMap((e) => [...connectivity.edgeVertices.subarray(2 * e, 2 * e + 2)]));
    expect([...vertices].filter((v) => v % 12 === 6)).toHaveLength(16);
  });
});

describe('classes of loops', () => {
  it('cancel round faces, and not along the loops of the system', () => {
    const mesh = meshOfShell(doubleTorus(30));
    const { connectivity, system, loops } = loopsOf(mesh);
    const classOf = loopClasses(system, connectivity.isInterior.length);
    const total = (edges: Iterable<number>) => [...edges].reduce((sum, e) => sum ^ classOf[e], 0);
    for (let c = 0; c < connectivity.cornerEdge.length; c += 3)
      expect(total(connectivity.cornerEdge.subarray(c, c + 3))).toBe(0);
    const numbers = loops.map(total);
    expect(new Set([0, ...numbers]).size).toBe(1 + loops.length);
  });
});

describe('opening', () => {
  it('makes one disc of every closed piece, with seams no longer than need be', () => {
    const two = doubleTorus(40);
    expect(opened(wholeShell(torus(16, 12)))).toMatchObject({ kind: 'disk' });
    const result = opened(two);
    expect(result).toMatchObject({ kind: 'disk', small: 0 });
    // Two loops of the tube and two round the holes, tube of 0.42, holes of 0.58, and the way between them.
    expect(result.length).toBeLessThan(3.2);
    expect(opened(tube(12, 10, 3) as Shell, true)).toMatchObject({ kind: 'disk' });
  });

  it('leaves holes as they are beside a handle, but joins them where a disc is asked for', () => {
    const mesh = torus(16, 12);
    const without = (faces: readonly number[]): Mesh => ({
      ...mesh,
      faceStart: mesh.faceStart.slice(0, 16 * 12 + 1 - faces.length),
      cornerVertex: Uint32Array.from(mesh.cornerVertex.filter((_, c) => !faces.includes(Math.floor(c / 4)))),
    });
    const holed = wholeShell(without([3, 100]));
    expect(shellTopology(holed)).toMatchObject({ kind: 'withHandle', borderCount: 2 });
    expect(opened(holed).canUnfold).toBe(true);
    expect(opened(holed, true)).toMatchObject({ kind: 'disk' });
  });

  it('opens small tunnels of a scan by a ring each, and then the ball that is left', () => {
    const shell = scan(5);
    expect(shellTopology(shell)).toMatchObject({ kind: 'closed', genus: 5 });
    const rings = smallHandles(shell);
    expect(rings).toHaveLength(5);
    for (const { length } of rings) expect(length).toBeLessThan(0.08 * Math.sqrt(4 * Math.PI));
    const result = opened(shell);
    expect(result).toMatchObject({ genus: 0, small: 5, canUnfold: true });
    expect(result.kind).not.toBe('pinholes');
    // A way from tip to tip, and five rings: no way to each of them.
    expect(result.length).toBeLessThan(2.5);
    expect(smallHandles(doubleTorus(40))).toEqual([]);
  });

  it('tells what is closed but for a pinhole, and opens it as a ball', () => {
    const whole = ball(60);
    const holed = { ...whole, triangles: whole.triangles.slice(3) };
    const topology = shellTopology(holed);
    expect(topology).toMatchObject({ kind: 'pinholes', canUnfold: true });
    expect(topology.sentence).toMatch(/^Closed but for a small hole/);
    expect(opened(holed).kind).toMatch(/annulus|disk/);
  });
});
