import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { StoppedError } from '../errors.ts';
import { overlapsWithin } from '../measure/overlap.ts';
import { measureStretch } from '../measure/stretch.ts';
import { unattended } from '../progress.ts';
import { restTriangles } from '../surface/restTriangles.ts';
import type { Shell } from '../surface/shell.ts';
import { shellTopology } from '../surface/shellTopology.ts';
import { glove, head, spikyBall } from '../testing/sculpts.ts';
import { sheet, wholeShell } from '../testing/shapes.ts';
import { areaTerm, energy } from './distortion.ts';
import { intoDisc } from './intoDisc.ts';
import { relaxOverlapFree, unfoldOverlapFree } from './overlapFree.ts';
import { isWorthCoarsening, progressiveOverlapFree } from './progressiveOverlapFree.ts';

const term = areaTerm(1);

/** A flat ring that goes on for some turns, rising, with waves. */
const ramp = (rings: number, sectors: number, turns: number, wave = 0): Shell =>
  wholeShell(
    sheet(rings, sectors, (i, j) => {
      const [r, a] = [1 + i / rings, (2 * Math.PI * turns * j) / sectors];
      return [r * Math.cos(a), r * Math.sin(a), 0.1 * a + wave * r * Math.sin(5 * a)];
    }),
  );

/** A flat sheet with a square hole in it, so that it has two borders, waved. */
function holed(size: number): Shell {
  const mesh = sheet(size, size, (i, j) => [i / size, j / size, 0.05 * Math.sin((9 * i) / size)]);
  const isHole = (k: number) => k > 0.4 * size && k < 0.6 * size;
  const corners: number[] = [];
  const starts = [0];
  for (let f = 0; f + 1 < mesh.faceStart.length; f++) {
    if (isHole(Math.floor(f / size)) && isHole(f % size)) continue;
    corners.push(...mesh.cornerVertex.subarray(mesh.faceStart[f], mesh.faceStart[f + 1]));
    starts.push(corners.length);
  }
  const used = [...new Set(corners)].sort((a, b) => a - b);
  const number = new Map(used.map((v, i) => [v, i]));
  return wholeShell({
    positions: Float64Array.from(used.flatMap((v) => [...mesh.positions.subarray(3 * v, 3 * v + 3)])),
    faceStart: Uint32Array.from(starts),
    cornerVertex: Uint32Array.from(corners, (v) => number.get(v) as number),
  });
}

const expectValid = (shell: Shell, uv: Float64Array): void => {
  const { flipped, collapsed } = measureStretch(shell, uv);
  expect([flipped, collapsed]).toEqual([0, 0]);
  expect(overlapsWithin(shell.triangles, uv, 1)).toHaveLength(0);
};

describe('a map by way of a coarse shell that does not lie on itself', () => {
  it.each([
    ['a ramp of three turns', ramp(10, 240, 3)],
    ['a sheet with a hole', holed(50)],
    ['a head', head(40)],
    ['a glove', glove(60)],
    ['a ball with spikes', spikyBall(46)],
  ])('is valid and near the least that a disc leads to: %s', (_, shell) => {
    expect(isWorthCoarsening(shell)).toBe(true);
    const uv = progressiveOverlapFree(shell, term, unattended);
    if (!uv) throw new Error('no map');
    expectValid(shell, uv);
    const found = relaxOverlapFree(shell, uv, {}, unattended);
    const direct = relaxOverlapFree(shell, intoDisc(shell), {}, unattended);
    if (!found || !direct) throw new Error('no map');
    expectValid(shell, found.uv);
    // A head with the neck alone open has several such maps, a few hundredths apart.
    expect(found.energyAfter).toBeLessThan(1.04 * direct.energyAfter);
    // It is near it before it is evened out on the finest.
    const rest = restTriangles(shell.positions, shell.triangles);
    expect(energy(shell.triangles, rest, uv, term)).toBeLessThan(1.5 * direct.energyAfter);
  });

  it('is valid whatever the shape', () => {
    const shapes = fc.record({
      rings: fc.integer({ min: 12, max: 30 }),
      turns: fc.double({ min: 0.3, max: 3, noNaN: true }),
      wave: fc.double({ min: 0, max: 0.6, noNaN: true }),
    });
    let maps = 0;
    fc.assert(
      fc.property(shapes, ({ rings, turns, wave }) => {
        const shell = ramp(rings, Math.ceil(3200 / rings), turns, wave);
        const uv = progressiveOverlapFree(shell, term, unattended);
        if (!uv) return;
        maps++;
        expectValid(shell, uv);
      }),
      { numRuns: 12 },
    );
    expect(maps).toBeGreaterThan(9);
  });

  it('is not looked for where a shell cannot lie flat', () => {
    const shell = spikyBall(40);
    expect(shellTopology(shell).kind).toBe('nonManifold');
    expect(unfoldOverlapFree(shell, {}, unattended)).toBeUndefined();
  });

  it('hears a stop', () => {
    const signal = { aborted: true };
    expect(() => progressiveOverlapFree(glove(60), term, { ...unattended, signal })).toThrow(StoppedError);
  });
});
