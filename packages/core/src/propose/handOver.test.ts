import { describe, expect, it } from 'vitest';
import { connectivity, findEdge } from '../mesh/connectivity.ts';
import { coarseSurface } from '../surface/coarseSurface.ts';
import { shellsFromSeams } from '../surface/shells.ts';
import { sheet, wholeShell } from '../testing/shapes.ts';
import { componentsOf, facesUnder, handOver } from './handOver.ts';

/** Four by four quads, cut in two halves along the middle column of vertices. */
const mesh = sheet(4, 4, (i, j) => [j, i, 0]);
const links = connectivity(mesh);
const edge = (a: number, b: number) => findEdge(links, a, b);
const seams = new Uint8Array(links.joined.length);
for (let i = 0; i < 4; i++) seams[edge(5 * i + 2, 5 * i + 7)] = 1;
const { faceShell } = shellsFromSeams(mesh, links, seams);
const take = (faces: number[], isFree = (_: number) => true) =>
  handOver(mesh, links, seams, faceShell, new Set(faces), isFree);
const after = (faces: number[]) => {
  const { cut = [], sewn = [] } = take(faces) ?? {};
  const next = seams.slice();
  for (const e of cut) next[e] = 1;
  for (const e of sewn) next[e] = 0;
  return shellsFromSeams(mesh, links, next);
};

describe('faces at a seam', () => {
  it('are taken over to its other side, and the seam runs round them', () => {
    // The second quad of the second row, left of the seam.
    const { cut, sewn } = take([5]) ?? {};
    expect(new Set(cut)).toEqual(new Set([edge(6, 7), edge(11, 12), edge(6, 11)]));
    expect(sewn).toEqual([edge(7, 12)]);
    const shells = after([5]);
    expect(shells.shellCount).toBe(2);
    expect(shells.faceShell[5]).toBe(shells.faceShell[6]);
    expect(shells.faceShell[5]).not.toBe(shells.faceShell[4]);
  });

  it('are left where no seam is, or none that may be sewn', () => {
    expect(take([4])).toBeUndefined();
    expect(take([5], () => false)).toBeUndefined();
  });

  it('go to the side with which they share most', () => {
    // A third shell: the two quads right of the seam in the first row.
    const three = seams.slice();
    for (const e of [edge(7, 8), edge(8, 9)]) three[e] = 1;
    const map = shellsFromSeams(mesh, links, three);
    expect(map.shellCount).toBe(3);
    // Of the second column three quads: one lies beside the third shell, two beside the second.
    const { sewn } = handOver(mesh, links, three, map.faceShell, new Set([1, 5, 9]), () => true) ?? {};
    expect(new Set(sewn)).toEqual(new Set([edge(7, 12), edge(12, 17)]));
  });

  it('are told apart where they do not hang together', () => {
    const parts = componentsOf(mesh, links, seams, new Set([0, 1, 2, 10]));
    // The seam parts the second and the third of the first row.
    expect(parts.map((part) => [...part])).toEqual([[0, 1], [2], [10]]);
  });

  it('are those that a coarse triangle lies over, on its own side of a cut', () => {
    const shell = wholeShell(mesh);
    const surface = coarseSurface(shell, Infinity);
    // Triangles as they are: each stands for its own face.
    const faces = [0, 5, 31].map((t) => [...facesUnder(shell, surface, [t], 0.5)]);
    expect(faces).toEqual([0, 5, 31].map((t) => [shell.triangleFace[t]]));
    expect(facesUnder(shell, surface, [9], 1.01).size).toBeGreaterThan(1);
  });
});
