import { describe, expect, it } from 'vitest';
import { applyDelta } from '../../document/delta.ts';
import { current, type HemDocument, openDocument, shellOf, shellUv } from '../../document/document.ts';
import { densityOf } from '../../document/layout.ts';
import type { Request } from '../../document/request.ts';
import { inspectLayout } from '../../jobs/inspectLayout.ts';
import { measureStretch } from '../../measure/stretch.ts';
import type { Mesh } from '../../mesh/mesh.ts';
import { modelFromMesh } from '../../mesh/model.ts';
import { unattended } from '../../progress.ts';
import { borders } from '../../surface/borders.ts';
import { after } from '../../testing/acts.ts';
import { sheet } from '../../testing/shapes.ts';
import { carryOut, type OperationName, type ParamsOf, request } from '../catalogue.ts';
import { localContext } from '../localContext.ts';

const flat = (mesh: Mesh) => after(openDocument(modelFromMesh('Shell', mesh)), request('unfold', {}));
const dome = (i: number, j: number) => [j, 2 * Math.exp(-((i - 4) ** 2 + (j - 4) ** 2) / 8), i] as const;
const hill = () => flat(sheet(8, 8, dome));
const done = async <N extends OperationName>(document: HemDocument, name: N, params: ParamsOf<N>) => {
  const { delta } = await carryOut(document, request(name, params), localContext);
  return { document: applyDelta(document, delta), notes: delta.notes };
};
const mapOf = (document: HemDocument) => {
  const shell = shellOf(document, 0);
  const uv = shellUv(document, shell) as Float64Array;
  const [loop] = borders(shell.triangles, uv.length / 2).loops;
  return { shell, uv, loop };
};
const length = (points: Float64Array, n: number, a: number, b: number) =>
  Math.hypot(...Array.from({ length: n }, (_, k) => points[n * a + k] - points[n * b + k]));
const flipped = (document: HemDocument) => {
  const { shell, uv } = mapOf(document);
  return measureStretch(shell, uv).flipped;
};

describe('a border laid on a circle', () => {
  it('is round, its arcs in proportion to the edges on the model, and nothing inside is flipped', async () => {
    const { document } = await done(await hill(), 'lay-border', { shape: 'circle' });
    const { shell, uv, loop } = mapOf(document);
    const [u, v] = [0, 1].map((k) => loop.reduce((sum, at) => sum + uv[2 * at + k], 0) / loop.length);
    // The mean of the points is not the middle of the circle: that is found by three of them.
    const [cu, cv] = middleOfCircle([0, 11, 22].map((i) => [uv[2 * loop[i]], uv[2 * loop[i] + 1]]));
    expect(Math.hypot(cu - u, cv - v)).toBeLessThan(0.05);
    const radii = Array.from(loop, (at) => Math.hypot(uv[2 * at] - cu, uv[2 * at + 1] - cv));
    expect(Math.max(...radii) - Math.min(...radii)).toBeLessThan(1e-9);
    const angle = (at: number) => Math.atan2(uv[2 * at + 1] - cv, uv[2 * at] - cu);
    const parts = Array.from(loop, (at, i) => {
      const next = loop[(i + 1) % loop.length];
      const turn = (angle(next) - angle(at) + 4 * Math.PI) % (2 * Math.PI);
      return turn / length(shell.positions, 3, at, next);
    });
    expect(Math.max(...parts) / Math.min(...parts)).toBeCloseTo(1, 7);
    expect(flipped(document)).toBe(0);
    // As long as it is on the model, at the scale of the rest.
    const round = loop.reduce(
      (sum, at, i) => sum + length(shell.positions, 3, at, loop[(i + 1) % loop.length]),
      0,
    );
    expect(radii[0]).toBeGreaterThan(0.5 * (densityOf(document) ?? 0) * (round / (2 * Math.PI)));
  });

  it('leaves the inside where it is, if it is to stay', async () => {
    const start = await hill();
    const { document } = await done(start, 'lay-border', { shape: 'circle', inside: 'stays' });
    const [before, now] = [mapOf(start), mapOf(document)];
    const onBorder = new Set(now.loop);
    for (let at = 0; at < now.uv.length / 2; at++)
      if (!onBorder.has(at))
        expect([...now.uv.subarray(2 * at, 2 * at + 2)]).toEqual([...before.uv.subarray(2 * at, 2 * at + 2)]);
    expect(now.uv).not.toEqual(before.uv);
  });
});

/** The middle of the circle through three points. */
function middleOfCircle(points: readonly (readonly number[])[]): [number, number] {
  const [[ax, ay], [bx, by], [cx, cy]] = points;
  const d = 2 * (ax * (by - cy) + bx * (cy - ay) + cx * (ay - by));
  const [a, b, c] = [ax * ax + ay * ay, bx * bx + by * by, cx * cx + cy * cy];
  return [
    (a * (by - cy) + b * (cy - ay) + c * (ay - by)) / d,
    (a * (cx - bx) + b * (ax - cx) + c * (bx - ax)) / d,
  ];
}

describe('a border laid on a rectangle', () => {
  it('has straight sides between the corners that were chosen, each point at its share of the length', async () => {
    const corners = [
      { vertex: 0, face: 0 },
      { vertex: 9 * 6 + 8, face: 8 * 6 + 7 },
      { vertex: 80, face: 63 },
      { vertex: 72, face: 56 },
    ];
    // At a corner of the sheet that is none of the rectangle's a triangle has all its corners on one side.
    await expect(done(await hill(), 'lay-border', { shape: 'rectangle', corners })).rejects.toThrow(
      'on one side',
    );
    corners[1] = { vertex: 8, face: 7 };
    const { document } = await done(await hill(), 'lay-border', { shape: 'rectangle', corners });
    const { uv, loop, shell } = mapOf(document);
    const { cornerVertex } = document.model.mesh;
    const isCorner = Array.from(loop, (at) =>
      corners.some(({ vertex }) => cornerVertex[shell.vertexCorner[at]] === vertex),
    );
    expect(isCorner.filter(Boolean)).toHaveLength(4);
    const first = isCorner.indexOf(true);
    let from = first;
    for (let side = 0; side < 4; side++) {
      let to = from + 1;
      while (!isCorner[to % loop.length]) to++;
      const run = Array.from({ length: to - from + 1 }, (_, i) => loop[(from + i) % loop.length]);
      const across = [0, 1].find(
        (k) => Math.abs(uv[2 * run[0] + k] - uv[2 * (run.at(-1) as number) + k]) < 1e-12,
      ) as number;
      for (const at of run) expect(uv[2 * at + across]).toBeCloseTo(uv[2 * run[0] + across], 12);
      const rates = run
        .slice(1)
        .map((at, i) => length(uv, 2, at, run[i]) / length(shell.positions, 3, at, run[i]));
      expect(Math.max(...rates) / Math.min(...rates)).toBeCloseTo(1, 7);
      from = to;
    }
    expect(flipped(document)).toBe(0);
  });

  it('asks for corners where they are not clear, and refuses three', async () => {
    const disc = sheet(2, 24, (i, j) => [
      (i + 1) * Math.cos((j * Math.PI) / 40),
      0,
      (i + 1) * Math.sin((j * Math.PI) / 40),
    ]);
    const { document } = await done(await flat(disc), 'lay-border', { shape: 'rectangle' });
    expect(flipped(document)).toBe(0);
    const round = sheet(1, 12, (i, j) => [
      (1 + i) * Math.cos((j * Math.PI) / 6),
      0,
      (1 + i) * Math.sin((j * Math.PI) / 6),
    ]);
    await expect(done(await flat(round), 'lay-border', { shape: 'rectangle' })).rejects.toThrow(
      /corners are not clear.*Pick the four points/i,
    );
    await expect(
      done(document, 'lay-border', { shape: 'rectangle', corners: [{ vertex: 0, face: 0 }] }),
    ).rejects.toThrow('A rectangle has four corners: 1 were chosen.');
    const strange = [0, 1, 2, 9999].map((face) => ({ vertex: 0, face }));
    await expect(done(document, 'lay-border', { shape: 'rectangle', corners: strange })).rejects.toThrow(
      'There is no face 9999',
    );
  });
});

describe('a grid of quads laid square', () => {
  it('has straight rows and columns, wide as on the model; against the pattern of a bent sheet that is developable', async () => {
    // Rows that are not alike, bent over a cylinder: the pattern is known.
    const [us, vs] = [
      [0, 1, 1.5, 3, 4, 4.25, 6],
      [0, 0.5, 2, 2.5, 4],
    ];
    const bent = sheet(4, 6, (i, j) => [2 * Math.sin(us[j] / 2), vs[i], 2 * Math.cos(us[j] / 2)]);
    const start = await flat(bent);
    // Spoilt by a hand.
    const { document: spoilt } = await done(start, 'move-points', {
      places: [{ vertex: 7 * 2 + 3, face: 6 * 2 + 3 }],
      by: [0.02, 0.015],
    });
    const { document } = await done(spoilt, 'square-grid', { faces: [...spoilt.stale.keys()] });
    const { uv } = current(document);
    const { cornerVertex } = document.model.mesh;
    const place = (v: number) => [0, 1].map((k) => uv[2 * cornerVertex.indexOf(v) + k]);
    const chord = (j: number) => 4 * Math.sin((us[j + 1] - us[j]) / 4);
    const unit = Math.hypot(...place(0).map((x, k) => x - place(7)[k])) / (vs[1] - vs[0]);
    for (let i = 0; i <= 4; i++)
      for (let j = 0; j < 6; j++) {
        const [a, b] = [place(7 * i + j), place(7 * i + j + 1)];
        const [du, dv] = [b[0] - a[0], b[1] - a[1]];
        // Level or upright, to the last bits, and as long as its edge on the model.
        expect(Math.min(Math.abs(du), Math.abs(dv))).toBeLessThan(1e-12);
        expect(Math.hypot(du, dv) / unit).toBeCloseTo(chord(j), 6);
      }
  });

  it('moves no point but those of the grid, and says which faces are no quads', async () => {
    const start = await hill();
    const faces = [9, 10, 11, 17, 18, 19];
    const { document } = await done(start, 'square-grid', { faces });
    const { faceStart, cornerVertex } = start.model.mesh;
    const own = new Set(faces.flatMap((f) => [...cornerVertex.subarray(faceStart[f], faceStart[f + 1])]));
    const [before, now] = [current(start).uv, current(document).uv];
    cornerVertex.forEach((v, c) => {
      if (!own.has(v)) expect([now[2 * c], now[2 * c + 1]]).toEqual([before[2 * c], before[2 * c + 1]]);
    });
    expect(now).not.toEqual(before);
    await expect(done(start, 'square-grid', { faces: [0, 63] })).rejects.toThrow('hang together');
  });
});

describe('folds that a hand has made', () => {
  const folded = async () => {
    const start = await hill();
    const made = await done(start, 'move-points', {
      places: [{ vertex: 9 * 4 + 4, face: 36 }],
      by: [0.25, 0.1],
    });
    expect(made.notes.join(' ')).toMatch(/triangles came to lie upside down/);
    return made.document;
  };

  it('are unfolded with the rest held, bit by bit', async () => {
    const start = await folded();
    expect(flipped(start)).toBeGreaterThan(0);
    const { document, notes } = await done(start, 'unfold-folds', {});
    expect(flipped(document)).toBe(0);
    const moved = Number(/moving (\d+) points/.exec(notes.join(' '))?.[1]);
    const [before, now] = [mapOf(start).uv, mapOf(document).uv];
    let differ = 0;
    for (let i = 0; i < now.length; i += 2)
      if (now[i] !== before[i] || now[i + 1] !== before[i + 1]) differ++;
    expect(differ).toBe(moved);
    expect(differ).toBeLessThan(60);
  });

  it('are what the finding offers to unfold, and the finding goes', async () => {
    const start = await folded();
    const find = async (document: HemDocument) =>
      (await inspectLayout.run({ document }, unattended)).findings.find(({ kind }) => kind === 'flipped');
    const { remedy } = (await find(start)) as { remedy: { label: string; request: Request } };
    expect(remedy.label).toBe('Unfold the folds');
    expect(await find(await after(start, remedy.request))).toBeUndefined();
  });

  it('keep what is pinned', async () => {
    const start = await after(
      await folded(),
      request('set-pins', { places: [{ vertex: 9 * 4 + 4, face: 36 }], pinned: true }),
    );
    const { document } = await done(start, 'unfold-folds', {});
    expect(flipped(document)).toBe(0);
    const at = (d: HemDocument) => {
      const c = d.model.mesh.cornerVertex.indexOf(9 * 4 + 4);
      return [...current(d).uv.subarray(2 * c, 2 * c + 2)];
    };
    expect(at(document)).toEqual(at(start));
  });

  it('are said to be none where there are none', async () => {
    await expect(done(await hill(), 'unfold-folds', {})).rejects.toThrow('Nothing is folded here');
  });
});
