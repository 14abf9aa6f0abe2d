import { applyDelta } from '@blunt-hem/core/document/delta';
import { openDocument, shellOf, shellsOf, shellUv } from '@blunt-hem/core/document/document';
import { overlappingFaces } from '@blunt-hem/core/document/overlappingFaces';
import { patientOf } from '@blunt-hem/core/document/patient';
import { readModel } from '@blunt-hem/core/formats/readModel';
import { examine } from '@blunt-hem/core/health/examine';
import { measureStretch } from '@blunt-hem/core/measure/stretch';
import { connectivityOf, findEdge } from '@blunt-hem/core/mesh/connectivity';
import { boundingBox, faceCount, type Mesh, meshFromPolygons, vertexCount } from '@blunt-hem/core/mesh/mesh';
import { type Model, modelFromMesh } from '@blunt-hem/core/mesh/model';
import { faceNormal } from '@blunt-hem/core/mesh/normals';
import { carryOut, request } from '@blunt-hem/core/operations/catalogue';
import { localContext } from '@blunt-hem/core/operations/localContext';
import { unattended } from '@blunt-hem/core/progress';
import { answerQuestion } from '@blunt-hem/core/questions/index';
import { invertedTriangles } from '@blunt-hem/core/relax/removeInversions';
import { limbRings } from '@blunt-hem/core/seams/limbRings';
import { connectedFaces } from '@blunt-hem/core/select/connected';
import { edgeLoop } from '@blunt-hem/core/select/edgeLoop';
import { edgeLength } from '@blunt-hem/core/select/shortestPath';
import { anyDiagonal } from '@blunt-hem/core/surface/anyDiagonal';
import { shellTopology } from '@blunt-hem/core/surface/shellTopology';
import { counterparts } from '@blunt-hem/core/symmetry/counterparts';
import { acrossAxis, isometryOf } from '@blunt-hem/core/symmetry/findSymmetry';
import { after } from '@blunt-hem/core/testing/acts';
import { wholeShell } from '@blunt-hem/core/testing/shapes';
import { describe, expect, it } from 'vitest';
import { edgeKey } from './cage.ts';
import { gourdLantern } from './gourdLantern.ts';
import { heronHood } from './heronHood.ts';
import { mooringPost } from './mooringPost.ts';
import { puntThwart, reedPunt } from './reedPunt.ts';
import { toadFerryman } from './toadFerryman.ts';

/** Volume by the divergence theorem: positive when faces look outward. */
function volume(mesh: Mesh): number {
  let sum = 0;
  for (let f = 0; f < faceCount(mesh); f++) {
    const n = faceNormal(mesh, f);
    const p = 3 * mesh.cornerVertex[mesh.faceStart[f]];
    for (let k = 0; k < 3; k++) sum += (n[k] * mesh.positions[p + k]) / 6;
  }
  return sum;
}

describe('toad ferryman', () => {
  const { mesh, seams } = toadFerryman();
  const connectivity = connectivityOf(mesh);

  it('is one closed figure of some 6 000 to 9 000 quads, the right way out', () => {
    expect(faceCount(mesh)).toBeGreaterThan(6000);
    expect(faceCount(mesh)).toBeLessThan(9000);
    expect(mesh.cornerVertex.length).toBe(4 * faceCount(mesh));
    expect(connectivity.isInterior.every((isInterior) => isInterior === 1)).toBe(true);
    // Euler characteristic 2: a ball.
    expect(vertexCount(mesh) - connectivity.isInterior.length + faceCount(mesh)).toBe(2);
    expect(volume(mesh)).toBeGreaterThan(5);
  });

  it('is symmetric', () => {
    // Off the middle of the lattice, so that no coordinate lies on the border between two keys.
    const key = (...point: number[]) => point.map((x) => Math.round(1e6 * x + 0.123)).join(' ');
    const { positions: p } = mesh;
    const sides: [Set<string>, Set<string>] = [new Set(), new Set()];
    for (let i = 0; i < p.length; i += 3) {
      if (Math.abs(p[i]) > 1e-6) sides[p[i] > 0 ? 0 : 1].add(key(Math.abs(p[i]), p[i + 1], p[i + 2]));
    }
    expect(sides[0].size).toBeGreaterThan(3000);
    expect(sides[0]).toEqual(sides[1]);
  });

  it('has four legs that can be cut off whole, with no splinter and no toe by itself', () => {
    const pairs = counterparts(mesh, connectivity, isometryOf(acrossAxis('x')));
    const shell = shellOf(openDocument(modelFromMesh('toad', mesh), { keepUvs: false }), 0);
    const rings = limbRings(
      { mesh, connectivity, seams: new Uint8Array(connectivity.isInterior.length), shell, pairs },
      unattended,
    );
    expect(rings).toHaveLength(2);
    const closed = new Set(rings.flat());
    const left = new Set(Array(faceCount(mesh)).keys());
    const parts: number[] = [];
    for (const f of left) {
      const part = connectedFaces(
        mesh,
        connectivity,
        [f],
        (e) => connectivity.isInterior[e] === 1 && !closed.has(e),
      );
      for (const each of part) left.delete(each);
      parts.push(part.length);
    }
    parts.sort((a, b) => b - a);
    expect(parts).toHaveLength(5);
    // Hind legs and forelegs, each pair alike.
    expect(parts[1]).toBe(parts[2]);
    expect(parts[3]).toBe(parts[4]);
    expect(parts[4]).toBeGreaterThan(0.05 * faceCount(mesh));
  });

  it('gets seams proposed that are shorter than those by hand, stretch less and lie clear', async () => {
    const model = modelFromMesh('toad', mesh);
    const byHand = seams.reduce(
      (sum, [a, b]) => sum + edgeLength(mesh, connectivity, findEdge(connectivity, a, b)),
      0,
    );
    const document = openDocument(model, { keepUvs: false });
    const told = await answerQuestion(document, 'proposal', { view: 'all round' }, localContext);
    expect(told.length).toBeLessThan(0.95 * byHand);
    expect(told.hidden).toBeGreaterThan(0.7);
    expect(told.symmetric).toBe(1);
    for (const { l2, liesOnItself } of told.shells) {
      expect(l2).toBeLessThan(1.05);
      expect(liesOnItself).toBe(false);
    }
    // What is told is what comes out, and no polygon is folded whichever way it is split.
    const now = await after(
      document,
      request('cut', { edges: told.edges }),
      request('unfold', {}),
      request('relax', { steps: 30 }),
    );
    expect(overlappingFaces(now).overlaps).toHaveLength(0);
    const worst = Math.max(...told.shells.map(({ l2 }) => l2 ?? Infinity));
    for (let s = 0; s < shellsOf(now).shellCount; s++) {
      const shell = shellOf(now, s);
      const uv = shellUv(now, shell) as Float64Array;
      expect(invertedTriangles(anyDiagonal(shell), uv, 0)).toEqual([]);
      expect(measureStretch(shell, uv).l2).toBeLessThan(worst + 0.002);
    }
  }, 120_000);

  it('has seams that are edges of it, and edge loops to cut along', () => {
    const edges = new Set<string>();
    for (let e = 0; e < connectivity.isInterior.length; e++)
      edges.add(edgeKey(connectivity.edgeVertices[2 * e], connectivity.edgeVertices[2 * e + 1]));
    expect(seams.length).toBeGreaterThan(100);
    for (const [a, b] of seams) expect(edges.has(edgeKey(a, b))).toBe(true);
    const closed = Array.from({ length: 40 }, (_, i) =>
      edgeLoop(mesh, connectivity, (i * 397) % connectivity.isInterior.length),
    );
    expect(closed.filter((loop) => loop.length >= 8).length).toBeGreaterThan(20);
  });

  it('comes out the same every time', () => {
    expect(toadFerryman().mesh.positions).toEqual(mesh.positions);
  });
});

describe('heron hood', () => {
  const { mesh } = heronHood();
  const connectivity = connectivityOf(mesh);
  const shell = wholeShell(mesh);

  it('is one open piece of quads with three holes, the right way out and symmetric', () => {
    expect(mesh.cornerVertex.length).toBe(4 * faceCount(mesh));
    expect(faceCount(mesh)).toBeGreaterThan(10_000);
    expect(shellTopology(shell)).toMatchObject({ kind: 'holes', borderCount: 3, genus: 0 });
    expect(
      connectivity.edgeCornerStart.every(
        (start, e) => e === 0 || start - connectivity.edgeCornerStart[e - 1] <= 2,
      ),
    ).toBe(true);
    expect(volume(mesh)).toBeGreaterThan(1);
    const { positions: p } = mesh;
    const sum = [0, 1, 2].map((k) => p.reduce((total, x, i) => total + (i % 3 === k ? x : 0), 0));
    expect(sum[0]).toBeCloseTo(0, 6);
  });
});

describe('mooring post', () => {
  it('has a post, a cap, a ring with its handle, and a long rope, all closed and the right way out', () => {
    const kinds = mooringPost().map(({ name, vertices, faces }) => {
      const mesh = meshFromPolygons(vertices, faces);
      expect(connectivityOf(mesh).isInterior.every((isInterior) => isInterior === 1)).toBe(true);
      expect(volume(mesh)).toBeGreaterThan(0);
      const { kind, genus } = shellTopology(wholeShell(mesh));
      return [name, kind, genus];
    });
    expect(kinds).toEqual([
      ['Post', 'closed', 0],
      ['Cap', 'closed', 0],
      ['Ring', 'closed', 1],
      ['Rope', 'closed', 0],
    ]);
  });
});

describe('gourd lantern', () => {
  const parts = gourdLantern();

  it('has body, stem, handle and studs, each part looking outward', () => {
    expect(parts.map(({ name }) => name).slice(0, 3)).toEqual(['Body', 'Stem', 'Handle']);
    expect(parts).toHaveLength(17);
    for (const { name, vertices, faces } of parts) {
      const mesh = meshFromPolygons(vertices, faces);
      const connectivity = connectivityOf(mesh);
      const open = name.startsWith('Stud');
      expect(connectivity.isInterior.every((isInterior) => isInterior === 1)).toBe(!open);
      // Studs are open at the back: their volume is taken about their own middle.
      const box = boundingBox(mesh.positions);
      const middle = [0, 1, 2].map((k) => (box[k] + box[k + 3]) / 2);
      const about = { ...mesh, positions: mesh.positions.map((x, i) => x - middle[i % 3]) };
      expect(volume(about)).toBeGreaterThan(0);
    }
  });
});

describe('reed punt', () => {
  const found = (model: Model) =>
    Object.fromEntries(
      examine(patientOf(model), localContext).map(({ check, finding }) => [check.kind, finding.count]),
    );

  it('has just the faults it is there to show, and all of them can be repaired', async () => {
    const punt = await readModel(await reedPunt(), 'reed-punt.glb');
    expect(found(punt)).toEqual({
      'mirrored-transform': 640,
      'uneven-scale': 412,
      cracks: 41,
      'hidden-faces': 23,
    });
    const thwart = await readModel(new TextEncoder().encode(puntThwart()), 'punt-thwart.obj');
    expect(found(thwart)).toEqual({ 'bridged-polygons': 2, 'many-corners': 2 });
    for (const model of [punt, thwart]) {
      let document = openDocument(model);
      const kinds = Object.keys(found(model));
      for (const kind of kinds) {
        if (!(kind in found(document.model))) continue;
        const { delta } = await carryOut(document, { operation: 'repair', params: { kind } }, localContext);
        document = applyDelta(document, delta);
      }
      expect(found(document.model)).toEqual({});
    }
  });
});
