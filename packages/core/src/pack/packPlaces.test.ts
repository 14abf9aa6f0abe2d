import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { StoppedError } from '../errors.ts';
import { unattended } from '../progress.ts';
import { expectLaid, fan, first, optionsWith, QUARTERS } from '../testing/packedShells.ts';
import { packBetter } from './packBetter.ts';
import { packFrom } from './packFrom.ts';
import { packInto } from './packInto.ts';
import type { PackShell } from './packShell.ts';
import { asItLies, type Placement } from './placement.ts';

const square = fan([1, 1, 1, 1]);

describe('packing from where shells lie', () => {
  it('brings any heap clear, without turning', () => {
    fc.assert(
      fc.property(
        fc.array(
          fc.tuple(
            fc.double({ min: -0.2, max: 1.2, noNaN: true }),
            fc.double({ min: 0, max: 1, noNaN: true }),
          ),
          {
            minLength: 2,
            maxLength: 9,
          },
        ),
        fc.constantFrom(0, 4, 24),
        fc.nat(),
        (middles, padding, seed) => {
          const shells = middles.map((_, i) => fan([1, 0.4 + 0.1 * (i % 5), 1, 0.7, 1.2]));
          const start = middles.map(([u, v]) => ({ u, v, angle: 0, scale: 0.12 }));
          const options = optionsWith(padding);
          const laid = packFrom(shells, start, { ...options, seed }, unattended);
          if (!laid) throw new Error('not cleared');
          expectLaid(shells, laid, options);
          expect(new Set(laid.map(({ angle, scale }) => `${angle} ${scale}`)).size).toBe(1);
          expect(laid[0].angle).toBe(0);
        },
      ),
      { numRuns: 25, endOnFailure: true },
    );
  });

  it('leaves shells where they are that lie clear, and moves others no farther than it must', () => {
    // Sides are √2 times the scale: those of the first two overlap by 0.02.
    const start = [0.2, 0.32, 0.7].map((u) => ({ u, v: 0.5, angle: 0, scale: 0.07 * Math.SQRT2 }));
    const turned = {
      ...square,
      uv: Float64Array.from([0, 0, 1, 1, -1, 1, -1, -1, 1, -1]).map((x) => x / Math.SQRT2),
    };
    const shells = start.map(() => turned);
    const laid = packFrom(shells, start, { ...optionsWith(2), seed: 1 }, unattended) as Placement[];
    expectLaid(shells, laid, optionsWith(2));
    expect(laid[2]).toEqual(start[2]);
    expect(laid[0].scale).toBe(start[0].scale);
    const moved = laid.map(({ u, v }, i) => Math.hypot(u - start[i].u, v - start[i].v));
    expect(moved[0] + moved[1]).toBeLessThan(0.08);
  });

  it('makes them smaller where there is no room at their size, and goes round what is locked', () => {
    const post = fan([0.3, 0.3, 0.3, 0.3]);
    const locked = { ...post, uv: post.uv.map((x) => x + 0.5), locked: true };
    const shells = [square, square, square, square, locked];
    const start = [
      ...[0.4, 0.5, 0.6, 0.5].map((u, i) => ({ u, v: 0.4 + 0.1 * i, angle: 0, scale: 0.4 })),
      asItLies(locked.uv),
    ];
    const laid = packFrom(shells, start, { ...optionsWith(4), seed: 1 }, unattended) as Placement[];
    expectLaid(shells, laid, optionsWith(4));
    expect(laid[0].scale).toBeLessThan(0.4);
    expect(laid[4]).toEqual(start[4]);
  });

  it('says that there is no room, and stops', () => {
    const wall = fan([1, 1, 1, 1]);
    const locked = { ...wall, uv: wall.uv.map((x) => x + 0.5), locked: true };
    const start = [{ u: 0.5, v: 0.5, angle: 0, scale: 0.2 }, asItLies(locked.uv)];
    const options = { ...optionsWith(4), seed: 1 };
    expect(packFrom([square, locked], start, options, unattended)).toBeUndefined();
    const stopped = { signal: { aborted: true } };
    expect(() => packFrom([square, locked], start, options, stopped)).toThrow(StoppedError);
  });
});

describe('packing into what is full', () => {
  it('finds room for one more by moving the others, at the same scale', () => {
    // Four squares of 0.4 spread out so that a fifth of 0.3 has room only once they move.
    const side = (s: number): PackShell => ({
      ...square,
      uv: Float64Array.from([0, 0, 1, 1, -1, 1, -1, -1, 1, -1]).map((x) => (x * s) / 2),
      turning: QUARTERS,
    });
    const shells = [...Array.from({ length: 5 }, () => side(0.3)), side(0.3)];
    const spread = [
      [0.17, 0.17],
      [0.83, 0.17],
      [0.17, 0.83],
      [0.83, 0.83],
      [0.5, 0.5],
    ].map(([u, v]) => ({ u, v, angle: 0, scale: 1 }));
    const options = { ...optionsWith(4), most: 1, rounds: 400, seed: 1 };
    const laid = packInto(shells, spread, options, unattended) as Placement[];
    expectLaid(shells, laid, options);
    for (const { scale } of laid) expect(scale).toBe(1);
    const full = Array.from({ length: 6 }, () => side(0.45));
    expect(packInto(full, spread, options, unattended)).toBeUndefined();
  });
});

describe('packing near each other', () => {
  it('keeps shells of one number together, at first and when made better, clear and at one scale', () => {
    const shells = Array.from({ length: 36 }, (_, i) => fan([1, 0.3 + 0.1 * (i % 7), 1, 0.5, 1.2]));
    const near = shells.map((shell, i) => ({ ...shell, near: i % 4 }));
    const options = optionsWith(4);
    const laidOut = (some: readonly PackShell[]) => {
      const start = first(some, options);
      expectLaid(some, start, options);
      const better = packBetter(some, start, { ...options, seed: 3, rounds: 60 }, unattended).placements;
      expectLaid(some, better, options);
      expect(new Set(better.map(({ scale }) => scale)).size).toBe(1);
      return [start, better];
    };
    /** Mean distance of shells from the middle of those of their number. */
    const spread = (placements: readonly Placement[]) => {
      const each = [0, 1, 2, 3].map((k) => {
        const own = placements.filter((_, i) => i % 4 === k);
        const u = own.reduce((sum, p) => sum + p.u, 0) / own.length;
        const v = own.reduce((sum, p) => sum + p.v, 0) / own.length;
        return own.reduce((sum, p) => sum + Math.hypot(p.u - u, p.v - v), 0) / own.length;
      });
      return each.reduce((sum, x) => sum + x, 0) / 4;
    };
    const [anyFirst, anyBetter] = laidOut(shells);
    const [nearFirst, nearBetter] = laidOut(near);
    expect(spread(nearFirst)).toBeLessThan(0.65 * spread(anyFirst));
    expect(spread(nearBetter)).toBeLessThan(0.7 * spread(anyBetter));
    expect(nearBetter[0].scale).toBeGreaterThan(0.85 * anyBetter[0].scale);
  });

  it('takes clusters of one shell, of lines and points, and goes round what is locked', () => {
    const line: PackShell = {
      triangles: Uint32Array.from([0, 1, 2]),
      uv: Float64Array.from([0, 0, 1, 0, 2, 0]),
      turning: [0],
    };
    const post = fan([0.1, 0.1, 0.1, 0.1]);
    const shells = [
      { ...fan([3, 3, 3, 3, 3]), near: 1 },
      { ...line, near: 2 },
      { ...line, uv: new Float64Array(6), near: 3 },
      ...Array.from({ length: 4 }, () => ({ ...square, near: 4 })),
      square,
      { ...post, uv: post.uv.map((x) => x + 0.6), locked: true },
    ];
    const options = optionsWith(4);
    const start = first(shells, options);
    const solid = [0, 3, 4, 5, 6, 7, 8];
    expectLaid(
      solid.map((i) => shells[i]),
      solid.map((i) => start[i]),
      options,
    );
    for (const { u, v } of start) expect(Number.isFinite(u + v)).toBe(true);
  });
});
