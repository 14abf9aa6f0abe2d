import { describe, expect, it } from 'vitest';
import { type HemDocument, openDocument, shellOf, shellsOf, topologyOf } from '../document/document.ts';
import { figuresOf } from '../document/figures.ts';
import { findEdge } from '../mesh/connectivity.ts';
import type { Mesh } from '../mesh/mesh.ts';
import { modelFromMesh } from '../mesh/model.ts';
import { request } from '../operations/catalogue.ts';
import { edgeLength, shortestPath } from '../select/shortestPath.ts';
import { meshOfShell } from '../surface/cutShell.ts';
import { after } from '../testing/acts.ts';
import { sheet, tube, wholeShell } from '../testing/shapes.ts';
import { shiftSeam } from './shiftSeam.ts';
import { widenDart } from './widenDart.ts';

const opened = (mesh: Mesh) => openDocument(modelFromMesh('test', mesh));
const modelOf = (document: HemDocument) => ({
  ...topologyOf(document.model),
  seams: document.seams,
  shells: shellsOf(document),
  shell: (s: number) => shellOf(document, s),
});
const seamsOf = ({ seams }: HemDocument) => [...seams.keys()].filter((e) => seams[e]);
const cutAt = (document: HemDocument, edges: readonly number[]) => after(document, request('cut', { edges }));
const line = (document: HemDocument, vertices: readonly number[]) =>
  vertices.slice(1).map((v, i) => findEdge(topologyOf(document.model).connectivity, vertices[i], v));

/** 4 × 6 quads, rows from 0 up; a vertex by row and column. */
const grid = opened(sheet(4, 6, (i, j) => [j, i, 0]));
const at = (i: number, j: number) => 7 * i + j;
const column = (j: number, from = 0, to = 4) =>
  line(
    grid,
    Array.from({ length: to - from + 1 }, (_, k) => at(from + k, j)),
  );

/** A sleeve of triangles, with a lengthwise seam where nothing guides it but distance. */
const sleeve = opened(meshOfShell(tube(24, 40, 6)));
const along = (sector: number) =>
  line(
    sleeve,
    Array.from({ length: 25 }, (_, i) => 40 * i + sector),
  );

describe('a shifted seam', () => {
  it('runs one row over for every row of quads, and to the place that is shown', async () => {
    const cut = await cutAt(grid, column(3));
    for (const [shift, j] of [
      [{ to: at(2, 5) }, 5],
      [{ to: at(0, 1) }, 1],
      [{ rows: 1 }, 2],
      [{ rows: -2 }, 5],
    ] as const) {
      const { sewn, cut: now, strip } = shiftSeam(modelOf(cut), column(3), shift);
      expect([...now].sort()).toEqual([...column(j)].sort());
      expect([...sewn].sort()).toEqual([...column(3)].sort());
      expect(strip).toHaveLength(4 * Math.abs(j - 3));
    }
  });

  it('takes an end that lies within the shell along', async () => {
    const slit = column(3, 0, 2);
    const cut = await cutAt(grid, slit);
    const { sewn, cut: now, strip } = shiftSeam(modelOf(cut), slit, { to: at(1, 4) });
    expect([...now].sort()).toEqual([...column(4, 0, 2)].sort());
    expect([sewn.length, strip.length]).toEqual([2, 0]);
    const inner = column(3, 1, 3);
    const both = await cutAt(grid, inner);
    expect([...shiftSeam(modelOf(both), inner, { to: at(2, 2) }).cut].sort()).toEqual(
      [...column(2, 1, 3)].sort(),
    );
  });

  it('runs straight over triangles, at the distance of the place', async () => {
    const cut = await cutAt(sleeve, along(0));
    const { connectivity, mesh } = topologyOf(sleeve.model);
    for (const [sector, rows] of [
      [5, undefined],
      [36, undefined],
      [undefined, 3],
    ] as const) {
      const shift = sector === undefined ? { rows: rows as number } : { to: 40 * 12 + sector };
      const { cut: now } = shiftSeam(modelOf(cut), along(0), shift);
      const length = now.reduce((sum, e) => sum + edgeLength(mesh, connectivity, e), 0);
      // From rim to rim there is no shorter way than the length of the sleeve.
      expect(length).toBeGreaterThan(6 - 1e-9);
      expect(length).toBeLessThan(6.2);
      if (sector !== undefined) expect([...now].sort()).toEqual([...along(sector)].sort());
    }
  });

  it('moves rings', async () => {
    const ring = (i: number) =>
      line(
        sleeve,
        Array.from({ length: 41 }, (_, j) => 40 * i + (j % 40)),
      );
    const cut = await cutAt(sleeve, ring(12));
    const { cut: now, sewn, strip } = shiftSeam(modelOf(cut), ring(12), { to: 40 * 15 + 7 });
    expect([...now].sort()).toEqual([...ring(15)].sort());
    expect(sewn).toHaveLength(40);
    expect(strip).toHaveLength(2 * 3 * 40);
  });

  it('says why it cannot', async () => {
    const cut = await cutAt(grid, [...column(3), ...line(grid, [at(2, 3), at(2, 4), at(2, 5), at(2, 6)])]);
    const shifted = (edges: readonly number[], shift: Parameters<typeof shiftSeam>[2]) => () =>
      shiftSeam(modelOf(cut), edges, shift);
    expect(shifted(column(2), { rows: 1 })).toThrow('Only seams can be shifted');
    expect(shifted(seamsOf(cut), { rows: 1 })).toThrow('one run at a time');
    expect(shifted(column(3), { rows: -1 })).toThrow('More than one shell');
    expect(shifted(column(3), { rows: 3 })).toThrow('nothing would be left');
    expect(shifted(column(3, 0, 2), { to: at(1, 3) })).toThrow('not beside it');
    expect(shifted(column(3, 0, 2), { rows: -1 })).not.toThrow();
  });
});

describe('shifting a seam', () => {
  it('leaves all UVs as they were but those of what it passes, and folds nothing', async () => {
    for (const [start, edges, to] of [
      [grid, column(3), at(2, 5)],
      [sleeve, along(0), 40 * 12 + 5],
    ] as const) {
      const before = await after(
        await cutAt(start, edges),
        request('unfold', { shells: 'all' }),
        request('keep-places', { keep: true }),
      );
      const { strip } = shiftSeam(modelOf(before), edges, { to });
      const now = await after(before, request('shift-seam', { edges: [...edges], to }));
      const passed = new Set(strip);
      const { mesh, connectivity } = topologyOf(start.model);
      for (let c = 0; c < mesh.cornerVertex.length; c++) {
        if (passed.has(connectivity.cornerFace[c])) continue;
        for (const k of [0, 1]) expect(now.uvSets[0].uv[2 * c + k]).toBe(before.uvSets[0].uv[2 * c + k]);
      }
      expect(shellsOf(now).shellCount).toBe(shellsOf(before).shellCount);
      for (let s = 0; s < shellsOf(now).shellCount; s++) {
        const { stretch, stale } = figuresOf(now, s);
        expect(stale).toBe(false);
        expect([stretch?.flipped, stretch?.collapsed]).toEqual([0, 0]);
        // Both lie flat without stretch: a strip laid beside them does, too.
        expect(stretch?.l2).toBeLessThan(1.0001);
      }
      // Where it was sewn the two sides meet.
      for (const e of edges) {
        const [a, b] = [
          connectivity.edgeCorners[connectivity.edgeCornerStart[e]],
          connectivity.edgeCorners[connectivity.edgeCornerStart[e] + 1],
        ];
        for (const k of [0, 1])
          expect(now.uvSets[0].uv[2 * a + k]).toBeCloseTo(
            now.uvSets[0].uv[2 * connectivity.nextCorner[b] + k],
            12,
          );
      }
    }
  });

  it('unfolds anew what had no place yet, and is found the same by a way along the surface', async () => {
    const ends = [0, 24 * 40 + 20];
    const way = shortestPath(topologyOf(sleeve.model).connectivity, ends[0], ends[1], () => 1).edgesTo(
      ends[1],
    );
    const cut = await cutAt(sleeve, way);
    const now = await after(cut, request('shift-seam', { edges: way, rows: 2 }));
    expect(shellsOf(now).shellCount).toBe(1);
    expect(now.stale.includes(1)).toBe(true);
  });
});

describe('a widened dart', () => {
  it('is two lines from its pivot that leave a gusset of the angle asked for', () => {
    // A square of 24 × 24 triangles pairs; the dart runs from its middle to the middle of a side.
    const plate = opened(meshOfShell(wholeShell(sheet(24, 24, (i, j) => [j, i, 0]))));
    const dart = line(
      plate,
      Array.from({ length: 13 }, (_, k) => 25 * k + 12),
    );
    const { connectivity } = topologyOf(plate.model);
    const edges = widenDart(modelOf(plate), dart, Math.tan(Math.PI / 8));
    const seams = plate.seams.slice();
    for (const e of edges) seams[e] = 1;
    const { shellCount, faceShell } = shellsOf({ ...plate, seams });
    expect(shellCount).toBe(2);
    const sizes = [0, 1].map((s) => faceShell.filter((own) => own === s).length).sort((a, b) => a - b);
    // A triangle of height 12 and, with 22.5° to either side, of base 2 × 12 × 0.414: 59.6 squares, two triangles each.
    expect(sizes[0] / 2).toBeGreaterThan(50);
    expect(sizes[0] / 2).toBeLessThan(70);
    // They meet at the pivot, as near as edges come.
    const { positions: p } = plate.model.mesh;
    const apart = edges.map((e) => {
      const v = 3 * connectivity.edgeVertices[2 * e];
      return Math.hypot(p[v] - 12, p[v + 1] - 12);
    });
    expect(Math.min(...apart)).toBeLessThan(2.3);
    expect(() => widenDart(modelOf(plate), dart.slice(2, 5), 0.3)).toThrow('Only a dart can be widened');
  });
});
