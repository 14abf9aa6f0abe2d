import { existsSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { decode } from 'fast-png';
import { describe, expect, it } from 'vitest';
import { file, folder, run } from './testing/hem.ts';

/** A square in space of side 2, over the whole tile, and another model a little above it that leans. */
const SQUARE = [
  'v 0 0 0\nv 2 0 0\nv 2 0 -2\nv 0 0 -2',
  'vt 0 0\nvt 1 0\nvt 1 1\nvt 0 1\nf 1/1 2/2 3/3 4/4\n',
].join('\n');
const LEANING = 'v -1 0.01 1\nv 3 0.05 1\nv 3 0.05 -3\nv -1 0.01 -3\nf 1 2 3 4\n';

describe('hem bake', () => {
  const out = join(folder, 'map.png');
  const words = (input: string, map: string, size: string): string[] => [
    'bake',
    input,
    '--map',
    map,
    '--size',
    size,
    '--out',
    out,
    '--over',
  ];

  it('writes a map of the UVs a file has, the same on one thread and on two', async () => {
    const input = file('square.obj', SQUARE);
    const maps = [];
    for (const jobs of [1, 2]) {
      const told = await run([...words(input, 'position', '64'), '--jobs', String(jobs)]);
      expect(told).toMatchObject({
        out: 'map.png',
        tile: 1001,
        width: 64,
        height: 64,
        covered: 64 * 64,
        missed: 0,
      });
      maps.push(readFileSync(out));
    }
    expect(maps[1].equals(maps[0])).toBe(true);
    const { data, depth, channels } = decode(maps[0]);
    expect([depth, channels]).toEqual([16, 3]);
    // The middle of the first texel, from the top left: x = 1/64 of 2, z = −2 and as much.
    expect(data[0] / 65_535).toBeCloseTo(0.5 / 64, 4);
    expect(data[2] / 65_535).toBeCloseTo(0.5 / 64, 4);
  });

  it('takes a map from another model, and tells where it was not met', async () => {
    const [input, sculpt] = [file('square.obj', SQUARE), file('leaning.obj', LEANING)];
    const from = [...words(input, 'normal', '32'), '--from', sculpt];
    expect(await run(from)).toMatchObject({ missed: 0 });
    const lean = 0.04 / 4 / Math.hypot(1, 0.04 / 4);
    const { data } = decode(readFileSync(out));
    expect(data[0] / 65_535).toBeCloseTo(0.5 - 0.5 * lean, 4);
    expect(await run([...from, '--distance', '0.001'])).toMatchObject({ missed: 32 * 32, covered: 0 });
  });

  it('says in a sentence what it cannot do, and writes nothing', async () => {
    const input = file('square.obj', SQUARE);
    const none = join(folder, 'none.png');
    const bare = file('bare.obj', LEANING);
    const call = (...more: readonly string[]) => run(['bake', ...more, '--map', 'normal', '--out', none]);
    await expect(call(bare)).rejects.toThrow('there are no UVs in this file');
    await expect(call(input, '--tile', '1002')).rejects.toThrow('nothing lies in tile 1002. There is 1001.');
    for (const distance of ['far', '0', '-1', ''])
      await expect(call(input, '--distance', distance)).rejects.toThrow(/number above 0, up to 1/);
    await expect(call(input, '--rays', 'many')).rejects.toThrow(/rays/);
    await expect(call(input, '--out', join(folder, 'map.jpg'))).rejects.toThrow(/must end in \.png|--out/);
    expect(existsSync(none)).toBe(false);
  });
});
