import { describe, expect, it } from 'vitest';
import { connectivityOf } from '../src/mesh/connectivity.ts';
import type { Mesh } from '../src/mesh/mesh.ts';
import { cutGraph, systemOfLoops } from '../src/seams/cutGraph.ts';
import { shortestPath } from '../src/select/shortestPath.ts';
import { cuttable } from '../src/surface/cutShell.ts';
import { shellTopology } from '../src/surface/shellTopology.ts';
import { homologyRank } from '../src/testing/homology.ts';
import { torus, wholeShell } from '../src/testing/shapes.ts';
import { openModels } from './openModels.ts';

/** The first Betti number modulo 2: the rank of all loops that one edge closes over a spanning tree, by elimination alone. */
function firstBetti(mesh: Mesh): number {
  const connectivity = connectivityOf(mesh);
  const start = mesh.cornerVertex[0];
  const { via, edgesTo } = shortestPath(connectivity, start, undefined, () => 1);
  const inTree = new Set(via);
  const loops = [...connectivity.isInterior.keys()]
    .filter((e) => !inTree.has(e))
    .map((e) => [
      e,
      ...edgesTo(connectivity.edgeVertices[2 * e]),
      ...edgesTo(connectivity.edgeVertices[2 * e + 1]),
    ]);
  return homologyRank(mesh, connectivity, loops);
}

const without = (mesh: Mesh, gone: readonly number[], sides: number): Mesh => ({
  ...mesh,
  faceStart: mesh.faceStart.slice(0, -gone.length),
  cornerVertex: mesh.cornerVertex.filter((_, c) => !gone.includes(Math.floor(c / sides))),
});

describe('systems of loops, beside ranks of homology by elimination', () => {
  it.each([
    ['the bunny (npm `bunny`), which is closed and has no handle', openModels.bunny(), 3, [], 0],
    ['the bunny with three holes', openModels.bunny(), 3, [100, 1100, 2100], 2],
    ['a torus', torus(16, 12), 4, [], 2],
    ['a torus with two holes', torus(16, 12), 4, [5, 90], 3],
  ] as const)('of %s', (_, whole, sides, gone, rank) => {
    const mesh = gone.length > 0 ? without(whole, gone, sides) : whole;
    expect(firstBetti(mesh)).toBe(rank);
    // A surface with borders has as many ways between them and round its handles as it has loops.
    const shell = wholeShell(mesh);
    const knife = cuttable(shell);
    const system = systemOfLoops(knife.mesh, knife.connectivity, 0, () => 1, true);
    expect(system.closing).toHaveLength(rank);
    const opened = knife.cut(cutGraph(knife.connectivity, system));
    expect(opened && shellTopology(opened)).toMatchObject({ genus: 0, borderCount: rank > 0 ? 1 : 0 });
  });
});
