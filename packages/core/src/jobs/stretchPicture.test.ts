import { describe, expect, it } from 'vitest';
import { openDocument, shellsOf, topologyOf } from '../document/document.ts';
import { figuresOf } from '../document/figures.ts';
import { averageAtCorners } from '../measure/averageAtCorners.ts';
import { histogram } from '../measure/histogram.ts';
import { modelFromMesh } from '../mesh/model.ts';
import { request } from '../operations/catalogue.ts';
import { unattended } from '../progress.ts';
import { triangleAreas } from '../surface/areas.ts';
import { after } from '../testing/acts.ts';
import { cube, sheet } from '../testing/shapes.ts';
import { stretchPicture } from './stretchPicture.ts';

/** A cube with its lid cut off, unfolded. */
async function openCube() {
  const bare = openDocument(modelFromMesh('Cube', cube()));
  const lid = [1];
  const { connectivity, mesh } = topologyOf(bare.model);
  const edges = [
    ...Array.from({ length: mesh.faceStart[2] - mesh.faceStart[1] }, (_, i) => mesh.faceStart[lid[0]] + i),
  ].map((c) => connectivity.cornerEdge[c]);
  return after(bare, request('cut', { edges }), request('unfold', {}));
}

describe('the picture of stretch', () => {
  it('gives every triangle the stretch of its own shell, and every corner what its shell has there', async () => {
    const document = await openCube();
    const shells = shellsOf(document);
    const figures = Array.from({ length: shells.shellCount }, (_, s) => figuresOf(document, s));
    const stretch = figures.map((each) => each.stretch);
    const picture = await stretchPicture.run({ document, stretch }, unattended);
    const { triangleFace } = topologyOf(document.model).triangulation;
    const known = stretch.map((own) => new Set(own?.angle));
    expect(known).toHaveLength(2);
    triangleFace.forEach((f, t) => {
      expect(known[shells.faceShell[f]].has(picture.angle[t])).toBe(true);
      const own = stretch[shells.faceShell[f]]?.angle ?? [];
      for (let k = 0; k < 3; k++) {
        expect(picture.smoothAngle[3 * t + k]).toBeGreaterThanOrEqual(Math.min(...own) - 1e-5);
        expect(picture.smoothAngle[3 * t + k]).toBeLessThanOrEqual(Math.max(...own) + 1e-5);
      }
    });
    expect(picture.logArea).toHaveLength(12);
    expect(picture.angleHistogram.counts.reduce((a, b) => a + b, 0)).toBeCloseTo(1, 9);
    const none = await stretchPicture.run({ document, stretch: [undefined, undefined] }, unattended);
    expect(none.angle.every((x) => x === 0)).toBe(true);
    expect(none.areaHistogram.counts.every((x) => x === 0)).toBe(true);
  });

  it('averages by area, on each side of a seam by itself', () => {
    const mesh = sheet(2, 1, (i, j) => [i * i, j, 0]);
    const { triangleCorners } = topologyOf(modelFromMesh('Sheet', mesh)).triangulation;
    const area = triangleAreas(
      mesh.positions,
      triangleCorners.map((c) => mesh.cornerVertex[c]),
    );
    const values = Float32Array.from({ length: 4 }, (_, t) => t + 1);
    const average = (cornerWedge: Uint32Array, wedges: number) =>
      averageAtCorners({ mesh, triangleCorners, cornerWedge, wedges })(values);
    // All of the sheet is one point: the mean by area.
    const mean = values.reduce((sum, x, t) => sum + x * area[t], 0) / area.reduce((a, b) => a + b);
    for (const x of average(new Uint32Array(8), 1)) expect(x).toBeCloseTo(mean, 6);
    // Each quad by itself.
    const apart = average(Uint32Array.of(0, 0, 0, 0, 1, 1, 1, 1), 2);
    expect(apart[0]).toBeCloseTo((values[0] * area[0] + values[1] * area[1]) / (area[0] + area[1]), 6);
    expect(apart[11]).toBeCloseTo((values[2] * area[2] + values[3] * area[3]) / (area[2] + area[3]), 6);
  });

  it('counts values where they lie, and those beyond the ends in the last bins', () => {
    const { counts } = histogram([[-3, 0], Float32Array.of(2.4, 2.6, 59, 400)], { from: 0, to: 60 });
    expect(counts).toHaveLength(24);
    expect(counts[0]).toBeCloseTo(3 / 6, 9);
    expect(counts[1]).toBeCloseTo(1 / 6, 9);
    expect(counts[23]).toBeCloseTo(2 / 6, 9);
  });
});
