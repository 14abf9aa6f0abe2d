import { describe, expect, it } from 'vitest';
import { connectivityOf, findEdge } from '../mesh/connectivity.ts';
import { triangulate } from '../mesh/triangulate.ts';
import { unattended } from '../progress.ts';
import { faceTriangleStart } from '../surface/shell.ts';
import { shellsFromSeams } from '../surface/shells.ts';
import { sheet } from '../testing/shapes.ts';
import type { CutUp } from './cutUp.ts';
import { sewSmall } from './sewSmall.ts';

const [rings, sectors] = [12, 24];
/** A tube of quads, cut lengthwise along some columns of vertices. */
function cutTube(columns: readonly number[], radius = (_: number) => 1): CutUp {
  const flat = sheet(rings, sectors, (i, j) => {
    const a = (2 * Math.PI * j) / sectors;
    return [radius(i) * Math.cos(a), radius(i) * Math.sin(a), (4 * i) / rings];
  });
  // The last column is the first.
  const at = (v: number) => (v % (sectors + 1) === sectors ? v - sectors : v);
  const mesh = { ...flat, cornerVertex: flat.cornerVertex.map(at) };
  const connectivity = connectivityOf(mesh);
  const triangulation = triangulate(mesh);
  const now = new Uint8Array(connectivity.isInterior.length);
  for (const j of columns)
    for (let i = 0; i < rings; i++)
      now[findEdge(connectivity, i * (sectors + 1) + j, (i + 1) * (sectors + 1) + j)] = 1;
  return {
    mesh,
    connectivity,
    triangulation,
    triangleStart: faceTriangleStart(mesh, triangulation),
    now,
    seams: new Uint8Array(now.length),
    pairs: undefined,
  };
}
const countOf = ({ mesh, connectivity, now }: CutUp) => shellsFromSeams(mesh, connectivity, now).shellCount;
const sewn = (work: CutUp, most = 1.05) => {
  const wanted = new Uint8Array(rings * sectors).fill(1);
  sewSmall(work, wanted, { most, smallest: 0.01 }, unattended);
  return work.now.reduce((sum, cut) => sum + cut, 0);
};

describe('small shells', () => {
  it('are joined along one run, where all that they share would close the tube', () => {
    const work = cutTube([3, 5]);
    expect(countOf(work)).toBe(2);
    expect(sewn(work)).toBe(rings);
    expect(countOf(work)).toBe(1);
  });

  it('stay by themselves where they are not small, and at seams that stay', () => {
    expect(sewn(cutTube([3, 12]))).toBe(2 * rings);
    const held = cutTube([3, 5]);
    held.seams.set(held.now);
    expect(sewn(held)).toBe(2 * rings);
  });

  it('stay by themselves where both together would stretch too much', () => {
    // A vase opened into two strips, the narrow one of which is a gore that the wide one lacks to lie flat.
    const vase = () => cutTube([3, 6], (i) => 0.4 + 1.2 * Math.sin((Math.PI * i) / rings));
    expect(sewn(vase(), 1.0005)).toBe(2 * rings);
    expect(sewn(vase(), 2)).toBe(rings);
  });
});
