import { describe, expect, it } from 'vitest';
import { overlapsWithin } from '../measure/overlap.ts';
import { measureStretch } from '../measure/stretch.ts';
import { type Mesh, meshFromPolygons } from '../mesh/mesh.ts';
import { unattended } from '../progress.ts';
import { anyDiagonal } from '../surface/anyDiagonal.ts';
import { triangleAreas } from '../surface/areas.ts';
import { borders } from '../surface/borders.ts';
import { signedArea, triangleArea } from '../surface/flatArea.ts';
import type { Shell } from '../surface/shell.ts';
import { glove, head } from '../testing/sculpts.ts';
import { horn, sheet, sphericalCap, wholeShell } from '../testing/shapes.ts';
import { isLocallyInjective } from '../unfold/isLocallyInjective.ts';
import { unfoldShell } from '../unfold/unfold.ts';
import { intoDisc } from './intoDisc.ts';
import { outerTriangles } from './outerTriangles.ts';
import { relax } from './relax.ts';
import { invertedTriangles } from './removeInversions.ts';

const pairsIn = ({ triangles }: Shell, uv: Float64Array) => overlapsWithin(triangles, uv, 1e4).length / 2;
const unfolded = (shell: Shell) => unfoldShell(shell, 'conformal', unattended).uv;

/** A flat ring that goes on for some turns, rising. */
const ramp = (turns: number): Shell =>
  wholeShell(
    sheet(4, 48, (i, j) => {
      const a = (2 * Math.PI * turns * j) / 48;
      return [(2 + i / 4) * Math.cos(a), 0.1 * a, -(2 + i / 4) * Math.sin(a)];
    }),
  );

/** More than a full turn round a hole, waved, and cut open. */
const ruffled = (wave: number): Mesh =>
  sheet(12, 60, (i, j) => {
    const [r, a] = [0.1 + (0.9 * i) / 12, (1.9999 * Math.PI * j) / 60];
    return [r * Math.cos(a), r * Math.sin(a), wave * r * Math.sin(3 * a)];
  });
const ruffle = (wave: number): Shell => wholeShell(ruffled(wave));

/** A shell whose polygons may be split either way. */
const ofPolygons = (mesh: Mesh): Shell => ({ ...wholeShell(mesh), polygons: mesh });

/** Triangles round one corner, over some turns. */
const fan = (turns: number): Shell =>
  wholeShell(
    meshFromPolygons(
      [
        [0, 0, 0],
        ...Array.from({ length: 97 }, (_, j) => {
          const a = (2 * Math.PI * turns * j) / 96;
          return [Math.cos(a), Math.sin(a), 0.02 * a];
        }),
      ],
      Array.from({ length: 96 }, (_, j) => [0, j + 1, j + 2]),
    ),
  );

describe('relaxing what is to be kept from lying on itself', () => {
  it.each([
    ['a ramp of a turn and a half', ramp(1.5), 1.01],
    ['a ramp of two turns and a half', ramp(2.5), 1.01],
    ['a ruffle that is cut open', ruffle(0.4), 1.02],
    ['a fan of a little more than a turn', fan(1.02), 1.01],
    ['a ruffle of quads', ofPolygons(ruffled(0.4)), 1.02],
    ['a stronger one', ofPolygons(ruffled(0.8)), 1.05],
  ])('lays %s beside itself, for little stretch', (_, shell, most) => {
    const start = unfolded(shell);
    expect(pairsIn(shell, relax(shell, start, {}, unattended).uv)).toBeGreaterThan(0);
    const found = relax(shell, start, { clear: 'anew' }, unattended);
    expect(found.onItself).toBe('kept from it');
    expect(pairsIn(shell, found.uv)).toBe(0);
    const { l2, flipped, collapsed } = measureStretch(shell, found.uv);
    expect([flipped, collapsed]).toEqual([0, 0]);
    expect(invertedTriangles(anyDiagonal(shell), found.uv, 0)).toEqual([]);
    expect(l2).toBeLessThan(most);
    // As large as it was.
    expect(signedArea(shell.triangles, found.uv)).toBeCloseTo(signedArea(shell.triangles, start), 6);
  });

  it('changes nothing where nothing would lie on itself', () => {
    const cap = sphericalCap(8, 16, 1);
    const start = unfolded(cap);
    const found = relax(cap, start, { clear: 'anew' }, unattended);
    expect(found.onItself).toBe('no');
    expect(found.uv).toEqual(relax(cap, start, {}, unattended).uv);
  });

  it('leaves on itself what would have to stretch too much, and says so', () => {
    const shell = fan(4);
    const start = unfolded(shell);
    const found = relax(shell, start, { clear: 'anew' }, unattended);
    expect(found.onItself).toBe('yes');
    expect(found.uv).toEqual(relax(shell, start, {}, unattended).uv);
  });

  it('keeps what is held where it is: from a clear start it stays clear, from another it cannot', () => {
    const shell = ruffle(0.4);
    const start = unfolded(shell);
    const fixed = new Uint8Array(start.length / 2);
    fixed[3] = 1;
    expect(relax(shell, start, { clear: 'anew', fixed }, unattended).onItself).toBe('yes');
    const clear = intoDisc(shell);
    const found = relax(shell, clear, { clear: 'anew', fixed, scale: 1 }, unattended);
    expect(found.onItself).toBe('kept from it');
    expect(pairsIn(shell, found.uv)).toBe(0);
    expect(found.uv.slice(6, 8)).toEqual(clear.slice(6, 8));
  });

  it('stays clear in a few steps, and begins nothing anew for them', () => {
    const shell = ramp(1.5);
    const start = unfolded(shell);
    const kept = { steps: 6, clear: 'kept' } as const;
    expect(relax(shell, start, kept, unattended).onItself).toBe('yes');
    const { uv } = relax(shell, start, { clear: 'anew' }, unattended);
    expect(pairsIn(shell, relax(shell, uv, { steps: 6 }, unattended).uv)).toBeGreaterThan(0);
    const found = relax(shell, uv, kept, unattended);
    expect(found.onItself).toBe('kept from it');
    expect(found.steps).toBeLessThanOrEqual(6);
    expect(pairsIn(shell, found.uv)).toBe(0);
  });

  it('folds no polygon on the way that was not folded, and takes no more steps than it may', () => {
    const shell = ofPolygons(ruffled(0.8));
    const { uv } = relax(shell, unfolded(shell), { clear: 'anew' }, unattended);
    expect(invertedTriangles(anyDiagonal(shell), uv, 0)).toEqual([]);
    for (const balance of [0.2, 0.8]) {
      const found = relax(shell, uv, { steps: 6, clear: 'kept', balance }, unattended);
      expect(found.onItself).toBe('kept from it');
      expect(found.steps).toBeGreaterThan(0);
      expect(found.steps).toBeLessThanOrEqual(6);
      expect(invertedTriangles(anyDiagonal(shell), found.uv, 0)).toEqual([]);
      expect(pairsIn(shell, found.uv)).toBe(0);
    }
  });

  it('tells the energy of the map on its way, without what fills the outside', () => {
    const shell = ramp(1.5);
    const told: number[] = [];
    const report = ({ uv, figure = NaN }: { uv?: Float64Array; figure?: number }) => {
      if (uv) told.push(figure);
    };
    const { energyAfter } = relax(shell, unfolded(shell), { clear: 'anew' }, { ...unattended, report });
    expect(told.length).toBeGreaterThan(5);
    expect(told.every((figure) => figure >= 4)).toBe(true);
    expect(told[told.length - 1]).toBeCloseTo(energyAfter, 1);
  });

  it('keeps the last good map when it is stopped', () => {
    const shell = ramp(1.5);
    const start = unfolded(shell);
    const signal = { aborted: false };
    let plain = 0;
    relax(shell, start, {}, { ...unattended, report: () => plain++ });
    let reports = 0;
    const context = {
      signal,
      // What comes after the plain work keeps it clear.
      report: () => {
        if (++reports > plain) signal.aborted = true;
      },
    };
    const found = relax(shell, start, { clear: 'anew' }, context);
    expect(signal.aborted).toBe(true);
    expect(found.uv).toEqual(relax(shell, start, {}, unattended).uv);
  });
});

describe('a shell in a disc', () => {
  it.each([
    ['a horn', horn(80, 8, 10)],
    ['a glove', glove(44)],
    ['a head', head(40)],
    ['a cap', sphericalCap(10, 24, 2.5)],
  ])('is clear of itself, and flips nowhere: %s', (_, shell) => {
    const uv = intoDisc(shell);
    const onBorder = new Uint8Array(uv.length / 2);
    const { loops } = borders(shell.triangles, onBorder.length);
    for (const loop of loops) for (const v of loop) onBorder[v] = 1;
    const areas = triangleAreas(shell.positions, shell.triangles);
    expect(isLocallyInjective(shell.triangles, uv, areas, onBorder, 1e-10)).toBe(true);
    expect(pairsIn(shell, uv)).toBe(0);
    for (const v of loops[0])
      expect(Math.hypot(uv[2 * v], uv[2 * v + 1])).toBeCloseTo(
        Math.hypot(uv[2 * loops[0][0]], uv[2 * loops[0][0] + 1]),
        9,
      );
  });
});

describe('what is empty round a map', () => {
  // A square ring of 8 × 8 with a hole of 2 × 4, and a notch into its border.
  const isFull = (i: number, j: number) => !(i >= 3 && i < 5 && j >= 2 && j < 6) && !(i < 2 && j === 3);
  const at = (i: number, j: number) => 9 * i + j;
  const triangles = Uint32Array.from(
    Array.from({ length: 64 }, (_, k) => [Math.floor(k / 8), k % 8])
      .filter(([i, j]) => isFull(i, j))
      .flatMap(([i, j]) => [
        at(i, j),
        at(i, j + 1),
        at(i + 1, j + 1),
        at(i, j),
        at(i + 1, j + 1),
        at(i + 1, j),
      ]),
  );
  const uv = Float64Array.from({ length: 2 * 81 }, (_, k) =>
    k % 2 === 0 ? (k >> 1) % 9 : Math.floor((k >> 1) / 9),
  );
  const { loops } = borders(triangles, 81);
  const areaOf = (of: Uint32Array, places: Float64Array) =>
    Array.from({ length: of.length / 3 }, (_, t) => triangleArea(of, places, t));

  it('is filled to the last bit, in the hole and in the notch, by triangles that face up', () => {
    const outer = outerTriangles(uv, loops);
    if (!outer) throw new Error('no triangles');
    const places = new Float64Array([...uv, ...outer.added]);
    const areas = areaOf(outer.triangles, places);
    expect(Math.min(...areas)).toBeGreaterThan(0);
    // A regular polygon of 16 corners, one and a half times as far out as the map is wide.
    const round = 0.5 * 16 * (1.5 * 8) ** 2 * Math.sin(Math.PI / 8);
    expect(areas.reduce((sum, a) => sum + a, 0)).toBeCloseTo(round - (64 - 8 - 2), 9);

    expect(overlapsWithin(Uint32Array.from([...triangles, ...outer.triangles]), places, 10)).toHaveLength(0);
  });

  it('is not told of a map whose borders touch or cross', () => {
    const moved = uv.slice();
    // A corner of the notch onto its other side, and beyond it.
    for (const u of [4, 4.5]) {
      moved[2 * at(1, 3)] = u;
      expect(outerTriangles(moved, loops)).toBeUndefined();
    }
  });

  it('is found at any size', () => {
    for (const size of [1e-14, 1e14]) {
      const outer = outerTriangles(
        uv.map((x) => size * (x + 3)),
        loops,
      );
      expect(outer?.triangles.length).toBe(outerTriangles(uv, loops)?.triangles.length);
    }
  });
});
