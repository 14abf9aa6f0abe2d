import { describe, expect, it } from 'vitest';
import { hasPeer, peerArap, peerLscm } from '../../../bench/peer/peer.ts';
import { openDocument, shellOf, shellsOf, topologyOf } from '../src/document/document.ts';
import { modelFromMesh } from '../src/mesh/model.ts';
import { unattended } from '../src/progress.ts';
import { energy } from '../src/relax/distortion.ts';
import { relax } from '../src/relax/relax.ts';
import { borders } from '../src/surface/borders.ts';
import { triangleArea } from '../src/surface/flatArea.ts';
import { restTriangles } from '../src/surface/restTriangles.ts';
import type { Shell } from '../src/surface/shell.ts';
import { apart } from '../src/testing/apart.ts';
import { sheet, sphericalCap, wholeShell } from '../src/testing/shapes.ts';
import { farthestPair } from '../src/unfold/farthestPair.ts';
import { unfoldShell } from '../src/unfold/unfold.ts';
import { openModels } from './openModels.ts';

/**
 * Against an independent implementation: CGAL's Surface_mesh_parameterization (Saboret, Alliez, Lévy; here version 5.5
 * of Debian's libcgal-dev), compiled by bench/peer. Its LSCM weighs a triangle by its area squared, so maps agree
 * only where both are exact; elsewhere energies are compared, measured alike on both.
 */

/** The conformal energy of Lévy et al. 2002, from its definition: half the area times |∂f/∂x + i ∂f/∂y|². */
function conformalEnergy(shell: Shell, uv: Float64Array): number {
  const { positions: p, triangles } = shell;
  let sum = 0;
  for (let t = 0; t < triangles.length; t += 3) {
    const [a, b, c] = triangles.subarray(t, t + 3);
    const side = (i: number, j: number) => [0, 1, 2].map((k) => p[3 * j + k] - p[3 * i + k]);
    const [e, f] = [side(a, b), side(a, c)];
    const x2 = Math.hypot(...e);
    const x3 = (e[0] * f[0] + e[1] * f[1] + e[2] * f[2]) / x2;
    const y3 = Math.sqrt(f[0] ** 2 + f[1] ** 2 + f[2] ** 2 - x3 * x3);
    const [ux, vx] = [uv[2 * b] - uv[2 * a], uv[2 * b + 1] - uv[2 * a + 1]].map((d) => d / x2);
    const [uy, vy] = [0, 1].map((k) => (uv[2 * c + k] - uv[2 * a + k] - [ux, vx][k] * x3) / y3);
    sum += 0.25 * x2 * y3 * ((ux - vy) ** 2 + (uy + vx) ** 2);
  }
  return sum;
}

const flips = ({ triangles }: Shell, uv: Float64Array): number => {
  let count = 0;
  for (let t = 0; t < triangles.length / 3; t++) if (!(triangleArea(triangles, uv, t) > 0)) count++;
  return count;
};

/** The part of the bunny in front of a plane, its largest piece: strongly curved. */
function bunnyHalf(): Shell {
  const mesh = openModels.bunny();
  const opened = openDocument(modelFromMesh('bunny', mesh));
  const { connectivity } = topologyOf(opened.model);
  const inFront = (face: number) =>
    [0, 1, 2].reduce((sum, k) => sum + mesh.positions[3 * mesh.cornerVertex[3 * face + k] + 2], 0) > 0;
  const seams = connectivity.isInterior.map((_, e) => {
    const [a, b] = [0, 1].map(
      (k) => connectivity.cornerFace[connectivity.edgeCorners[connectivity.edgeCornerStart[e] + k]],
    );
    return inFront(a) !== inFront(b) ? 1 : 0;
  });
  const document = { ...opened, seams };
  const shells = Array.from({ length: shellsOf(document).shellCount }, (_, s) => shellOf(document, s));
  return shells
    .filter((shell) => inFront(shell.triangleFace[0]))
    .sort((a, b) => b.triangles.length - a.triangles.length)[0];
}

const hills = wholeShell(
  sheet(20, 20, (i, j) => [
    j,
    i,
    7 * Math.exp(-((i - 7) ** 2 + (j - 8) ** 2) / 9) + 5 * Math.exp(-((i - 14) ** 2 + (j - 14) ** 2) / 7),
  ]),
);
const rolled = wholeShell(sheet(8, 24, (i, j) => [Math.sin(j / 5), i / 4, Math.cos(j / 5)]));
const cone = wholeShell(
  sheet(6, 30, (i, j) => {
    const [r, a] = [1 + i / 4, (-1.9 * Math.PI * j) / 30];
    return [r * Math.cos(a), -1.5 * r, r * Math.sin(a)];
  }),
);
const curved: [name: string, shell: Shell][] = [
  ['cap', sphericalCap(10, 30, 2)],
  ['hills', hills],
  ['bunny', bunnyHalf()],
];

const farthest = (shell: Shell) =>
  farthestPair(shell.positions, borders(shell.triangles, shell.positions.length / 3).loops[0]);

describe.skipIf(!hasPeer())('against CGAL', () => {
  it.each(curved)('%s: on the same pins our map has no higher conformal energy', (_, shell) => {
    const pair = farthest(shell);
    const theirs = peerLscm(shell, pair, 'ldlt').uv;
    const pins = { vertices: pair, uv: pair.flatMap((v) => [theirs[2 * v], theirs[2 * v + 1]]) };
    const ours = unfoldShell(shell, 'conformal', unattended, { pins });
    expect(flips(shell, ours.uv)).toBe(0);
    if (!ours.repaired) {
      expect(conformalEnergy(shell, ours.uv)).toBeLessThanOrEqual(
        conformalEnergy(shell, theirs) * (1 + 1e-9),
      );
    }
  });

  it.each([
    ['rolled sheet', rolled],
    ['cone', cone],
  ])('%s: both maps are the same up to a similarity', (_, shell) => {
    const theirs = peerLscm(shell, farthest(shell), 'ldlt').uv;
    for (const method of ['conformal', 'angle-based'] as const) {
      expect(apart(unfoldShell(shell, method, unattended).uv, theirs)).toBeLessThan(1e-5);
    }
  });

  it.each(curved)('%s: relaxed, it has a lower energy than as rigid as possible, and no flip', (_, shell) => {
    const rest = restTriangles(shell.positions, shell.triangles);
    const theirs = peerArap(shell, 50, 'lu').uv;
    const mirrored = theirs.map((x, i) => (i & 1 ? -x : x));
    const ours = relax(shell, unfoldShell(shell, 'conformal', unattended).uv, {}, unattended);
    expect(flips(shell, ours.uv)).toBe(0);
    const peerEnergy = Math.min(
      energy(shell.triangles, rest, theirs),
      energy(shell.triangles, rest, mirrored),
    );
    expect(ours.energyAfter).toBeLessThan(peerEnergy);
  });

  it('knows a shell on which the peer flips faces and we do not', () => {
    const shell = sphericalCap(24, 40, 3);
    const theirs = peerArap(shell, 50, 'lu').uv;
    const flipped = Math.min(
      flips(shell, theirs),
      flips(
        shell,
        theirs.map((x, i) => (i & 1 ? -x : x)),
      ),
    );
    expect(flipped).toBeGreaterThan(0);
    expect(
      flips(shell, relax(shell, unfoldShell(shell, 'conformal', unattended).uv, {}, unattended).uv),
    ).toBe(0);
  });
});
