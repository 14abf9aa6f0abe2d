import { existsSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { CommanderError } from 'commander';
import { describe, expect, it } from 'vitest';
import { file, folder, hem, run } from './testing/hem.ts';

/** A flat plate of some width and height, with UVs at a tenth of its size, in a row with others. */
function plate(place: number, width: number, height: number): string {
  const [left, base] = [6 * place, 4 * place];
  const corners = [
    [0, 0],
    [width, 0],
    [width, height],
    [0, height],
  ];
  return [
    `o Plate${place}`,
    ...corners.map(([x, y]) => `v ${left + x} ${y} 0`),
    ...corners.map(
      ([x, y]) =>
        `vt ${(x / 20 + (place % 3) / 3.5).toFixed(6)} ${(y / 20 + Math.floor(place / 3) / 4).toFixed(6)}`,
    ),
    `f ${[1, 2, 3, 4].map((k) => `${base + k}/${base + k}`).join(' ')}`,
    '',
  ].join('\n');
}

describe('hem arrange', () => {
  const input = () => file('row.obj', plate(0, 3, 1) + plate(1, 4, 1) + plate(2, 2, 2));
  const out = join(folder, 'row-arranged.obj');

  it('carries out acts one after the other, and tells what came of each', async () => {
    const script = file(
      'acts.json',
      JSON.stringify({
        acts: [
          { operation: 'align-shells', params: { shells: [0, 1, 2], to: 'bottom' } },
          { operation: 'spread-shells', params: { shells: [0, 1, 2], along: 'u', gap: 16 } },
          {
            operation: 'align-points',
            params: {
              places: [
                { vertex: 0, face: 0 },
                { vertex: 3, face: 0 },
              ],
              to: 'mean-u',
            },
          },
        ],
      }),
    );
    const told = (await run(['arrange', input(), '--script', script, '--out', out])) as {
      acts: { operation: string }[];
      overlaps: number;
    };
    expect(told.acts.map(({ operation }) => operation)).toEqual([
      'align-shells',
      'spread-shells',
      'align-points',
    ]);
    expect(told.overlaps).toBe(0);
    const uv = [...readFileSync(out, 'utf8').matchAll(/^vt (\S+) (\S+)$/gm)].map(([, u, v]) => [
      Number(u),
      Number(v),
    ]);
    const boxOf = (s: number) =>
      [0, 1].flatMap((k) =>
        [Math.min, Math.max].map((f) => f(...uv.slice(4 * s, 4 * s + 4).map((p) => p[k]))),
      );
    const [a, b, c] = [0, 1, 2].map(boxOf);
    expect([b[2], c[2]]).toEqual([a[2], a[2]]);
    expect(2048 * (b[0] - a[1])).toBeCloseTo(16, 2);
    expect(2048 * (c[0] - b[1])).toBeCloseTo(16, 2);
  });

  it('says which act cannot be done and why, and writes nothing', async () => {
    const told = async (script: unknown) => {
      const path = file('bad.json', typeof script === 'string' ? script : JSON.stringify(script));
      const { code, err } = await hem(
        'arrange',
        input(),
        '--script',
        path,
        '--out',
        join(folder, 'none.obj'),
      );
      expect(existsSync(join(folder, 'none.obj'))).toBe(false);
      return `${code} ${err.trim()}`;
    };
    const swap = { operation: 'swap-shells', params: { shells: [0, 1, 2] } };
    expect(await told({ acts: [{ operation: 'fit-shells', params: { shells: [0] } }, swap] })).toBe(
      '2 Act 2, swap-shells: Only two shells change places, not 3.',
    );
    expect(await told({ acts: [{ operation: 'unfold' }] })).toMatch(
      /^2 bad.json: "acts\[0\].operation" must be one of/,
    );
    expect(await told({ acts: [{ operation: 'swap-shells', params: { shells: 'all' } }] })).toMatch(
      /^1 Act 1, swap-shells: /,
    );
    expect(await told('[')).toMatch(/^2 bad.json: this is not JSON/);
  });
});

describe('hem pack', () => {
  it('packs what a file has: turned, locked, over tiles, at a density, the same each time', async () => {
    const plates = Array.from({ length: 9 }, (_, i) => `${plate(i, 3 + (i % 3), 1)}`).join('');
    const input = file('plates.obj', plates);
    const out = join(folder, 'plates-packed.obj');
    type Told = {
      steps: number;
      covered: number;
      overlaps: number;
      findings: { kind: string }[];
      tiles: { number: number; covered: number }[];
      model: { density: number };
    };
    const pack = async (...more: string[]) =>
      (await run([
        'pack',
        input,
        '--out',
        out,
        ...(more.includes('--jobs') ? [] : ['--jobs', '1']),
        ...more,
      ])) as Told;
    // A shell that is turned may stand on its head: that is a hint, and no fault.
    const faults = ({ findings }: Told) => findings.filter(({ kind }) => kind !== 'upside-down');
    const first = await pack('--size', '1024', '--padding', '4', '--steps', '0', '--turning', 'none');
    const better = await pack(
      '--size',
      '1024',
      '--padding',
      '4',
      '--steps',
      '60',
      '--seed',
      '3',
      '--turning',
      'free',
    );
    expect(first.tiles).toMatchObject([{ number: 1001, width: 1024, height: 1024, padding: 4 }]);
    expect(better.covered).toBeGreaterThan(1.05 * first.covered);
    expect([better.steps, better.overlaps, faults(better)]).toEqual([60, 0, []]);
    const text = readFileSync(out, 'utf8');
    await pack('--size', '1024', '--padding', '4', '--steps', '60', '--seed', '3', '--turning', 'free');
    expect(readFileSync(out, 'utf8')).toBe(text);
    // On one thread or several.
    await pack(
      '--size',
      '1024',
      '--padding',
      '4',
      '--steps',
      '60',
      '--seed',
      '3',
      '--turning',
      'free',
      '--jobs',
      '2',
    );
    expect(readFileSync(out, 'utf8')).toBe(text);
    const timed = await pack('--seconds', '0.2');
    expect([timed.overlaps, faults(timed)]).toEqual([0, []]);
    const two = await pack('--tiles', '2', '--steps', '0');
    expect(two.tiles.map(({ number }) => number)).toEqual([1001, 1002]);
    for (const { covered } of two.tiles) expect(covered).toBeGreaterThan(0.3);
    const dense = await pack('--density', '200', '--padding', '2');
    // Texture scale is told in texels, of which a tile has 2048.
    expect(2048 * dense.model.density).toBeCloseTo(200, 3);
    const placeOf = (of: string) =>
      [...of.matchAll(/^vt (.*)$/gm)].slice(0, 4).map(([, uv]) => uv.split(' ').map(Number));
    await pack('--lock', file('first.json', '{"faces": [0]}'));
    expect(placeOf(readFileSync(out, 'utf8'))).toEqual(placeOf(plates));
    await expect(pack('--tiles', '2', '--density', '9')).rejects.toThrow(CommanderError);
    await expect(pack('--steps', '2', '--seconds', '9')).rejects.toThrow(CommanderError);
    await expect(pack('--tiles', '0')).rejects.toThrow(CommanderError);
  });

  it('packs into a region, near what is alike, from where shells lie, and finer where it is asked to', async () => {
    const plates = Array.from({ length: 9 }, (_, i) => `${plate(i, 3 + (i % 3), 1)}`).join('');
    const input = file('some.obj', plates);
    const out = join(folder, 'some-packed.obj');
    type Told = { overlaps: number; outside: number; tiles: { covered: number }[]; notes: string[] };
    const pack = async (...more: string[]) =>
      (await run([
        'pack',
        input,
        '--out',
        out,
        ...(more.includes('--jobs') ? [] : ['--jobs', '1']),
        ...more,
      ])) as Told;
    const uvs = () =>
      [...readFileSync(out, 'utf8').matchAll(/^vt (\S+) (\S+)$/gm)].map(([, u, v]) => [Number(u), Number(v)]);
    expect((await pack('--region', '0.5,0,1,0.5')).overlaps).toBe(0);
    for (const [u, v] of uvs()) expect(u > 0.5 && u < 1 && v > 0 && v < 0.5).toBe(true);
    expect((await pack('--near', 'part')).overlaps).toBe(0);
    const tidied = await pack('--start', 'here', '--steps', '0');
    expect([tidied.overlaps, tidied.outside]).toEqual([0, 0]);
    const widthOf = (shell: number) => {
      const own = uvs().slice(4 * shell, 4 * shell + 4);
      return Math.hypot(own[1][0] - own[0][0], own[1][1] - own[0][1]);
    };
    await pack(
      '--weights',
      file('weights.json', '{"weights": [{"part": "Plate3", "times": 2}]}'),
      '--steps',
      '0',
    );
    expect(widthOf(3) / widthOf(0)).toBeCloseTo(2, 3);
    await pack('--weights', file('faces.json', '{"weights": [{"faces": [0], "times": 3}]}'), '--steps', '0');
    expect(widthOf(0) / widthOf(3)).toBeCloseTo(3, 3);
  });

  it('says what is wrong with a region or with weights', async () => {
    const input = file('two.obj', plate(0, 3, 1) + plate(1, 4, 1));
    const told = async (...more: string[]) => {
      const { code, err } = await hem(
        'pack',
        input,
        '--jobs',
        '1',
        '--out',
        join(folder, 'two-packed.obj'),
        ...more,
      );
      return `${code} ${err.split('\n')[0]}`;
    };
    expect(await told('--region', '0.5,0,1')).toMatch(/^1 .*four numbers with commas between/);
    expect(await told('--region', '5,5,6,6')).toMatch(/^2 .*draw it inside a tile/);
    const weights = (text: string) => told('--weights', file('wrong.json', text));
    expect(await weights('{')).toMatch(/^2 .*not JSON/);
    expect(await weights('{"weights": [{"part": "Hat", "times": 2}]}')).toMatch(
      /^2 .*no part “Hat”.*“Plate0”, “Plate1”/,
    );
    expect(await weights('{"weights": [{"material": "Wood", "times": 2}]}')).toMatch(
      /^2 .*no material “Wood”. It has none/,
    );
    expect(await weights('{"weights": [{"part": "Plate0", "times": 900}]}')).toMatch(
      /^2 .*less than or equal to 16/,
    );
    expect(await weights('{"weights": [{"times": 2}]}')).toMatch(/^2 .*at least one of/);
    expect(await weights('{"weights": [{"faces": [77], "times": 2}]}')).toMatch(/^2 /);
  });
});
