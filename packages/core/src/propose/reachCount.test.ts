import { describe, expect, it } from 'vitest';
import { openDocument, shellOf, shellsOf, topologyOf } from '../document/document.ts';
import { localJobs } from '../jobs/index.ts';
import { connectivityOf } from '../mesh/connectivity.ts';
import { type Mesh, meshFromPolygons } from '../mesh/mesh.ts';
import { modelFromMesh } from '../mesh/model.ts';
import { triangulate } from '../mesh/triangulate.ts';
import { request } from '../operations/catalogue.ts';
import { unattended } from '../progress.ts';
import { answerQuestion } from '../questions/index.ts';
import { edgeLength } from '../select/shortestPath.ts';
import { meshOfShell } from '../surface/cutShell.ts';
import { extractShell, faceTriangleStart } from '../surface/shell.ts';
import { shellsFromSeams } from '../surface/shells.ts';
import { shellTopology } from '../surface/shellTopology.ts';
import { after } from '../testing/acts.ts';
import { beast } from '../testing/sculpts.ts';
import { cube, torus } from '../testing/shapes.ts';
import { predict } from './predict.ts';
import { reachCount } from './reachCount.ts';

async function proposed(mesh: Mesh, asked: object) {
  const document = openDocument(modelFromMesh('model', mesh));
  const told = await answerQuestion(document, 'proposal', asked as never, {
    ...unattended,
    jobs: localJobs,
  });
  return { told, cut: await after(document, request('cut', { edges: told.edges })) };
}

/** A cube that is cut along every edge. */
function cubeInSquares() {
  const mesh = cube();
  const connectivity = connectivityOf(mesh);
  const triangulation = triangulate(mesh);
  const lengths = Float64Array.from(connectivity.isInterior.keys(), (e) => edgeLength(mesh, connectivity, e));
  return {
    mesh,
    connectivity,
    triangulation,
    triangleStart: faceTriangleStart(mesh, triangulation),
    now: new Uint8Array(12).fill(1),
    seams: new Uint8Array(12),
    pairs: undefined,
    costs: lengths,
    lengths,
  };
}

describe('a wished number of shells', () => {
  it('is reached on a cube, from one shell to one for each face', async () => {
    for (const pieces of [1, 2, 3, 6]) {
      const { told, cut } = await proposed(cube(), { stretch: 1.005, symmetric: 'none', pieces });
      expect(shellsOf(cut).shellCount).toBe(pieces);
      expect(told.shells).toHaveLength(pieces);
    }
  });

  it('counts what is cut up, not crumbs that lie about', async () => {
    const { positions, faceStart, cornerVertex } = cube();
    const points = Array.from({ length: 8 }, (_, v) => [...positions.subarray(3 * v, 3 * v + 3)]);
    const faces = Array.from({ length: 6 }, (_, f) => [
      ...cornerVertex.subarray(faceStart[f], faceStart[f + 1]),
    ]);
    for (let i = 0; i < 5; i++) {
      const first = points.length;
      points.push([5 + i, 0, 0], [5.5 + i, 0, 0], [5 + i, 0.5, 0]);
      faces.push([first, first + 1, first + 2]);
    }
    const mesh = meshFromPolygons(points, faces);
    const { told, cut } = await proposed(mesh, { stretch: 1.005, symmetric: 'none', pieces: 3 });
    expect(told.shells).toHaveLength(3);
    expect(shellsOf(cut).shellCount).toBe(8);
  });

  it('gives shells that can lie flat, none of them a splinter, whether more or fewer are wished for', async () => {
    const mesh = meshOfShell(beast(24));
    const faces = mesh.faceStart.length - 1;
    for (const [asked, pieces] of [
      [{ pieces: 5 }, 5],
      [{ pieces: 8, limbs: true }, 8],
      [{ pieces: 2, stretch: 1.02 }, 2],
    ] as const) {
      const { cut } = await proposed(mesh, { symmetric: 'none', ...asked });
      const { shellCount } = shellsOf(cut);
      expect(shellCount).toBe(pieces);
      for (let s = 0; s < shellCount; s++) {
        const shell = shellOf(cut, s);
        expect(shellTopology(shell).kind).toBe('disk');
        expect(shell.triangleFace.length).toBeGreaterThan(0.01 * faces);
      }
    }
  });

  it('joins two neighbours at a time, those first that stretch least together', () => {
    for (const pieces of [5, 3, 1]) {
      const work = cubeInSquares();
      const { mesh, connectivity, triangulation, triangleStart } = work;
      reachCount(work, new Uint8Array(6).fill(1), pieces, unattended);
      const shells = shellsFromSeams(mesh, connectivity, work.now);
      expect(shells.shellCount).toBe(pieces);
      // Six squares hang together flat by five edges (common practice: seven of the twelve are cut); with a little stretch by a few more.
      const cut = work.now.filter((c) => c === 1).length;
      expect(cut).toBeLessThanOrEqual(7 + pieces - 1);
      expect(cut).toBeGreaterThanOrEqual(4 + pieces - 1);
      for (let s = 0; s < pieces; s++) {
        const shell = extractShell(mesh, triangulation, triangleStart, shells, s);
        expect(predict(shell, unattended).l2).toBeLessThan(1.15);
      }
    }
  });

  it('is reached though more stretch comes of it, which is told', async () => {
    const [many, few] = await Promise.all(
      [{}, { pieces: 1 }].map((asked) =>
        proposed(torus(12, 8), { stretch: 1.005, view: 'all round', ...asked }),
      ),
    );
    expect(many.told.shells).toHaveLength(2);
    expect(few.told.shells).toHaveLength(1);
    expect(few.told.length).toBeLessThan(many.told.length);
    expect(few.told.shells[0].l2).toBeGreaterThan(1.005);
  });

  it('keeps what was reached when it is stopped', () => {
    const work = cubeInSquares();
    let reports = 0;
    const signal = {
      get aborted() {
        return reports > 2;
      },
    };
    reachCount(work, new Uint8Array(6).fill(1), 1, { signal, report: () => reports++ });
    expect(shellsFromSeams(work.mesh, work.connectivity, work.now).shellCount).toBe(4);
  });

  it('keeps both sides alike where the model is symmetric', async () => {
    const { told, cut } = await proposed(meshOfShell(beast(24)), { pieces: 6, limbs: true });
    expect(told.symmetric).toBeGreaterThan(0.9);
    expect(Math.abs(shellsOf(cut).shellCount - 6)).toBeLessThanOrEqual(1);
    expect(topologyOf(cut.model).connectivity.isInterior.length).toBe(cut.seams.length);
  });
});
