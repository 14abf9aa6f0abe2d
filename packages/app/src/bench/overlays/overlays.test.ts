import { FIRST_TILE } from '@blunt-hem/core/surface/tiles';
import { describe, expect, it } from 'vitest';
import type { ScaleAgainst } from '../../storage/looks.ts';
import { usualScale } from './against.ts';
import { area } from './area.ts';
import { OVERLAYS, overlayNamed } from './index.ts';
import { type Known, type Overlay, placeAt } from './overlay.ts';

describe('an overlay', () => {
  it.each(OVERLAYS.map((overlay) => [overlay.name, overlay] as const))(
    '%s is drawn anew when what it shows is another, and not otherwise',
    (_, overlay) => {
      const list = (count: number) => new Float32Array(count);
      const known = {
        figures: { logArea: list(1), angle: list(1), smoothLogArea: list(3), smoothAngle: list(3) },
        visibility: list(3),
        direction: list(1),
        patches: { names: ['A'], faces: [1], weights: [1], triangles: list(1) },
        shells: [],
        flat: { faceShell: Uint32Array.of(0), uv: list(6) },
        model: { triangleFace: Uint32Array.of(0) },
        scaleAgainst: 'most',
        chosenScale: undefined,
        tiles: [FIRST_TILE],
      } as unknown as Known;
      /** Whatever the overlay reads of what is known. */
      const read = new Set<string>();
      const watched = new Proxy(known, {
        get: (target, key) => {
          read.add(String(key));
          return target[key as keyof Known];
        },
        ownKeys: (target) => Reflect.ownKeys(target),
      });
      overlay.values(watched);
      overlay.smooth(watched);
      read.delete('triangles');
      const same = (a: readonly unknown[], b: readonly unknown[]) =>
        a.length === b.length && a.every((value, i) => value === b[i]);
      expect(same(overlay.needs(known), overlay.needs({ ...known }))).toBe(true);
      expect(read.size).toBeGreaterThan(0);
      // Those that hand all of it on: what scales are made from.
      const scales = ['scaleAgainst', 'chosenScale', 'shells', 'tiles', 'flat', 'model'];
      const keys = read.size < Object.keys(known).length ? read : scales;
      for (const key of keys) {
        const value = known[key as keyof Known];
        const copy = typeof value === 'object' ? structuredClone(value) : 'chosen';
        expect(same(overlay.needs(known), overlay.needs({ ...known, [key]: copy })), key).toBe(false);
      }
    },
  );
});

describe('the weights of patches', () => {
  it('are shown on their triangles once one of them is not as fine as the rest', () => {
    const known = (weights: readonly number[]) =>
      ({
        patches: { names: ['A', 'B'], faces: [1, 1], weights, triangles: Float32Array.of(0, 1, 2) },
      }) as never;
    const overlay = overlayNamed('weights') as Overlay;
    expect(overlay.isOffered?.(known([1, 1]))).toBe(false);
    expect(overlay.isOffered?.(known([1, 0.5]))).toBe(true);
    expect([...(overlay.values(known([4, 0.5])) ?? [])].map((value) => Math.exp(value).toFixed(3))).toEqual([
      '1.000',
      '4.000',
      '0.500',
    ]);
  });
});

describe('the ramp of an overlay', () => {
  it('says at its right end what lies there, however far its ends are drawn out', () => {
    const told: Readonly<Record<string, (figure: number) => number>> = {
      // A face that gets half its due is stretched twice.
      area: (factor) => -Math.log(factor),
      angle: (degrees) => degrees,
      both: (factor) => Math.log(factor),
      direction: (factor) => Math.log(factor),
      density: (factor) => Math.log(factor),
      weights: (factor) => Math.log(factor),
    };
    expect(OVERLAYS.filter(({ anchor }) => anchor !== undefined).map(({ name }) => name)).toEqual(
      Object.keys(told),
    );
    for (const [name, value] of Object.entries(told))
      for (const reach of [0.5, 1, 2, 4]) {
        const overlay = overlayNamed(name) as Overlay;
        const [, middle, right] = overlay.legend?.(reach) ?? [];
        const figure = Number(right?.replace(/[^\d.]/g, ''));
        expect(placeAt(overlay, reach, value(figure))).toBeCloseTo(1, 1);
        if (name === 'area') expect([middle, placeAt(overlay, reach, 0)]).toEqual(['even', 0.5]);
      }
  });

  it('measures area against the shell itself, the rest, or a number', () => {
    // Two triangles of two shells, of which the second is twice as fine as the first, which is most of the surface.
    const stretch = (area: number, density: number) => ({ area, uvArea: area * density ** 2 }) as never;
    const known = {
      figures: {
        logArea: Float32Array.of(0, 0),
        angle: new Float32Array(2),
        smoothLogArea: new Float32Array(6),
        smoothAngle: new Float32Array(6),
      },
      shells: [
        { unfolded: true, stretch: stretch(10, 0.1) },
        { unfolded: true, stretch: stretch(1, 0.2) },
      ],
      flat: { faceShell: Uint32Array.of(0, 1) },
      model: { triangleFace: Uint32Array.of(0, 1) },
      chosenScale: 0.4 * 2048,
      tiles: [{ height: 2048, width: 2048 }],
    } as unknown as Known;
    const shown = (scaleAgainst: ScaleAgainst, more: Partial<Known> = {}) =>
      [...(area.values({ ...known, scaleAgainst, ...more }) as Float32Array)].map(Math.exp);
    const near = (...figures: number[]) => figures.map((each) => expect.closeTo(each, 5));
    expect(shown('shell')).toEqual([1, 1]);
    expect(shown('others')).toEqual(near(1, 4));
    expect(shown('chosen')).toEqual(near(1 / 16, 1 / 4));
    expect(shown('chosen', { chosenScale: 0.1 * 2048 })).toEqual(near(1, 4));
    const smooth = area.smooth({ ...known, scaleAgainst: 'others' }) as Float32Array;
    expect([...smooth].map(Math.exp)).toEqual(near(1, 1, 1, 4, 4, 4));
    // A part of the triangles, as under the brush.
    const part = { ...known.figures, logArea: Float32Array.of(0) } as Known['figures'];
    expect(shown('others', { figures: part, triangles: Uint32Array.of(1) })).toEqual(near(4));
    expect(usualScale(known)).toBeCloseTo(0.1 * 2048, 6);
  });

  it('stays as it is where nothing can be drawn out', () => {
    const seen = overlayNamed('exposure') as Overlay;
    expect(placeAt(seen, 4, 0.25)).toBe(seen.place(0.25));
  });
});
