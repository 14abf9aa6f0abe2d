import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { judge, type ShellFacts } from '../document/judgement.ts';
import { LIMIT_PRESETS } from '../document/limits.ts';
import { meshFromPolygons } from '../mesh/mesh.ts';
import { tileCoverage } from './coverage.ts';
import { foldsOf } from './folds.ts';

const UNIT = [0, 0, 1, 1] as const;
const place = fc.double({ min: -0.6, max: 1.6, noNaN: true });
const triangle = fc.array(place, { minLength: 6, maxLength: 6 });

/** Part of a grid of points in the tile that lie in any triangle: a raster, worked out point by point. */
function rastered(flat: readonly number[], side: number): number {
  let covered = 0;
  for (let i = 0; i < side * side; i++) {
    const [x, y] = [((i % side) + 0.5) / side, (Math.floor(i / side) + 0.5) / side];
    for (let t = 0; t < flat.length; t += 6) {
      const signs = [0, 2, 4].map((k) => {
        const [a, b] = [t + k, t + ((k + 2) % 6)];
        return Math.sign(
          (flat[b] - flat[a]) * (y - flat[a + 1]) - (flat[b + 1] - flat[a + 1]) * (x - flat[a]),
        );
      });
      if (signs.every((s) => s >= 0) || signs.every((s) => s <= 0)) {
        covered++;
        break;
      }
    }
  }
  return covered / side ** 2;
}

describe('use of the tile', () => {
  it('is what a raster counts, however triangles overlap and stick out', () => {
    fc.assert(
      fc.property(fc.array(triangle, { minLength: 1, maxLength: 12 }), (list) => {
        const flat = list.flat();
        expect(Math.abs(tileCoverage(Float64Array.from(flat), UNIT) - rastered(flat, 128))).toBeLessThan(
          0.02,
        );
      }),
      { numRuns: 60 },
    );
  });

  it('counts what lies twice once, and what lies outside not at all', () => {
    const half = [0, 0, 1, 0, 1, 1];
    const cover = (...list: number[][]) => tileCoverage(Float64Array.from(list.flat()), UNIT);
    expect(cover(half)).toBeCloseTo(0.5, 3);
    expect(cover(half, half, half)).toBeCloseTo(0.5, 3);
    expect(cover(half, [0, 0, 1, 1, 0, 1])).toBeCloseTo(1, 6);
    expect(cover(half.map((x) => x + 1))).toBe(0);
    expect(cover([-9, -9, 20, -9, 0, 20])).toBe(1);
    // Upside down, it covers as much.
    expect(cover([1, 1, 1, 0, 0, 0])).toBeCloseTo(0.5, 3);
    expect(cover()).toBe(0);
  });

  it('is that of the tile alone, wherever it lies and however wide it is', () => {
    const flat = Float64Array.of(2, 1, 4, 1, 4, 2);
    expect(tileCoverage(flat, [2, 1, 4, 2])).toBeCloseTo(0.5, 3);
    // As much of it as lies there: half of the width, and of that the lower right.
    expect(tileCoverage(flat, [3, 1, 5, 2])).toBeCloseTo(0.375, 3);
    expect(tileCoverage(flat, [0, 0, 2, 1])).toBe(0);
  });

  it('hears Stop', () => {
    expect(() => tileCoverage(new Float64Array(6), UNIT, { aborted: true })).toThrow(/Stopped/);
  });
});

describe('polygons under any diagonal', () => {
  const square = [
    [0, 0, 0],
    [1, 0, 0],
    [1, 1, 0],
    [0, 1, 0],
  ];
  const folds = (vertices: number[][], uv: number[]) =>
    foldsOf(meshFromPolygons(vertices, [vertices.map((_, i) => i)]), Float64Array.from(uv), [0]);

  it('finds a quad that is valid split one way and flipped split the other', () => {
    const bent = [0, 0, 1, 0, 0.3, 0.3, 0, 1];
    expect(folds(square, [0, 0, 1, 0, 1, 1, 0, 1])).toEqual({ folded: [], concave: 0 });
    expect(folds(square, bent)).toEqual({ folded: [0], concave: 0 });
    // By hand: from corner 1 to 3 one half is upside down, from 0 to 2 neither is.
    const area = (a: number, b: number, c: number) =>
      (bent[2 * b] - bent[2 * a]) * (bent[2 * c + 1] - bent[2 * a + 1]) -
      (bent[2 * b + 1] - bent[2 * a + 1]) * (bent[2 * c] - bent[2 * a]);
    expect([area(0, 1, 2), area(0, 2, 3)].every((x) => x > 0)).toBe(true);
    expect(area(1, 2, 3)).toBeLessThan(0);
  });

  it('does not blame the flat for what is concave on the model', () => {
    const arrow = [
      [0, 0, 0],
      [1, 0, 0],
      [0.3, 0.3, 0],
      [0, 1, 0],
    ];
    expect(
      folds(
        arrow,
        arrow.flatMap((point) => point.slice(0, 2)),
      ),
    ).toEqual({ folded: [], concave: 1 });
    expect(folds(arrow, [0, 0, 1, 0, 1, 1, 0, 1])).toEqual({ folded: [], concave: 0 });
  });

  it('agrees with every way of splitting, for polygons of up to seven corners', () => {
    const uv = fc
      .integer({ min: 4, max: 7 })
      .chain((n) => fc.array(place, { minLength: 2 * n, maxLength: 2 * n }));
    fc.assert(
      fc.property(uv, (flat) => {
        const n = flat.length / 2;
        const vertices = Array.from({ length: n }, (_, i) => {
          const a = (2 * Math.PI * i) / n;
          return [Math.cos(a), Math.sin(a), 0];
        });
        const found = folds(vertices, flat).folded.length > 0;
        const area = (a: number, b: number, c: number) =>
          (flat[2 * b] - flat[2 * a]) * (flat[2 * c + 1] - flat[2 * a + 1]) -
          (flat[2 * b + 1] - flat[2 * a + 1]) * (flat[2 * c] - flat[2 * a]);
        // A corner is cut off by the diagonal between its neighbours in some way of splitting.
        const wrong = vertices.some((_, i) => area((i + n - 1) % n, i, (i + 1) % n) < 0);
        let whole = 0;
        for (let i = 1; i + 1 < n; i++) whole += area(0, i, i + 1);
        if (whole > 1e-6) expect(found).toBe(wrong);
      }),
    );
  });
});

describe('what a shell is worth', () => {
  const most = LIMIT_PRESETS.usual;
  const good: ShellFacts = {
    topology: { kind: 'disk', canUnfold: true, borderCount: 1, genus: 0, sentence: 'A disc.' },
    stretch: { l2: 1.02, linf: 1.3, angleMean: 3, areaMean: 1.05, flipped: 0, collapsed: 0 },
    unfolded: true,
    folded: 0,
    stale: false,
    relaxed: true,
    outside: false,
  };
  const stretch = (more: object) => ({ stretch: { ...good.stretch, ...more } as ShellFacts['stretch'] });
  it.each<[string, Partial<ShellFacts>, string]>([
    ['nothing', {}, 'Ready'],
    ['a flipped face', stretch({ flipped: 1 }), 'Flipped'],
    ['a collapsed face', stretch({ collapsed: 2, l2: Infinity }), 'Collapsed'],
    ['a folded face', { folded: 1 }, 'Folded'],
    ['an overlap with itself', { overlap: 'itself' }, 'On itself'],
    ['an overlap with another', { overlap: 'another' }, 'On another'],
    ['a place outside', { outside: true }, 'Outside'],
    ['a seam since', { stale: true }, 'Changed'],
    ['a mean angle of 56°, relaxed', stretch({ angleMean: 56 }), 'Needs a cut'],
    ['area that is × 1.6 off on average', stretch({ areaMean: 1.6 }), 'Needs a cut'],
    ['one place that is stretched × 7', stretch({ linf: 7.03 }), 'Needs a cut'],
    [
      'too much stretch, not relaxed',
      { ...stretch({ l2: most.stretch + 0.01 }), relaxed: false },
      'Stretched',
    ],
    [
      'as much as is put up with',
      stretch({ l2: most.stretch, linf: most.worst, angleMean: most.angle, areaMean: most.area }),
      'Ready',
    ],
    ['no UVs', { unfolded: false, stretch: undefined }, 'Not yet'],
    ['no figures yet', { stretch: undefined }, '…'],
  ])('with %s is told', (_, more, word) => {
    expect(judge({ ...good, ...more }, most)).toMatchObject({ word });
    expect(judge({ ...good, ...more }, most).sentence).toMatch(/\.$/);
  });

  it('hangs on what is put up with', () => {
    const rough = { ...good, ...stretch({ l2: 1.4, angleMean: 25, areaMean: 1.7, linf: 9 }) };
    expect(judge(rough, LIMIT_PRESETS.usual).word).toBe('Needs a cut');
    expect(judge(rough, LIMIT_PRESETS.rough).word).toBe('Ready');
    const fair = { ...good, ...stretch({ l2: 1.2 }) };
    expect(judge(fair, LIMIT_PRESETS.usual).word).toBe('Ready');
    expect(judge(fair, LIMIT_PRESETS.clean).sentence).toMatch(/^Stretch L2 1.20, where 1.1 is put up with/);
  });
});
