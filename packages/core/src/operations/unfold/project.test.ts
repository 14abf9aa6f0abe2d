import { describe, expect, it } from 'vitest';
import { applyDelta } from '../../document/delta.ts';
import {
  type HemDocument,
  openDocument,
  shellOf,
  shellsOf,
  shellUv,
  topologyOf,
} from '../../document/document.ts';
import { overlappingFaces } from '../../document/overlappingFaces.ts';
import { localJobs } from '../../jobs/index.ts';
import { measureStretch } from '../../measure/stretch.ts';
import { modelFromMesh } from '../../mesh/model.ts';
import { unattended } from '../../progress.ts';
import { answerQuestion } from '../../questions/index.ts';
import { meshOfShell } from '../../surface/cutShell.ts';
import { after } from '../../testing/acts.ts';
import { edgeMidpoint } from '../../testing/places.ts';
import { head } from '../../testing/sculpts.ts';
import { cube, sheet } from '../../testing/shapes.ts';
import { carryOut } from '../catalogue.ts';
import { localContext } from '../localContext.ts';

const all = (document: HemDocument) => [...document.stale.keys()];
const project = (document: HemDocument, params: object) =>
  carryOut(document, { operation: 'project', params: { faces: all(document), ...params } }, localContext);

/** A ball of 12 × 24 quads between two open poles, radius 1. */
const ball = () =>
  openDocument(
    modelFromMesh(
      'Ball',
      sheet(12, 24, (i, j) => {
        const [lat, lon] = [((i - 6) * Math.PI) / 13, ((j - 12) * Math.PI) / 12];
        return [Math.cos(lat) * Math.sin(lon), Math.sin(lat), Math.cos(lat) * Math.cos(lon)];
      }),
    ),
  );

describe('projecting', () => {
  it('a head from a cylinder smears nothing over the wrap, and has its seam at the back (common practice)', async () => {
    const start = openDocument(modelFromMesh('Head', meshOfShell(head(20))));
    const document = await after(start, {
      operation: 'project',
      params: { faces: all(start), kind: 'cylinder' },
    });
    const { mesh, connectivity } = topologyOf(document.model);
    const { uv } = document.uvSets[0];
    const us = uv.filter((_, i) => !(i & 1));
    const width = Math.max(...us) - Math.min(...us);
    for (const f of all(document)) {
      const own = us.slice(mesh.faceStart[f], mesh.faceStart[f + 1]);
      expect(Math.max(...own) - Math.min(...own)).toBeLessThan(0.5 * width);
    }
    // Every seam is at the back, or at the axis where the wrap has none.
    const seams = [...document.seams.keys()].filter((e) => document.seams[e]);
    expect(seams.length).toBeGreaterThan(5);
    const middle = [0, 1, 2].map((k) => {
      const list = mesh.positions.filter((_, i) => i % 3 === k);
      return (Math.min(...list) + Math.max(...list)) / 2;
    });
    for (const e of seams) {
      const [x, , z] = edgeMidpoint(mesh, connectivity, e).map((p, k) => p - middle[k]);
      expect(z < 0.1 || Math.hypot(x, z) < 0.2).toBe(true);
    }
  });

  it('covers half with 180° (common practice); what is beyond stays as it was', async () => {
    const start = ball();
    const { delta } = await project(start, { kind: 'cylinder', sweep: 180 });
    expect(delta.notes.join()).toMatch(/144 faces beyond the sweep: left as they are/);
    const document = await after(start, {
      operation: 'project',
      params: { faces: all(start), kind: 'cylinder', sweep: 180 },
    });
    const { uv } = document.uvSets[0];
    expect(uv.filter(Number.isNaN)).toHaveLength(2 * 4 * 144);
    expect(shellsOf(document).shellCount).toBe(3);
  });

  it('gives a box six sides without a mirrored one, at the scale of the rest', async () => {
    const start = openDocument(modelFromMesh('Cube', cube()));
    const document = await after(start, { operation: 'project', params: { faces: all(start), kind: 'box' } });
    const shells = shellsOf(document);
    expect(shells.shellCount).toBe(6);
    const sizes = Array.from({ length: 6 }, (_, s) => {
      const shell = shellOf(document, s);
      return measureStretch(shell, shellUv(document, shell) as Float64Array);
    });
    for (const { flipped, l2, uvArea } of sizes) {
      expect(flipped).toBe(0);
      expect(l2).toBeCloseTo(1, 9);
      expect(uvArea).toBeCloseTo(sizes[0].uvArea, 12);
    }
  });

  it('names side faces that collapse, and refuses when all do', async () => {
    const start = openDocument(modelFromMesh('Cube', cube()));
    const { delta } = await project(start, { kind: 'plane', toward: [0, 0, 1] });
    expect(delta.notes.join()).toMatch(
      /4 faces seen edge-on: get hardly any texture.*1 face seen from behind: come out mirrored/,
    );
    const flat = openDocument(
      modelFromMesh(
        'Sheet',
        sheet(3, 3, (i, j) => [j, i, 0]),
      ),
    );
    await expect(project(flat, { kind: 'plane', toward: [1, 0, 0] })).rejects.toThrow(
      /seen edge-on from there and would collapse/,
    );
    await expect(project(flat, { kind: 'plane', toward: [0, 0, 0] })).rejects.toThrow(/has no direction/);
    await expect(
      project(flat, { kind: 'cylinder', sweep: 1, toward: [0, 0, -1], origin: [1.5, 1.5, -9] }),
    ).rejects.toThrow(/No face lies within the sweep/);
  });

  it('sews what it sees as one, or keeps the seams of shells that have a plane each', async () => {
    const start = openDocument(
      modelFromMesh(
        'Sheet',
        sheet(4, 4, (i, j) => [j, i, j < 2 ? 0 : 0.4 * (j - 2)]),
      ),
    );
    const { connectivity, mesh } = topologyOf(start.model);
    const fold = [...connectivity.isInterior.keys()].filter((e) => {
      const [x0, , z0] = edgeMidpoint(mesh, connectivity, e);
      return connectivity.isInterior[e] && x0 === 2 && z0 === 0;
    });
    const cut = await after(start, { operation: 'cut', params: { edges: fold } });
    expect(shellsOf(cut).shellCount).toBe(2);
    const together = await after(cut, { operation: 'project', params: { faces: all(cut), kind: 'plane' } });
    expect(shellsOf(together).shellCount).toBe(1);
    const each = await after(cut, {
      operation: 'project',
      params: { faces: all(cut), kind: 'plane', each: 'shells' },
    });
    expect(shellsOf(each).shellCount).toBe(2);
    for (const s of [0, 1]) {
      const shell = shellOf(each, s);
      expect(measureStretch(shell, shellUv(each, shell) as Float64Array).l2).toBeCloseTo(1, 9);
    }
  });

  it('can be relaxed from there, and previewed as it will lie', async () => {
    const start = ball();
    const params = { faces: all(start), kind: 'cylinder' } as const;
    const preview = await answerQuestion(start, 'projection', params, { ...unattended, jobs: localJobs });
    const document = await after(start, { operation: 'project', params });
    expect(preview.collapsed + preview.mirrored + preview.outside).toBe(0);
    // The same map but for where it lies and how large.
    const size = (uv: ArrayLike<number>) => {
      const at = (k: number) => Array.from(uv).filter((_, i) => (i & 1) === k);
      return (Math.max(...at(0)) - Math.min(...at(0))) / (Math.max(...at(1)) - Math.min(...at(1)));
    };
    expect(size(preview.uv) / size(document.uvSets[0].uv)).toBeCloseTo(1, 5);
    const relaxed = await after(document, { operation: 'relax', params: {} });
    const shell = shellOf(relaxed, 0);
    const l2 = (each: HemDocument) => measureStretch(shell, shellUv(each, shell) as Float64Array).l2;
    expect(l2(relaxed)).toBeLessThan(l2(document));
  });

  it('gives caps that are seen edge-on planes of their own, when asked to', async () => {
    const post = openDocument(modelFromMesh('Post', cube()));
    const along = await project(post, { kind: 'cylinder' });
    expect(along.delta.notes.join()).toMatch(/2 faces seen edge-on/);
    const apart = await project(post, { kind: 'cylinder', caps: 'apart' });
    expect(apart.delta.notes.join()).not.toMatch(/edge-on/);
    const done = applyDelta(post, apart.delta);
    // The wall is one shell, each cap another, and none lies on another.
    expect(shellsOf(done).shellCount).toBe(3);
    expect(overlappingFaces(done).overlaps).toHaveLength(0);
    for (let s = 0; s < 3; s++) {
      const shell = shellOf(done, s);
      const { flipped, collapsed } = measureStretch(shell, shellUv(done, shell) as Float64Array);
      expect(flipped + collapsed).toBe(0);
    }
  });

  it('is previewed with what comes of it: the same places, and as many faces upside down', async () => {
    const context = { ...unattended, jobs: localJobs };
    for (const [kind, params] of [
      ['plane', { toward: [0, 0, 1] }],
      ['cylinder', {}],
    ] as const) {
      const document = ball();
      const asked = { faces: all(document), kind, ...params } as never;
      const preview = await answerQuestion(document, 'projection', asked, context);
      const done = applyDelta(document, (await project(document, { kind, ...params })).delta);
      const { triangleCorners } = topologyOf(document.model).triangulation;
      preview.triangles.forEach((t, i) => {
        for (let k = 0; k < 6; k++) {
          const corner = triangleCorners[3 * t + (k >> 1)];
          expect(preview.uv[6 * i + k]).toBeCloseTo(done.uvSets[0].uv[2 * corner + (k & 1)], 5);
        }
      });
      let flipped = 0;
      for (let s = 0; s < shellsOf(done).shellCount; s++) {
        const shell = shellOf(done, s);
        flipped += measureStretch(shell, shellUv(done, shell) as Float64Array).flipped;
      }
      expect(preview.mirrored).toBe(flipped);
    }
  });
});
