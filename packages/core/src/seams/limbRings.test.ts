import { describe, expect, it } from 'vitest';
import { connectivityOf } from '../mesh/connectivity.ts';
import type { Mesh } from '../mesh/mesh.ts';
import { unattended } from '../progress.ts';
import { connectedFaces } from '../select/connected.ts';
import { edgeLength } from '../select/shortestPath.ts';
import { meshOfShell } from '../surface/cutShell.ts';
import type { Shell } from '../surface/shell.ts';
import { counterparts } from '../symmetry/counterparts.ts';
import { acrossAxis, isometryOf } from '../symmetry/findSymmetry.ts';
import { beast, glove, LEG } from '../testing/sculpts.ts';
import { sheet, sphericalCap, tube, wholeShell } from '../testing/shapes.ts';
import { limbRings } from './limbRings.ts';
import { limbs } from './limbs.ts';

const ringsOf = (shell: Shell, mirrored = false) => {
  const mesh = meshOfShell(shell);
  const connectivity = connectivityOf(mesh);
  const pairs = mirrored ? counterparts(mesh, connectivity, isometryOf(acrossAxis('x'))) : undefined;
  const seams = new Uint8Array(connectivity.isInterior.length);
  return {
    mesh,
    connectivity,
    pairs,
    rings: limbRings({ mesh, connectivity, seams, shell, pairs }, unattended),
  };
};

/** Mean of the vertices of some faces. */
function middleOf({ faceStart, cornerVertex, positions }: Mesh, faces: readonly number[]): number[] {
  const corners = faces.flatMap((f) => [...cornerVertex.subarray(faceStart[f], faceStart[f + 1])]);
  return [0, 1, 2].map((k) => corners.reduce((sum, v) => sum + positions[3 * v + k], 0) / corners.length);
}

describe('limbs', () => {
  it('are cut off where they join the body: each leg of a beast by one ring, as long as it is round', () => {
    const { mesh, connectivity, rings } = ringsOf(beast(48));
    expect(rings).toHaveLength(4);
    const round = 2 * Math.PI * LEG.radius;
    const places = rings.map((ring) => {
      const length = ring.reduce((sum, e) => sum + edgeLength(mesh, connectivity, e), 0);
      // Along edges a ring is longer than the circle, by up to the 1.08 of a diagonal grid, and longer where a leg widens into the body.
      expect(length).toBeGreaterThan(0.98 * round);
      expect(length).toBeLessThan(1.3 * round);
      const closed = new Set(ring);
      const start = connectivity.cornerFace[connectivity.edgeCorners[connectivity.edgeCornerStart[ring[0]]]];
      const one = connectedFaces(
        mesh,
        connectivity,
        [start],
        (e) => connectivity.isInterior[e] === 1 && !closed.has(e),
      );
      const all = mesh.faceStart.length - 1;
      const inside = new Set(one);
      const leg = one.length < all / 2 ? one : [...Array(all).keys()].filter((f) => !inside.has(f));
      const [x, y, z] = middleOf(mesh, leg);
      expect(y).toBeLessThan(-0.6);
      expect(leg.length / all).toBeLessThan(0.16);
      return `${Math.sign(x)} ${Math.sign(z)}`;
    });
    expect(new Set(places).size).toBe(4);
  });

  it('bring their images where a mesh is symmetric, so that two tips find two pairs', () => {
    const { connectivity, pairs, rings } = ringsOf(beast(36), true);
    expect(rings).toHaveLength(2);
    for (const ring of rings) {
      const own = new Set(ring);
      for (const e of ring) expect(own.has(pairs?.edges[e] ?? -1)).toBe(true);
      for (const e of ring) expect(connectivity.isInterior[e]).toBe(1);
    }
  });

  it('are the thumb and the fingers of a glove, whose palm is the body', () => {
    const found = limbs(glove(40), unattended);
    expect(found.length).toBeGreaterThanOrEqual(4);
    // A finger is 0.17 to 0.24 thick and 2 long.
    for (const { round, distance } of found) {
      expect(round / (2 * Math.PI)).toBeLessThan(0.45);
      expect(distance).toBeGreaterThan(1);
    }
  });

  it('are found on nothing that is round, flat or straight throughout', () => {
    for (const shell of [
      sphericalCap(24, 32, 0.9 * Math.PI),
      wholeShell(sheet(20, 20, (i, j) => [j, i, 0])),
      tube(40, 16, 12),
    ])
      expect(ringsOf(shell).rings).toEqual([]);
  });
});
