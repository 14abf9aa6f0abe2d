import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { StoppedError } from '../errors.ts';
import { unattended } from '../progress.ts';
import { expectLaid, fan, first, optionsWith, QUARTERS, ring } from '../testing/packedShells.ts';
import { packBetter } from './packBetter.ts';
import { packFirst, packSome } from './packFirst.ts';
import type { PackOptions, PackShell } from './packShell.ts';

const shape = fc.array(fc.double({ min: 0.2, max: 2, noNaN: true }), { minLength: 3, maxLength: 9 });

describe('packing', () => {
  it('overlaps nothing, keeps the gap and stays in the frame, at first and when it is made better', () => {
    fc.assert(
      fc.property(
        fc.array(shape, { minLength: 1, maxLength: 7 }),
        fc.constantFrom(0, 2, 16),
        fc.constantFrom<PackOptions['frame']>(
          [0, 0, 1, 1],
          [0, 0, 2, 1],
          [1, 2, 1.5, 3],
          [0.3, 0.1, 0.9, 0.5],
        ),
        fc.constantFrom<PackShell['turning']>([0], QUARTERS, 'free'),
        fc.nat(),
        (radii, padding, frame, turning, seed) => {
          const shells = radii.map((each) => fan(each, turning));
          const options = optionsWith(padding, { frame });
          const start = first(shells, options);
          expectLaid(shells, start, options);
          const better = packBetter(shells, start, { ...options, seed, rounds: 30 }, unattended).placements;
          expectLaid(shells, better, options);
          expect(better[0].scale).toBeGreaterThanOrEqual(start[0].scale);
          for (const { scale } of better) expect(scale).toBe(better[0].scale);
          if (turning !== 'free') for (const { angle } of better) expect(turning).toContain(angle);
        },
      ),
      { numRuns: 40, endOnFailure: true },
    );
  });

  it('goes round what is locked, and leaves it', () => {
    fc.assert(
      fc.property(
        fc.array(shape, { minLength: 1, maxLength: 5 }),
        fc.double({ min: 0.1, max: 0.3, noNaN: true }),
        (radii, size) => {
          const post = fan([size, size, size, size]);
          const locked = { ...post, uv: post.uv.map((x) => x / 2 + 0.45), locked: true };
          // What is locked may lie in the gap of other locked shells, and out of the frame.
          const beside = { ...locked, uv: locked.uv.map((x, i) => x + (i % 2 ? 0 : size)) };
          const shells = [...radii.map((each) => fan(each)), locked, beside];
          const options = optionsWith(4);
          const start = first(shells, options);
          expectLaid(shells, start, options);
          const better = packBetter(
            shells,
            start,
            { ...options, seed: 3, rounds: 20 },
            unattended,
          ).placements;
          expectLaid(shells, better, options);
          expect(better.slice(-2)).toEqual(start.slice(-2));
        },
      ),
      { numRuns: 25, endOnFailure: true },
    );
  });

  it('makes others larger beside locked ones that lie on each other', () => {
    const post = fan([0.1, 0.1, 0.1, 0.1]);
    const locked = [0.1, 0.15].map((at) => ({ ...post, uv: post.uv.map((x) => x + at), locked: true }));
    const shells = [fan([1, 1, 1]), fan([1, 0.4, 1, 0.4]), fan([1, 1, 1, 1, 1]), ...locked];
    const options = optionsWith(4);
    const start = first(shells, options);
    const { placements } = packBetter(shells, start, { ...options, seed: 1, rounds: 60 }, unattended);
    expect(placements[0].scale).toBeGreaterThan(1.02 * start[0].scale);
    expectLaid(shells, placements, options);
  });

  it('lays small shells into the holes of large ones', () => {
    const shells = [ring(4, 3.6), ...Array.from({ length: 9 }, () => fan([1, 1, 1, 1, 1, 1]))];
    const options = optionsWith(4);
    const start = first(shells, options);
    expectLaid(shells, start, options);
    const within = start
      .slice(1)
      .filter(({ u, v }) => Math.hypot(u - start[0].u, v - start[0].v) < 3.6 * start[0].scale);
    expect(within.length).toBeGreaterThan(4);
  });

  it('comes to the same with the same seed, to another layout with another, and is never worse', () => {
    const shells = Array.from({ length: 20 }, (_, i) => fan([1, 0.3 + 0.1 * (i % 7), 1, 0.5, 1.2]));
    const options = optionsWith(4);
    const start = first(shells, options);
    const run = (seed: number) =>
      packBetter(shells, start, { ...options, seed, rounds: 60 }, unattended).placements;
    expect(run(5)).toEqual(run(5));
    expect(run(6)).not.toEqual(run(5));
    expect(run(5)[0].scale).toBeGreaterThan(1.03 * start[0].scale);
  });

  it('exceeds no scale that it is given, and reaches it where there is room', () => {
    const shells = [fan([1, 1, 1]), fan([1, 1, 1, 1])];
    const options = optionsWith(4, { most: 0.1 });
    expect(first(shells, options).map(({ scale }) => scale)).toEqual([0.1, 0.1]);
  });

  it('fills the frame with a single shell, turned as it fits best', () => {
    const plank = (turning: PackShell['turning']): PackShell => ({
      triangles: Uint32Array.from([0, 1, 2, 0, 2, 3]),
      uv: Float64Array.from([0, 0, 4, 3, 3.4, 3.8, -0.6, 0.8]),
      turning,
    });
    const options = { ...optionsWith(8), rounds: 400, seed: 1 };
    const scaleOf = (shell: PackShell) =>
      packBetter([shell], first([shell], options), options, unattended).placements[0].scale;
    const room = 1 - 2 * options.gap;
    // 4.6 × 3.8 as it is; a plank of 5 × 1 fits aslant along the diagonal: (5 + 1) / √2 square.
    expect(scaleOf(plank([0])) / (room / 4.6)).toBeCloseTo(1, 3);
    expect(scaleOf(plank('free')) / (room / (6 * Math.SQRT1_2))).toBeCloseTo(1, 2);
  });

  it('lays as many as fit at a scale, and says which do not', () => {
    const shells = Array.from({ length: 12 }, (_, i) => fan([1, 1, 1, 1].map((r) => r * (i === 3 ? 9 : 1))));
    const options = { ...optionsWith(4), most: 0.2 };
    const found = packSome(shells, options, unattended);
    expect(found[3]).toBeUndefined();
    const laid = shells.flatMap((shell, i) => (found[i] ? [[shell, found[i]] as const] : []));
    expect(laid.length).toBeGreaterThan(4);
    expect(laid.length).toBeLessThan(12);
    expectLaid(
      laid.map(([shell]) => shell),
      laid.map(([, place]) => place),
      options,
    );
  });

  it('says that gaps alone fill the frame, and takes shells without area', () => {
    const many = Array.from({ length: 40 }, () => fan([1, 1, 1]));
    expect(packFirst(many, optionsWith(200), unattended)).toBeUndefined();
    const line: PackShell = {
      triangles: Uint32Array.from([0, 1, 2]),
      uv: Float64Array.from([0, 0, 1, 0, 2, 0]),
      turning: [0],
    };
    const point: PackShell = { ...line, uv: new Float64Array(6) };
    const shells = [line, fan([1, 1, 1]), point];
    const start = first(shells, optionsWith(4));
    const better = packBetter(
      shells,
      start,
      { ...optionsWith(4), seed: 1, rounds: 20 },
      unattended,
    ).placements;
    for (const { u, v } of better) expect(Number.isFinite(u + v)).toBe(true);
  });

  it('gives up when it is stopped before anything fits', () => {
    const stopped = { signal: { aborted: true }, report: () => undefined };
    expect(() => packFirst([fan([1, 1, 1]), fan([1, 1, 1])], optionsWith(4), stopped)).toThrow(StoppedError);
  });
});
