import { execFile } from 'node:child_process';
import { readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { writeGlb } from '@blunt-hem/core/formats/writeGlb';
import { writeObj } from '@blunt-hem/core/formats/writeObj';
import { modelFromMesh } from '@blunt-hem/core/mesh/model';
import { meshOfShell } from '@blunt-hem/core/surface/cutShell';
import { sheet, tube } from '@blunt-hem/core/testing/shapes';
import { CommanderError } from 'commander';
import { describe, expect, it } from 'vitest';
import { program } from './program.ts';
import { file, folder, hem, main, run } from './testing/hem.ts';

const CUBE = file(
  'cube.obj',
  'o Box\nv -1 -1 -1\nv 1 -1 -1\nv 1 1 -1\nv -1 1 -1\nv -1 -1 1\nv 1 -1 1\nv 1 1 1\nv -1 1 1\nf 4 3 2 1\nf 5 6 7 8\nf 1 2 6 5\nf 2 3 7 6\nf 3 4 8 7\nf 4 1 5 8\n',
);
/** The seven edges of the cross (common practice). */
const CROSS = file('cross.json', '{"edges": [[0,1],[1,2],[2,3],[4,5],[5,6],[6,7],[1,5]]}');

describe('hem', () => {
  it('measures and relaxes the UV set that is meant', async () => {
    const flat = sheet(3, 3, (i, j) => [j, i, 0]);
    const corners = [...flat.cornerVertex].flatMap((v) => [...flat.positions.subarray(3 * v, 3 * v + 2)]);
    const even = Float64Array.from(corners, (x) => x / 4);
    const drawn = even.map((x, i) => (i % 2 === 0 ? x : x / 3));
    const path = join(folder, 'sets.glb');
    writeFileSync(path, await writeGlb(modelFromMesh('Sheet', flat), [even, drawn]));
    const l2Of = async (file: string, ...more: string[]) =>
      ((await run(['measure', file, ...more])) as { readonly model: { readonly l2: number } }).model.l2;
    expect(await l2Of(path)).toBeCloseTo(1, 6);
    // Three times as long as wide: √((3 + 1 / 3) / 2), once scale is left out (Sander et al. 2001).
    expect(await l2Of(path, '--set', 'UV 2')).toBeCloseTo(Math.sqrt((3 + 1 / 3) / 2), 5);
    await expect(run(['measure', path, '--set', 'Paint'])).rejects.toThrow(
      'sets.glb: it has no UV set “Paint”. There are “UV”, “UV 2”.',
    );
    const out = join(folder, 'sets-relaxed.glb');
    await run(['relax', path, '--set', 'UV 2', '--out', out]);
    expect(await l2Of(out)).toBeCloseTo(1, 6);
    expect(await l2Of(out, '--set', 'UV 2')).toBeCloseTo(1, 4);
  });

  it('tells about a file', async () => {
    const { code, out } = await hem('info', CUBE);
    expect(code).toBe(0);
    expect(JSON.parse(out)).toMatchObject({
      vertices: 8,
      faces: 6,
      triangles: 12,
      shells: 1,
      borders: 0,
      topologies: ['closed'],
    });
  });

  it('writes over no model unless it is asked to, and no seams over anything else', async () => {
    const own = file('own.obj', readFileSync(CUBE, 'utf8'));
    const before = readFileSync(own, 'utf8');
    const refused = await hem('unfold', own, '--seams', CROSS, '--out', own);
    expect([refused.code, refused.err]).toEqual([1, expect.stringMatching(/is the model itself.*--over/)]);
    expect((await hem('propose-seams', own, '--out', own)).err).toMatch(/must end in \.json/);
    expect(readFileSync(own, 'utf8')).toBe(before);
    expect((await hem('unfold', own, '--seams', CROSS, '--out', own, '--over')).code).toBe(0);
    expect(readFileSync(own, 'utf8')).toMatch(/^vt /m);
  });

  it('minds neither a reader that has had enough nor a full disk', async () => {
    const shell = (line: string) =>
      new Promise<{ code: number; err: string }>((resolve) => {
        execFile('/bin/bash', ['-c', `${process.execPath} --import tsx ${main} ${line}`], (error, _, err) =>
          resolve({ code: Number(error?.code ?? 0), err }),
        );
      });
    expect(await shell(`info ${CUBE} | true`)).toEqual({ code: 0, err: '' });
    const full = await shell(`info ${CUBE} > /dev/full`);
    expect(full.code).toBe(2);
    expect(full.err).toMatch(/^The result cannot be written: there is no room left for it\..*\n$/);
  });

  it('opens a cube into a cross without stretch, and measures what it wrote', async () => {
    const out = join(folder, 'out.obj');
    const done = await hem(
      'unfold',
      CUBE,
      '--seams',
      CROSS,
      '--relax',
      '--pack',
      '--size',
      '512',
      '--padding',
      '4',
      '--out',
      out,
    );
    expect(done.err).toBe('');
    const report = JSON.parse(done.out);
    expect(Object.keys(report.seconds)).toEqual(['read', 'seams', 'solve', 'relax', 'pack', 'write']);
    expect(report.shells).toHaveLength(1);
    expect(report.shells[0].l2).toBeCloseTo(1, 9);
    expect(report.shells[0].flipped).toBe(0);
    expect(readFileSync(out, 'utf8').match(/^vt /gm)).toHaveLength(14);
    const measured = JSON.parse((await hem('measure', out)).out);
    expect(measured).toMatchObject({ shellCount: 1, overlaps: 0 });
    expect(measured.shells[0].l2).toBeCloseTo(1, 6);
    expect(measured).toMatchObject({
      outside: 0,
      shells: [{ flipped: 0, collapsed: 0, folded: 0, concave: 0 }],
    });
    // Nothing overlaps and all lies inside: what is covered is the sum of the faces (shoelace formula).
    const text = readFileSync(out, 'utf8');
    const uv = [...text.matchAll(/^vt (\S+) (\S+)$/gm)].map(([, u, v]) => [Number(u), Number(v)]);
    const faces = [...text.matchAll(/^f (.+)$/gm)].map(([, list]) =>
      list.split(' ').map((corner) => uv[Number(corner.split('/')[1]) - 1]),
    );
    const area = faces.flatMap((face) =>
      face.map(
        ([u, v], i) => 0.5 * (u * face[(i + 1) % face.length][1] - face[(i + 1) % face.length][0] * v),
      ),
    );
    expect(Math.abs(measured.covered - area.reduce((a, b) => a + b, 0))).toBeLessThan(0.002);
  });

  it('packs on a texture that is not square: true shapes there, half as wide in the UVs of the file', async () => {
    const out = join(folder, 'wide.obj');
    const words = [
      'unfold',
      CUBE,
      '--seams',
      CROSS,
      '--pack',
      '--size',
      '4096x2048',
      '--padding',
      '64',
      '--out',
      out,
    ];
    const { tiles, outside, shells } = JSON.parse((await hem(...words)).out);
    expect(tiles).toMatchObject([{ number: 1001, width: 4096, height: 2048, padding: 64 }]);
    expect([outside, shells[0].l2]).toEqual([0, expect.closeTo(1, 9)]);
    const uv = [...readFileSync(out, 'utf8').matchAll(/^vt (\S+) (\S+)$/gm)].map(([, u, v]) => [
      Number(u),
      Number(v),
    ]);
    const span = (k: number) => Math.max(...uv.map((p) => p[k])) - Math.min(...uv.map((p) => p[k]));
    // The cross of a cube is 3 × 4 squares: lying it fills the height, 4 ∕ 3 as wide on the texture, 2 ∕ 3 in the UVs.
    expect(span(1)).toBeCloseTo(1 - 128 / 2048, 4);
    expect(span(0) / span(1)).toBeCloseTo(2 / 3, 4);
    expect(tiles[0].covered).toBeGreaterThan(0.2);
    const refused = await hem('unfold', CUBE, '--pack', '--size', '12 by 9', '--out', out);
    expect(refused.err).toMatch(/from 16 to 65536, or two: 4096x2048/);
  });

  it('takes the seams of the file itself where none are given, or proposes some', async () => {
    const cut = join(folder, 'cut.obj');
    const again = join(folder, 'again.obj');
    await run(['unfold', CUBE, '--seams', CROSS, '--out', cut]);
    const told = (await run(['unfold', cut, '--out', again])) as { shells: unknown[]; model: { l2: number } };
    expect(told.shells).toHaveLength(1);
    expect(told.model.l2).toBeCloseTo(1, 9);
    // The cross has 14 places on the tile, whoever cut it (common practice: seven of the twelve edges).
    expect(readFileSync(again, 'utf8').match(/^vt /gm)).toHaveLength(14);
    await expect(run(['unfold', CUBE, '--out', again])).rejects.toThrow(
      /Closed: it has no border to open from/,
    );
    const proposed = (await run(['unfold', CUBE, '--propose', 'rough', '--out', again])) as typeof told;
    expect(proposed.shells).toHaveLength(1);
    await expect(
      run(['unfold', CUBE, '--propose', 'rough', '--seams', CROSS, '--out', again]),
    ).rejects.toThrow(/cannot be used with/);
  });

  it('tells of the whole model what the sums over its shells say, and takes axes by name', async () => {
    const out = join(folder, 'plane.obj');
    type Told = { model: Record<string, number | string>; shells: { l2: number | string; faces: number }[] };
    await run(['project', CUBE, '--kind', 'box', '--out', out]);
    const { model, shells } = (await run(['measure', out])) as Told;
    expect(model).toMatchObject({ unfolded: 6, flipped: 0, collapsed: 0 });
    expect(model.densitySpread).toBeCloseTo(1, 9);
    // Six equal squares: the whole is as each of them.
    for (const { l2 } of shells) expect(model.l2).toBeCloseTo(l2 as number, 9);
    const byName = await run(['project', CUBE, '--kind', 'plane', '--axis', '-z', '--out', out]);
    const named = readFileSync(out, 'utf8');
    await run(['project', CUBE, '--kind', 'plane', '--axis', '0,0,-1', '--out', out]);
    expect(readFileSync(out, 'utf8')).toBe(named);
    // Four sides are seen edge-on (common practice).
    expect((byName as Told).model).toMatchObject({ l2: 'infinite', collapsed: 4 });
    await expect(run(['project', CUBE, '--kind', 'plane', '--axis', 'up', '--out', out])).rejects.toThrow(
      /x, y, z, -x, -y, -z or three numbers/,
    );
  });

  it('relaxes a region of what a file has, projects it, and lays strips straight', async () => {
    const unfolded = join(folder, 'unfolded.obj');
    await hem('unfold', CUBE, '--seams', CROSS, '--out', unfolded);
    const list = join(folder, 'faces.json');
    writeFileSync(list, '{"faces": [0, 1]}');
    const out = join(folder, 'done.obj');
    const relaxed = JSON.parse(
      (await hem('relax', unfolded, '--faces', list, '--seconds', '1', '--out', out)).out,
    );
    expect(relaxed.shells[0].l2).toBeCloseTo(1, 6);
    const boxed = JSON.parse((await hem('project', CUBE, '--kind', 'box', '--out', out)).out);
    expect(boxed).toMatchObject({ shellCount: 6, overlaps: 0, findings: [] });
    const ring = JSON.parse(
      (await hem('project', CUBE, '--kind', 'cylinder', '--sweep', '180', '--out', out)).out,
    );
    expect(ring.notes.join()).toMatch(/beyond the sweep/);
    expect((await hem('project', CUBE, '--kind', 'plane', '--axis', 'up', '--out', out)).code).toBe(1);
    const strip = JSON.parse((await hem('strip', CUBE, '--seams', CROSS, '--out', out)).out);
    expect(strip.shells[0].l2).toBeCloseTo(1, 9);
    const none = join(folder, 'none.json');
    writeFileSync(none, '{"edges": []}');
    expect((await hem('strip', CUBE, '--seams', none, '--out', out)).err).toMatch(
      /This is closed: cut off its caps/,
    );
    writeFileSync(list, '{"faces": []}');
    expect((await hem('relax', unfolded, '--faces', list, '--out', out)).err).toMatch(
      /It should read \{"faces"/,
    );
  });

  it('says in its help what the catalogue says: choices, bounds and defaults', () => {
    const help = program(() => undefined)
      .commands.find((command) => command.name() === 'unfold')
      ?.helpInformation()
      .replaceAll(/\s+/g, ' ');
    expect(help).toContain('choices: "conformal", "angle-based"');
    expect(help).toContain('from 0, angles alone, to 1, area above all (default: 0.5)');
    expect(help).toContain('texture size when packing: 2048, which is the usual');
  });

  it('ends with 1 for a wrong call', async () => {
    const calls = [
      ['fold'],
      ['info'],
      ['info', CUBE, '--relax'],
      ['unfold', CUBE, '--seams', CROSS],
      ['unfold', CUBE, '--seams', CROSS, '--out', 'x.png'],
      ['unfold', CUBE, '--seams', CROSS, '--out', 'x.obj', '--seconds', 'soon'],
    ];
    for (const words of calls) await expect(run(words)).rejects.toThrow(CommanderError);
    const refused = await hem('unfold', CUBE, '--seams', CROSS, '--method', 'guess', '--out', 'x.obj');
    expect(refused).toMatchObject({ code: 1, out: '' });
    expect(refused.err).toContain('Allowed choices are conformal, angle-based.');
  });

  it('unfolds by angles, on pins and along stays, relaxes towards area, and takes the smoothed surface', async () => {
    const out = join(folder, 'pinned.obj');
    const call = ['unfold', CUBE, '--seams', CROSS, '--method', 'angle-based', '--out', out];
    // Vertices 2 and 3 are cut apart, so a face names the side.
    const pins = file(
      'pins.json',
      '{"pins": [{"vertex": 2, "face": 3, "uv": [0.25, 0.5]}, {"vertex": 3, "face": 3, "uv": [0.5, 0.5]}], "stays": []}',
    );
    await run([...call, '--pins', pins, '--relax']);
    const uvs = [...readFileSync(out, 'utf8').matchAll(/^vt (\S+) (\S+)/gm)].map(([, u, v]) => [+u, +v]);
    expect(uvs).toContainEqual([0.25, 0.5]);
    expect(uvs).toContainEqual([0.5, 0.5]);
    const report = (await run([...call, '--smoothed', '--relax', '--balance', '0.9'])) as {
      shells: { flipped: number }[];
    };
    expect(report.shells[0].flipped).toBe(0);

    const unclear = file('unclear.json', '{"pins": [{"vertex": 1, "uv": [0, 0]}]}');
    await expect(run([...call, '--pins', unclear])).rejects.toThrow(/Vertex 1 lies on a seam/);
    const wrong = file('wrong.json', '{"pins": [{"vertex": 0}]}');
    await expect(run([...call, '--pins', wrong])).rejects.toThrow(/uv" is required/);
  });

  it('tries which single cut would help a stretched shell, and gives it as a seam file has it', async () => {
    const sleeve = modelFromMesh('sleeve', meshOfShell(tube(12, 8, 9)));
    const bytes = writeObj(sleeve, new Float64Array(6 * 192).fill(NaN));
    const input = file('sleeve.obj', new TextDecoder().decode(bytes));
    const seams = file('none.json', '{"edges": []}');
    const call = ['unfold', input, '--seams', seams, '--cuts', '--out', join(folder, 'sleeve-out.obj')];
    const { cuts } = (await run(call)) as { cuts: { shell: number; l2: number; edges: number[][] }[] };
    expect(cuts).toMatchObject([{ shell: 0, l2: expect.closeTo(1, 4) }]);
    expect(cuts[0].edges).toHaveLength(12);
    call[3] = file('cut.json', JSON.stringify({ edges: cuts[0].edges }));
    const after = (await run(call)) as { cuts: object[]; shells: { l2: number }[] };
    expect(after.shells[0].l2).toBeCloseTo(cuts[0].l2, 6);
    expect(after.cuts).toEqual([]);
  });

  it('keeps shells of a laid-out file in their places, and says so where there are none', async () => {
    const first = join(folder, 'first.obj');
    const none = file('no-seams.json', '{"edges": []}');
    await run(['unfold', CUBE, '--seams', CROSS, '--out', first]);
    const uvs = (path: string) =>
      [...readFileSync(path, 'utf8').matchAll(/^vt (\S+) (\S+)/gm)].map(([, u, v]) => [+u, +v]);
    // Laid out half as large, off the middle.
    const laid = file(
      'laid.obj',
      readFileSync(first, 'utf8').replace(
        /^vt (\S+) (\S+)/gm,
        (_, u, v) => `vt ${0.4 + u / 4} ${0.3 + v / 4}`,
      ),
    );
    const out = join(folder, 'kept.obj');
    await run(['unfold', laid, '--seams', none, '--keep-place', '--out', out]);
    const middle = (path: string) =>
      [0, 1].map((k) => {
        const list = uvs(path).map((uv) => uv[k]);
        return [Math.min(...list), Math.max(...list)];
      });
    const [kept, laidOut] = [middle(out).flat(), middle(laid).flat()];
    for (let i = 0; i < 4; i++) expect(kept[i]).toBeCloseTo(laidOut[i], 3);
    await expect(run(['unfold', CUBE, '--seams', CROSS, '--keep-place', '--out', out])).rejects.toThrow(
      /no UVs whose places could be kept/,
    );
    // Up along z the cross is turned another way.
    await run(['unfold', CUBE, '--seams', CROSS, '--up', 'z', '--out', out]);
    expect(uvs(out)).not.toEqual(uvs(first));
  });

  it('checks a model, repairs what is safe, and finds nothing left to repair', async () => {
    // A cube whose lid has points of its own, and one face turned over.
    const ill = file(
      'ill.obj',
      `${readFileSync(CUBE, 'utf8').replace('f 5 6 7 8\n', '').replace('f 1 2 6 5', 'f 5 6 2 1')}v -1 -1 1\nv 1 -1 1\nv 1 1 1\nv -1 1 1\nv 9 9 9\nf 9 10 11 12\n`,
    );
    type Report = { findings: { kind: string; count: number; repair: { safe: boolean } | null }[] };
    const found = (await run(['check', ill])) as Report;
    expect(found.findings.map(({ kind, count }) => [kind, count])).toEqual([
      ['loose-points', 1],
      ['cracks', 4],
      ['mixed-winding', 1],
    ]);
    const out = join(folder, 'well.obj');
    const done = (await run(['repair', ill, '--safe', '--out', out])) as { notes: string[] };
    expect(done.notes).toContain('Join them: 4 open crack points.');
    const left = (await run(['check', out])) as Report & { figures: { pieces: object[] } };
    expect(left.findings).toEqual([]);
    expect(left.figures.pieces).toEqual([expect.objectContaining({ euler: 2, borders: 0, genus: 0 })]);
    await expect(run(['repair', ill, '--out', out])).rejects.toThrow("required option '--safe'");
    await expect(run(['check', ill, '--tolerance', '7'])).rejects.toThrow('must be at most 0.5');
  });

  it('proposes, opens, routes and rings, and tells of shells and of what is seen', async () => {
    const sleeveModel = modelFromMesh('Sleeve', meshOfShell(tube(12, 10, 8)));
    const round = file(
      'sleeve.obj',
      new TextDecoder().decode(
        writeObj(sleeveModel, new Float64Array(2 * sleeveModel.mesh.cornerVertex.length).fill(Number.NaN)),
      ),
    );
    const seams = join(folder, 'seams.json');
    const edgesIn = () => (JSON.parse(readFileSync(seams, 'utf8')) as { edges: number[][] }).edges;
    type Told = {
      edges: number;
      length: number;
      shells: { l2: number; kind: string; canUnfold: boolean }[];
      mean: number;
    };
    const told = async (...words: string[]) => (await run(words)) as Told;

    // A cube opens by seven edges (common practice) where no stretch is allowed.
    expect(
      (await told('propose-seams', CUBE, '--stretch', '1.005', '--symmetric', 'none', '--out', seams)).edges,
    ).toBe(7);
    expect(edgesIn()).toHaveLength(7);
    const six = ['--pieces', '6', '--limbs', '--symmetric', 'none'];
    expect((await told('propose-seams', CUBE, ...six, '--out', seams)).shells).toHaveLength(6);
    await expect(run(['propose-seams', CUBE, '--pieces', '0', '--out', seams])).rejects.toThrow(/at least 1/);
    await expect(run(['propose-seams', CUBE, '--pieces', '2.5', '--out', seams])).rejects.toThrow(
      /whole number/,
    );
    await told('propose-seams', CUBE, '--stretch', '1.005', '--symmetric', 'none', '--out', seams);
    const { shells } = await told('shells', CUBE, '--seams', seams);
    expect(shells).toMatchObject([{ kind: 'disk', canUnfold: true, faces: 6, area: 24 }]);

    expect((await told('open', round, '--out', seams)).edges).toBe(12);
    expect((await told('shells', round, '--seams', seams)).shells.map(({ kind }) => kind)).toEqual(['disk']);

    // Along the sleeve, from its first vertex to the one straight above.
    const way = await told('route', round, '--through', '0,120', '--hidden', '0', '--out', seams);
    expect(way.edges).toBe(12);
    expect(way.length).toBeCloseTo(8, 3);
    const there = await told('route', round, '--through', '0,60,120', '--close', '--out', seams);
    expect(there.edges).toBe(24);

    const ring = await told('ring', round, '--at', '60', '--out', seams);
    expect(ring.edges).toBe(10);
    expect((await told('exposure', CUBE, '--view', 'from above', '--out', seams)).mean).toBeGreaterThan(0.2);
    expect(edgesIn()).toHaveLength(12);

    await expect(run(['route', CUBE, '--through', '0,99', '--out', seams])).rejects.toThrow(/no point 99/);
    await expect(run(['route', CUBE, '--through', 'here', '--out', seams])).rejects.toThrow(
      /numbers of vertices/,
    );
    await expect(run(['ring', CUBE, '--at', '8', '--out', seams])).rejects.toThrow(/no vertex 8/);
    await expect(run(['propose-seams', CUBE, '--stretch', '9', '--out', seams])).rejects.toThrow(/at most 4/);
  });

  it('ends with 2 and one sentence for bad input', async () => {
    const bad = file('bad.obj', 'v 0 0 0\nf 1 2 3\n');
    const nowhere = file('nowhere.json', '{"edges": [[0, 6]]}');
    const none = file('none.json', '{"edges": []}');
    const x = join(folder, 'x.obj');
    const cases: [string[], RegExp][] = [
      [['info', join(folder, 'missing.obj')], /cannot be opened/],
      [['measure', CUBE], /there are no UVs in this file/],
      [['unfold', CUBE, '--seams', nowhere, '--out', x], /no edge between vertices 0 and 6/],
      [['unfold', CUBE, '--seams', bad, '--out', x], /this is not JSON/],
      [['unfold', CUBE, '--seams', none, '--out', x], /no border to open from/],
      [['unfold', CUBE, '--seams', CROSS, '--out', join(folder, 'no', 'x.obj')], /cannot be written/],
    ];
    for (const [words, sentence] of cases) await expect(run(words)).rejects.toThrow(sentence);
    const { code, err, out } = await hem('info', bad);
    expect({ code, out }).toEqual({ code: 2, out: '' });
    expect(err).toMatch(/^bad\.obj, line 2: a face asks for vertex 2[^\n]*\n$/);
  });
});
