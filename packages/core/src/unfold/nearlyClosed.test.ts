import { describe, expect, it } from 'vitest';
import { measureStretch } from '../measure/stretch.ts';
import { unattended } from '../progress.ts';
import { discMetric } from '../relax/discMetric.ts';
import { boundedConformal, energy } from '../relax/distortion.ts';
import { progressiveEmbedding } from '../relax/progressive.ts';
import { relax } from '../relax/relax.ts';
import { borders } from '../surface/borders.ts';
import { coarsen } from '../surface/coarsen.ts';
import { signedArea, triangleArea } from '../surface/flatArea.ts';
import { restTriangles } from '../surface/restTriangles.ts';
import { type Shell, shellFromTriangles } from '../surface/shell.ts';
import { glove, head, spikyBall, tentacle } from '../testing/sculpts.ts';
import { horn, sphericalCap, tube } from '../testing/shapes.ts';
import { isLocallyInjective } from './isLocallyInjective.ts';
import { AREA_BOUND } from './nearlyClosed.ts';
import { METHODS, unfoldShell } from './unfold.ts';

/** Nearly closed discs, sleeves and what else breaks a plain solver. */
const hard: Record<string, () => Shell> = {
  'a horn of 60 rings': () => horn(60, 12, 30),
  'a horn of 200 rings': () => horn(200, 12, 60),
  'a sleeve': () => tube(65, 16, 30),
  'a sleeve with an arm hole': () => withHole(tube(65, 16, 30), 30 * 32 + 6),
  'a head with only the neck open': () => head(28),
  'a glove': () => glove(44),
  'a ball with eight spikes': () => spikyBall(46),
  'a tentacle': () => tentacle(40),
};

/** Without the triangles round one of them. */
function withHole(shell: Shell, triangle: number): Shell {
  const around = new Set(shell.triangles.subarray(3 * triangle, 3 * triangle + 3));
  const kept: number[] = [];
  for (let i = 0; i < shell.triangles.length; i += 3) {
    const three = shell.triangles.subarray(i, i + 3);
    if (!three.some((v) => around.has(v))) kept.push(...three);
  }
  const number = new Map<number, number>();
  const own = kept.map((v) => number.get(v) ?? number.set(v, number.size).size - 1);
  return shellFromTriangles(
    [...number.keys()].flatMap((v) => [...shell.positions.subarray(3 * v, 3 * v + 3)]),
    own,
  );
}

function isValid({ triangles, positions }: Shell, uv: Float64Array): boolean {
  const onBorder = new Uint8Array(positions.length / 3);
  for (const loop of borders(triangles, onBorder.length).loops) for (const v of loop) onBorder[v] = 1;
  return isLocallyInjective(triangles, uv, restTriangles(positions, triangles).area, onBorder);
}

describe.each(Object.entries(hard))('%s', (_, make) => {
  const shell = make();
  const rest = restTriangles(shell.positions, shell.triangles);

  it.each(METHODS)('lies flat without a flip or a collapse, %s, and relaxes', (method) => {
    const { uv } = unfoldShell(shell, method, unattended);
    expect(isValid(shell, uv)).toBe(true);
    expect(measureStretch(shell, uv)).toMatchObject({ flipped: 0, collapsed: 0 });
    const relaxed = relax(shell, uv, { steps: 20 }, unattended);
    expect(isValid(shell, relaxed.uv)).toBe(true);
    expect(relaxed.energyAfter).toBeLessThan(relaxed.energyBefore);
  });

  it('is as valid when single-precision numbers hold the map, at the size of a tile', () => {
    const { uv } = unfoldShell(shell, 'conformal', unattended);
    const extent = uv.reduce((most, x) => Math.max(most, Math.abs(x)), 0);
    const rounded = uv.map((x) => Math.fround(0.5 + x / extent / 2));
    expect(measureStretch(shell, rounded).flipped).toBe(0);
  });

  it('has a valid progressive embedding', () => {
    const uv = progressiveEmbedding(shell, rest, boundedConformal(AREA_BOUND), unattended);
    expect(isValid(shell, uv)).toBe(true);
  });

  it('is coarsened step by step to a mesh of the same borders and topology', () => {
    const vertexCount = shell.positions.length / 3;
    const { levels, base } = coarsen(shell.triangles, rest, vertexCount);
    const holes = borders(shell.triangles, vertexCount).loops.length;
    for (const { triangles, lengths } of [...levels.map(({ fine }) => fine), base]) {
      const found = borders(triangles, vertexCount);
      expect(found.nonManifold).toBe(false);
      expect(found.loops.length).toBe(holes);
      const used = new Set(triangles).size;
      expect(used - found.edgeCount + triangles.length / 3).toBe(2 - holes);
      // Sides along a surface are lengths of a triangle.
      for (let t = 0; t < lengths.length; t += 3) {
        const [a, b, c] = lengths.subarray(t, t + 3);
        expect(Math.max(a, b, c)).toBeLessThanOrEqual((a + b + c) * (0.5 + 1e-9));
      }
    }
    expect(base.triangles.length / 3).toBeLessThan(40 * holes);
  });
});

describe('the method', () => {
  it('is what it says: conformal has the lesser bounded conformal energy, angle-based is another map', () => {
    const shell = head(28);
    const rest = restTriangles(shell.positions, shell.triangles);
    const [conformal, angleBased] = METHODS.map((method) => {
      const { uv } = unfoldShell(shell, method, unattended);
      const { angleMean } = measureStretch(shell, uv);
      // At the scale of least energy; the area of the surface is near it.
      const least = Math.min(
        ...[0.5, 0.7, 1, 1.4, 2, 2.8, 4].map((s) =>
          energy(
            shell.triangles,
            rest,
            uv.map((x) => s * x),
            boundedConformal(AREA_BOUND),
          ),
        ),
      );
      return { least, angleMean };
    });
    expect(conformal.least).toBeLessThan(angleBased.least);
    expect(Math.abs(conformal.angleMean - angleBased.angleMean)).toBeGreaterThan(1e-3);
  });

  it('bounds how much smaller a part may be: no face of a horn is below a hundredth of a hundredth', () => {
    const shell = horn(60, 12, 30);
    const { uv } = unfoldShell(shell, 'conformal', unattended);
    const { area, totalArea } = restTriangles(shell.positions, shell.triangles);
    const unit = signedArea(shell.triangles, uv) / totalArea;
    for (let t = 0; t < area.length; t++)
      expect(triangleArea(shell.triangles, uv, t) / (unit * area[t])).toBeGreaterThan(1e-4);
  });

  it('leaves easy shells to the plain solver', () => {
    for (const method of METHODS)
      expect(unfoldShell(sphericalCap(12, 24, 1.6), method, unattended).repaired).toBe(false);
  });
});

describe('the disc metric', () => {
  it('leaves a disc as it is', () => {
    const shell = sphericalCap(20, 40, 0.05);
    const rest = restTriangles(shell.positions, shell.triangles);
    const { loops } = borders(shell.triangles, shell.positions.length / 3);
    const { totalArea } = discMetric(shell.positions, shell.triangles, rest, loops);
    expect(totalArea / rest.totalArea).toBeLessThan(1.05);
  });

  it('makes a horn a disc of its own slant length', () => {
    const shell = horn(200, 12, 60);
    const rest = restTriangles(shell.positions, shell.triangles);
    const { loops } = borders(shell.triangles, shell.positions.length / 3);
    const { totalArea } = discMetric(shell.positions, shell.triangles, rest, loops);
    expect(totalArea / (Math.PI * 60 ** 2)).toBeGreaterThan(0.95);
    expect(totalArea / (Math.PI * 60 ** 2)).toBeLessThan(1.05);
  });
});
