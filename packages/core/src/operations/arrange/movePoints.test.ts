import { describe, expect, it } from 'vitest';
import { applyDelta } from '../../document/delta.ts';
import { current, type HemDocument, openDocument, shellsOf, topologyOf } from '../../document/document.ts';
import { localJobs } from '../../jobs/index.ts';
import { findEdge } from '../../mesh/connectivity.ts';
import { modelFromMesh } from '../../mesh/model.ts';
import { unattended } from '../../progress.ts';
import { answerQuestion } from '../../questions/index.ts';
import { bestSimilarity, transformUv } from '../../surface/similarity.ts';
import { after } from '../../testing/acts.ts';
import { sheet } from '../../testing/shapes.ts';
import { carryOut, type OperationName, type ParamsOf, request } from '../catalogue.ts';
import { localContext } from '../localContext.ts';

/** A hill of squares, nine points a side, unfolded. */
const hill = () =>
  after(
    openDocument(
      modelFromMesh(
        'Hill',
        sheet(8, 8, (i, j) => [j, 3 * Math.exp(-((i - 4) ** 2 + (j - 4) ** 2) / 6), i]),
      ),
    ),
    request('unfold', { shells: 'all' }),
  );
const at = (i: number, j: number) => 9 * i + j;
/** A place of the hill: a vertex, and a face at it. */
const place = (i: number, j: number) => ({ vertex: at(i, j), face: 8 * Math.min(i, 7) + Math.min(j, 7) });
const edge = (document: HemDocument, a: number, b: number) =>
  findEdge(topologyOf(document.model).connectivity, a, b);
const row = (document: HemDocument, i: number, from: number, to: number) =>
  Array.from({ length: to - from }, (_, k) => edge(document, at(i, from + k), at(i, from + k + 1)));
const uvAt = (document: HemDocument, vertex: number): [number, number] => {
  const c = document.model.mesh.cornerVertex.indexOf(vertex);
  const { uv } = current(document);
  return [uv[2 * c], uv[2 * c + 1]];
};
const told = async <N extends OperationName>(document: HemDocument, name: N, params: ParamsOf<N>) => {
  const { delta } = await carryOut(document, request(name, params), localContext);
  return { document: applyDelta(document, delta), notes: delta.notes };
};
const lengthOf = (document: HemDocument, a: number, b: number) => {
  const { positions } = document.model.mesh;
  return Math.hypot(...[0, 1, 2].map((k) => positions[3 * a + k] - positions[3 * b + k]));
};

describe('aligning points', () => {
  const border = [0, 2, 4, 6].map((j) => place(0, j));

  it.each([
    ['least-v', 1, Math.min],
    ['greatest-u', 0, Math.max],
  ] as const)('brings them to %s to the last bit, and leaves the others', async (to, k, pick) => {
    const document = await hill();
    const { document: aligned } = await told(document, 'align-points', { places: border, to });
    const line = pick(...border.map(({ vertex }) => uvAt(document, vertex)[k]));
    for (const { vertex } of border) {
      expect(uvAt(aligned, vertex)[k]).toBe(line);
      expect(uvAt(aligned, vertex)[1 - k]).toBe(uvAt(document, vertex)[1 - k]);
    }
    for (const vertex of [at(0, 1), at(4, 4), at(8, 8)])
      expect(uvAt(aligned, vertex)).toEqual(uvAt(document, vertex));
  });

  it('onto the line through the two farthest apart, which stay', async () => {
    const document = await hill();
    const { document: aligned } = await told(document, 'align-points', { places: border, to: 'ends' });
    const [a, p, q, b] = border.map(({ vertex }) => uvAt(aligned, vertex));
    expect([a, b]).toEqual([border[0], border[3]].map(({ vertex }) => uvAt(document, vertex)));
    for (const [u, v] of [p, q])
      expect((u - a[0]) * (b[1] - a[1]) - (v - a[1]) * (b[0] - a[0])).toBeCloseTo(0, 12);
  });

  it('says when triangles come to lie upside down, and lays the rest round them where it is to follow', async () => {
    const document = await hill();
    // A point of the middle far over its neighbours.
    const places = [place(4, 4), place(0, 0)];
    const folded = await told(document, 'align-points', { places, to: 'least-v' });
    expect(folded.notes[0]).toMatch(/^\d+ triangles? came to lie upside down/);
    const two = [place(0, 3), place(0, 5)];
    const { document: laid, notes } = await told(document, 'align-points', {
      places: two,
      to: 'mean-v',
      inside: 'follows',
    });
    expect(notes.join()).not.toMatch(/upside down/);
    const mean = (uvAt(document, at(0, 3))[1] + uvAt(document, at(0, 5))[1]) / 2;
    for (const { vertex } of two) expect(uvAt(laid, vertex)[1]).toBeCloseTo(mean, 9);
    expect(uvAt(laid, at(4, 4))).not.toEqual(uvAt(document, at(4, 4)));
    // Nothing is pinned after it.
    expect(laid.pins.includes(1)).toBe(false);
  });

  it('refuses what the rest cannot follow, and says what has no area where it stays', async () => {
    const document = await hill();
    const block = [0, 1, 2].flatMap((i) => [0, 1, 2, 3].map((j) => place(i, j)));
    const { notes } = await told(document, 'align-points', { places: block, to: 'mean-v' });
    expect(notes[0]).toMatch(/12 triangles came to have no area: have the inside follow/);
    await expect(
      told(document, 'align-points', { places: block, to: 'mean-v', inside: 'follows' }),
    ).rejects.toThrow('The rest cannot follow there');
  });

  it('refuses points that lie nowhere, or all in one place', async () => {
    const bare = openDocument(
      modelFromMesh(
        'Hill',
        sheet(2, 2, (i, j) => [j, 0, i]),
      ),
    );
    await expect(
      told(bare, 'align-points', {
        places: [
          { vertex: 0, face: 0 },
          { vertex: 1, face: 0 },
        ],
        to: 'mean-u',
      }),
    ).rejects.toThrow('unfold their shell first');
    const document = await hill();
    await expect(
      told(document, 'align-points', { places: [place(0, 0), place(0, 0)], to: 'ends' }),
    ).rejects.toThrow('in one place');
    await expect(
      told(document, 'align-points', { places: [place(0, 0), { vertex: 80, face: 0 }], to: 'ends' }),
    ).rejects.toThrow('no corner');
  });
});

describe('moving points', () => {
  it('takes what lies near along, less the farther it is along the surface, and nothing else', async () => {
    const document = await hill();
    const by = [0.01, -0.02] as const;
    const { document: alone } = await told(document, 'move-points', { places: [place(4, 4)], by: [...by] });
    const moveOf = (of: HemDocument, vertex: number) =>
      uvAt(of, vertex).map((x, k) => x - uvAt(document, vertex)[k]);
    expect(moveOf(alone, at(4, 4)).map((x) => x.toFixed(12))).toEqual(by.map((x) => x.toFixed(12)));
    expect(moveOf(alone, at(4, 5))).toEqual([0, 0]);
    const radius = 0.3;
    for (const falloff of ['linear', 'smooth'] as const) {
      const { document: pulled } = await told(document, 'move-points', {
        places: [place(4, 4)],
        by: [...by],
        radius,
        falloff,
      });
      const [u, v] = uvAt(document, at(4, 4));
      // The next point along a row: straight on the Board, its distance is that of its UVs.
      const [u1, v1] = uvAt(document, at(4, 5));
      const part = 1 - Math.hypot(u1 - u, v1 - v) / radius;
      const weight = falloff === 'linear' ? part : part * part * (3 - 2 * part);
      expect(moveOf(pulled, at(4, 5))[0]).toBeCloseTo(weight * by[0], 9);
      expect(moveOf(pulled, at(0, 0))).toEqual([0, 0]);
    }
  });

  it('shows under the hand what comes of it', async () => {
    const document = await hill();
    const asked = { places: [place(4, 4)], by: [0.01, 0.01], radius: 0.2, falloff: 'smooth' } as const;
    const { by: _, ...rest } = asked;
    const { triangles, uv } = await answerQuestion(
      document,
      'pulled-points',
      { ...rest, matrix: [1, 0, 0, 1, 0.01, 0.01] },
      {
        ...unattended,
        jobs: localJobs,
      },
    );
    const { document: moved } = await told(document, 'move-points', asked);
    const { triangleCorners } = topologyOf(document.model).triangulation;
    triangles.forEach((t, i) => {
      for (let k = 0; k < 3; k++) {
        const c = triangleCorners[3 * t + k];
        expect(uv[6 * i + 2 * k]).toBeCloseTo(current(moved).uv[2 * c], 5);
      }
    });
  });

  it('has the rest follow', async () => {
    const document = await hill();
    const places = [place(0, 0), place(0, 8)];
    const { document: moved } = await told(document, 'move-points', {
      places,
      by: [0, 0.03],
      inside: 'follows',
    });
    for (const { vertex } of places)
      expect(uvAt(moved, vertex)[1]).toBeCloseTo(uvAt(document, vertex)[1] + 0.03, 9);
    expect(uvAt(moved, at(8, 4))[1]).not.toBeCloseTo(uvAt(document, at(8, 4))[1], 6);
  });
});

describe('straightening a row', () => {
  it('lays it on the line through its ends, at lengths as on the model', async () => {
    const document = await hill();
    const { document: straight } = await told(document, 'straighten-row', { edges: row(document, 4, 0, 8) });
    const points = Array.from({ length: 9 }, (_, j) => uvAt(straight, at(4, j)));
    const [a, b] = [points[0], points[8]];
    expect([a, b]).toEqual([uvAt(document, at(4, 0)), uvAt(document, at(4, 8))]);
    const lengths = Array.from({ length: 8 }, (_, j) => lengthOf(document, at(4, j), at(4, j + 1)));
    const all = lengths.reduce((sum, x) => sum + x, 0);
    const span = Math.hypot(b[0] - a[0], b[1] - a[1]);
    for (let j = 0; j < 8; j++) {
      const step = Math.hypot(points[j + 1][0] - points[j][0], points[j + 1][1] - points[j][1]);
      expect(step / span).toBeCloseTo(lengths[j] / all, 12);
    }
  });

  it('in even steps, level or upright, as long as from end to end', async () => {
    const document = await hill();
    const { document: level } = await told(document, 'straighten-row', {
      edges: row(document, 0, 1, 7),
      along: 'level',
      steps: 'even',
    });
    const points = Array.from({ length: 7 }, (_, j) => uvAt(level, at(0, 1 + j)));
    for (const [, v] of points) expect(v).toBe(points[0][1]);
    const steps = points.slice(1).map(([u], j) => u - points[j][0]);
    for (const step of steps) expect(step).toBeCloseTo(steps[0], 12);
    const [from, to] = [uvAt(document, at(0, 1)), uvAt(document, at(0, 7))];
    expect(Math.abs(points[6][0] - points[0][0])).toBeCloseTo(
      Math.hypot(to[0] - from[0], to[1] - from[1]),
      12,
    );
  });

  it('has the inside follow, and refuses what closes or forks into nothing', async () => {
    const document = await hill();
    const border = row(document, 0, 0, 8);
    const { document: laid } = await told(document, 'straighten-row', {
      edges: border,
      along: 'level',
      inside: 'follows',
    });
    const line = uvAt(laid, at(0, 0))[1];
    for (let j = 0; j <= 8; j++) expect(uvAt(laid, at(0, j))[1]).toBeCloseTo(line, 9);
    const round = [
      ...row(document, 2, 2, 3),
      ...row(document, 3, 2, 3),
      edge(document, at(2, 2), at(3, 2)),
      edge(document, at(2, 3), at(3, 3)),
    ];
    await expect(told(document, 'straighten-row', { edges: round })).rejects.toThrow('no row to straighten');
    await expect(told(document, 'straighten-row', { edges: [1e6] })).rejects.toThrow('There is no edge');
  });
});

describe('bringing a shell over', () => {
  /** The hill cut along a row into three eighths and five, the smaller turned, scaled and moved away. */
  const parted = async () => {
    const document = await hill();
    const seams = row(document, 3, 0, 8);
    const cut = await after(
      document,
      request('keep-places', { keep: true }),
      request('cut', { edges: seams }),
    );
    const [c, s] = [0.7 * Math.cos(1), 0.7 * Math.sin(1)];
    const away = await after(cut, request('transform-shells', { shells: [0], matrix: [c, s, -s, c, 2, 1] }));
    return { away, seams };
  };

  it('leaves the larger untouched bit by bit, and lays the smaller along it by the best similarity', async () => {
    const { away, seams } = await parted();
    const { document: sewn, notes } = await told(away, 'sew-over', { edges: seams });
    expect(shellsOf(sewn).shellCount).toBe(1);
    const { mesh } = away.model;
    const before = current(away).uv;
    const now = current(sewn).uv;
    const larger = shellsOf(away).faceShell[63];
    const own: number[] = [];
    for (let f = 0; f < 64; f++)
      for (let c = mesh.faceStart[f]; c < mesh.faceStart[f + 1]; c++) {
        if (shellsOf(away).faceShell[f] === larger) {
          expect([now[2 * c], now[2 * c + 1]]).toEqual([before[2 * c], before[2 * c + 1]]);
        } else own.push(c);
      }
    // What does not lie at the seam moved as one.
    const inner = own.filter((c) => mesh.cornerVertex[c] < at(3, 0));
    const pairs = (uv: Float64Array) => Float64Array.from(inner.flatMap((c) => [uv[2 * c], uv[2 * c + 1]]));
    const [from, to] = [pairs(before), pairs(now)];
    const laid = transformUv(from, bestSimilarity(from, to));
    laid.forEach((x, i) => {
      expect(x).toBeCloseTo(to[i], 10);
    });
    // Every vertex of the seam has one place again.
    for (let j = 0; j <= 8; j++) {
      const corners = [...mesh.cornerVertex.keys()].filter((c) => mesh.cornerVertex[c] === at(3, j));
      expect(new Set(corners.map((c) => `${now[2 * c]} ${now[2 * c + 1]}`)).size).toBe(1);
    }
    expect(notes[0]).toMatch(
      /^Both sides differ by up to [\d.]+ texels; the smaller came over at 1\d\d % of its size\.$/,
    );
  });

  it('unmirrors a smaller one that is mirrored', async () => {
    const { away, seams } = await parted();
    const mirrored = await after(
      away,
      request('transform-shells', { shells: [0], matrix: [-1, 0, 0, 1, 9, 0] }),
    );
    const { document: one } = await told(away, 'sew-over', { edges: seams });
    const { document: other } = await told(mirrored, 'sew-over', { edges: seams });
    current(other).uv.forEach((x, i) => {
      expect(x).toBeCloseTo(current(one).uv[i], 9);
    });
  });

  it('refuses edges that are no seams between two shells', async () => {
    const { away, seams } = await parted();
    await expect(told(await hill(), 'sew-over', { edges: seams })).rejects.toThrow(
      'between the same two shells',
    );
    await expect(told(away, 'sew-over', { edges: [edge(away, at(0, 0), at(0, 1))] })).rejects.toThrow(
      'between the same two shells',
    );
  });
});

describe('welding seams', () => {
  /** The hill cut along a row, its smaller part moved by some texels along v. */
  const apart = async (texels: number) => {
    const document = await hill();
    const seams = row(document, 3, 0, 8);
    const cut = await after(
      document,
      request('keep-places', { keep: true }),
      request('cut', { edges: seams }),
    );
    // As it was laid before the cut, but for the gap.
    const laid = await after(
      cut,
      request('sew-over', { edges: seams }),
      request('split-off', { faces: Array.from({ length: 24 }, (_, f) => f) }),
    );
    const [u0, v0] = cornerAt(laid, 24, at(3, 0));
    const [u1, v1] = cornerAt(laid, 16, at(3, 0));
    const moved = await after(
      laid,
      request('transform-shells', { shells: [0], matrix: [1, 0, 0, 1, u0 - u1, v0 - v1 + texels / 2048] }),
    );
    return { document: moved, seams };
  };
  /** Where a vertex lies in a face. */
  const cornerAt = (document: HemDocument, face: number, vertex: number): [number, number] => {
    const { faceStart, cornerVertex } = document.model.mesh;
    const { uv } = current(document);
    for (let c = faceStart[face]; c < faceStart[face + 1]; c++)
      if (cornerVertex[c] === vertex) return [uv[2 * c], uv[2 * c + 1]];
    throw new Error('not there');
  };

  it('joins just those that the count told, in the middle between both sides', async () => {
    const { document, seams } = await apart(6);
    const ask = (within: number) =>
      answerQuestion(document, 'weldable', { within }, { ...unattended, jobs: localJobs });
    expect(await ask(2)).toEqual([]);
    const counted = await ask(7);
    expect(counted.length).toBe(seams.length);
    const { document: welded, notes } = await told(document, 'weld-seams', { within: 7 });
    expect(shellsOf(welded).shellCount).toBe(1);
    expect([...welded.seams].filter(Boolean)).toHaveLength(
      [...document.seams].filter(Boolean).length - counted.length,
    );
    const [a, b] = [cornerAt(document, 24, at(3, 0)), cornerAt(document, 16, at(3, 0))];
    const now = cornerAt(welded, 24, at(3, 0));
    now.forEach((x, k) => {
      expect(x).toBeCloseTo((a[k] + b[k]) / 2, 12);
    });
    expect(cornerAt(welded, 16, at(3, 0))).toEqual(now);
    expect(cornerAt(welded, 60, at(8, 4))).toEqual(cornerAt(document, 60, at(8, 4)));
    expect(notes.join()).not.toMatch(/upside down/);
  });

  it('says what is left, and that nothing is near enough', async () => {
    const { document, seams } = await apart(6);
    const { notes } = await told(document, 'weld-seams', { within: 1 });
    expect(notes).toEqual(['No seam has both sides within 1 px of each other.']);
    await expect(told(document, 'weld-seams', { within: -1 })).rejects.toThrow();
    const { document: some } = await told(document, 'weld-seams', { within: 7, edges: seams.slice(0, 3) });
    expect([...some.seams].filter(Boolean)).toHaveLength([...document.seams].filter(Boolean).length - 3);
  });
});

describe('the best similarity', () => {
  it('is that of Umeyama 1991, worked out another way: complex least squares', () => {
    // For points as complex numbers about their means: factor = Σ conj(z) w / Σ |z|².
    const from = Float64Array.from([0, 0, 2, 1, 3, -1, -1, 4]);
    const to = Float64Array.from([1, 1, 0.2, 3.1, 2.4, 3.9, -3.2, 0.4]);
    const complex = (list: Float64Array) => {
      const points = Array.from({ length: 4 }, (_, i) => [list[2 * i], list[2 * i + 1]]);
      const mean = [0, 1].map((k) => points.reduce((sum, p) => sum + p[k], 0) / 4);
      return { mean, points: points.map((p) => [p[0] - mean[0], p[1] - mean[1]]) };
    };
    const [z, w] = [complex(from), complex(to)];
    let [re, im, square] = [0, 0, 0];
    z.points.forEach(([x, y], i) => {
      const [p, q] = w.points[i];
      re += x * p + y * q;
      im += x * q - y * p;
      square += x * x + y * y;
    });
    const [a, b, c, d, e, f] = bestSimilarity(from, to);
    [a, b, c, d].forEach((value, i) => {
      expect(value).toBeCloseTo([re, im, -im, re][i] / square, 12);
    });
    expect(a * z.mean[0] + c * z.mean[1] + e).toBeCloseTo(w.mean[0], 12);
    expect(b * z.mean[0] + d * z.mean[1] + f).toBeCloseTo(w.mean[1], 12);
    // No small change of it is nearer.
    const error = (m: readonly number[]) =>
      transformUv(from, m as never).reduce((sum, x, i) => sum + (x - to[i]) ** 2, 0);
    const best = error([a, b, c, d, e, f]);
    for (const turn of [-0.01, 0.01]) {
      const [cos, sin] = [Math.cos(turn), Math.sin(turn)];
      expect(
        error([a * cos - b * sin, a * sin + b * cos, c * cos - d * sin, c * sin + d * cos, e, f]),
      ).toBeGreaterThan(best);
      expect(error([a * (1 + turn), b * (1 + turn), c * (1 + turn), d * (1 + turn), e, f])).toBeGreaterThan(
        best,
      );
    }
  });
});
