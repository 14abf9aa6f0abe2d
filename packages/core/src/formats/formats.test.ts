import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { applyDelta } from '../document/delta.ts';
import { openDocument, topologyOf } from '../document/document.ts';
import { FileError } from '../errors.ts';
import { findEdge } from '../mesh/connectivity.ts';
import { modelFromMesh } from '../mesh/model.ts';
import { mainKind, partsBy } from '../mesh/parts.ts';
import { carryOut } from '../operations/catalogue.ts';
import { localContext } from '../operations/localContext.ts';
import { cube, sheet } from '../testing/shapes.ts';
import { cornerNormals } from './cornerNormals.ts';
import { objLines } from './objLines.ts';
import { readModel } from './readModel.ts';
import { readObj } from './readObj.ts';
import { readSeams } from './seamFile.ts';
import { writeObj } from './writeObj.ts';
import { writeTemplate } from './writeTemplate.ts';

const bytesOf = (text: string) => new TextEncoder().encode(text);
const SQUARE = 'v 0 0 0\nv 1 0 0\nv 1 1 0\nv 0 1 0\n';
const TRIANGLE = `${SQUARE}f 1 2 3\n`;

describe('OBJ lines', () => {
  it('joins continuations, drops comments, and knows where each statement stands', () => {
    const text = 'v 1 2 3\r\nf 1 \\\n 2 \\\r\n 3 # rest\n\n# only a comment\nlast';
    const lines = [...objLines(text)];
    expect(lines.map(({ number, text: t }) => [number, t])).toEqual([
      [1, 'v 1 2 3'],
      [2, 'f 1   2   3'],
      [5, ''],
      [6, ''],
      [7, 'last'],
    ]);
    expect(lines.map(({ from, to }) => text.slice(from, to)).join('')).toBe(text);
  });

  it('covers any text without a gap', () => {
    fc.assert(
      fc.property(fc.string({ unit: fc.constantFrom('\\', '\n', '\r', '#', 'v', ' ', '1') }), (text) => {
        expect([...objLines(text)].map(({ from, to }) => text.slice(from, to)).join('')).toBe(text);
      }),
    );
  });
});

describe('reading OBJ', () => {
  it('reads every number as it is written, to the last bit', () => {
    const written = fc
      .tuple(
        fc.double({ noNaN: true, noDefaultInfinity: true, min: -1e30, max: 1e30 }),
        fc.nat(4),
        fc.nat(20),
      )
      .map(
        ([x, form, places]) =>
          [
            String(x),
            x.toFixed(places),
            x.toExponential(places),
            `+${Math.abs(x)}`,
            `${Math.trunc(x % 1e9)}.`,
          ][form],
      );
    fc.assert(
      fc.property(fc.array(written, { minLength: 9, maxLength: 9 }), (words) => {
        const lines = [0, 3, 6].map((i) => `v ${words.slice(i, i + 3).join(' ')}`);
        const { mesh } = readObj(bytesOf(`${lines.join('\n')}\nf 1 2 3\n`), 'n.obj');
        expect([...mesh.positions]).toEqual(words.map(Number));
      }),
    );
  });

  it('reads faces over continued lines, among comments, blanks and line ends of either kind', () => {
    const text =
      '# head\r\n\tv 0 0 0 # first\r\nv  1\t0 \\\r\n 0\r\nv 1 1 0 1 0.5 0.5\nvt 0.5 0.5 0\n\n  f 1/1 \\\n 2 \\\r\n -1/-1/9 # a face\nf 1//3 2//3 3//3';
    const { mesh, uvSets } = readObj(bytesOf(text), 'c.obj');
    expect([...mesh.positions]).toEqual([0, 0, 0, 1, 0, 0, 1, 1, 0]);
    expect([...mesh.cornerVertex]).toEqual([0, 1, 2, 0, 1, 2]);
    expect([...uvSets[0].uv.subarray(0, 6)]).toEqual([0.5, 0.5, NaN, NaN, 0.5, 0.5]);
  });

  it('takes negative indices, UVs on some faces only, names with blanks, and smoothing', () => {
    const model = readObj(
      bytesOf(
        `${SQUARE}vt 0 0\nvt 1 0\nvt 1 1\no The box lid\ng a b\nusemtl Old oak\ns 3\nf -4/1 -3/2 -2/3\ns off\nf 1 3 4\n`,
      ),
      'lid.obj',
    );
    expect(model.objects).toEqual(['The box lid']);
    expect(model.groups).toEqual(['a b']);
    expect(model.materials).toEqual([{ name: 'Old oak' }]);
    expect([...model.faceSmoothing]).toEqual([3, 0]);
    expect([...model.mesh.cornerVertex]).toEqual([0, 1, 2, 0, 2, 3]);
    expect([...model.uvSets[0].uv]).toEqual([0, 0, 1, 0, 1, 1, NaN, NaN, NaN, NaN, NaN, NaN]);
  });

  it('reads numbers in every spelling', () => {
    const model = readObj(bytesOf('v 1e-3 +2 -.5\nv 1.0E+2 0 0 0.5 0.5 0.5\nv 0 1 0\nf 1 2 3\n'), 'n.obj');
    expect([...model.mesh.positions]).toEqual([0.001, 2, -0.5, 100, 0, 0, 0, 1, 0]);
  });

  it('gives a model or a sentence for any mutation of a file', async () => {
    const seed = bytesOf(`${TRIANGLE}vt 0 0\nf 1/1 3/1 4/1\n`);
    const edit = fc.tuple(fc.nat(seed.length - 1), fc.nat(255));
    await fc.assert(
      fc.asyncProperty(fc.array(edit, { maxLength: 6 }), fc.nat(seed.length), async (edits, length) => {
        const bytes = seed.slice(0, length);
        for (const [at, value] of edits) if (at < length) bytes[at] = value;
        try {
          const { mesh } = await readModel(bytes, 'm.obj');
          expect(mesh.cornerVertex.every((v) => v < mesh.positions.length / 3)).toBe(true);
        } catch (error) {
          expect(error).toBeInstanceOf(FileError);
          expect((error as Error).message).toMatch(/^m\.obj/);
        }
      }),
      { numRuns: 300 },
    );
  });

  it('says which line is wrong', () => {
    const cases: [string, RegExp][] = [
      [`${TRIANGLE}f 1 2 x\n`, /line 6: “x” is not the number of a vertex/],
      [`${TRIANGLE}f 1.5 2 3\n`, /line 6: “1.5” is not the number/],
      [`${TRIANGLE}f -9 2 3\n`, /asks for vertex -9, but the lines above hold only 4/],
      [`${TRIANGLE}f 1/2 2/2 3/2\n`, /asks for UV 2, but the lines above hold only 0/],
      ['v 1 2\n', /line 1: “v” needs 3 numbers/],
    ];
    for (const [text, sentence] of cases) expect(() => readObj(bytesOf(text), 'x.obj')).toThrow(sentence);
  });
});

describe('writing OBJ', () => {
  it('repeats names in an encoding it does not know, byte for byte', () => {
    const bytes = Uint8Array.from([...bytesOf('o caf'), 0xe9, ...bytesOf(`\n${TRIANGLE}`)]);
    const model = readObj(bytes, 'c.obj');
    const out = writeObj(model, new Float64Array(6).fill(NaN));
    expect([...out]).toEqual([...bytes]);
  });

  it('keeps normals and their numbers beside new UVs', () => {
    const model = readObj(bytesOf(`${SQUARE}vn 0 0 1\nf 1//1 2//1 3//1\nf 1//1 3//1 4//1`), 'n.obj');
    const uv = Float64Array.from([0, 0, 1, 0, 1, 1, 0, 0, 1, 1, 0, 1]);
    const text = new TextDecoder().decode(writeObj(model, uv));
    expect(text.endsWith('vt 0 0\nvt 1 0\nvt 1 1\nvt 0 1\nf 1/1/1 2/2/1 3/3/1\nf 1/1/1 3/3/1 4/4/1')).toBe(
      true,
    );
  });

  it('writes what never was a file, and reads it back the same', () => {
    const made = {
      ...modelFromMesh('Cube', cube()),
      materials: [{ name: 'Clay' }],
      faceMaterial: Int32Array.of(0, 0, -1, 0, 0, 0),
    };
    const back = readObj(writeObj(made, new Float64Array(48).fill(0.25)), 'cube.obj');
    expect(back.mesh).toEqual(made.mesh);
    expect(back.uvSets[0].uv.every((x) => x === 0.25)).toBe(true);
    expect(back.materials.map(({ name }) => name)).toEqual(['Clay']);
  });
});

describe('parts', () => {
  it('go by object, else by group, else by loose piece', () => {
    const two = `${SQUARE}v 5 0 0\nv 6 0 0\nv 5 1 0\n`;
    const parts = (text: string) => {
      const model = readObj(bytesOf(text), 'p.obj');
      return partsBy(mainKind(model), model, topologyOf(model).connectivity);
    };
    expect(parts(`${two}o A\nf 1 2 3\no B\nf 5 6 7\n`).names).toEqual(['A', 'B']);
    expect(parts(`${two}o A\ng x\nf 1 2 3\ng y\nf 5 6 7\n`).names).toEqual(['x', 'y']);
    const loose = parts(`${two}o A\nf 1 2 3\nf 1 3 4\nf 5 6 7\n`);
    expect(loose.names).toEqual(['Piece 1', 'Piece 2']);
    expect([...loose.facePart]).toEqual([0, 0, 1]);
  });
});

describe('corner normals', () => {
  it('are smooth within a smoothing group, sharp where it is off', () => {
    const roof = sheet(1, 2, (i, j) => [j, j === 1 ? 1 : 0, i]);
    const model = modelFromMesh('Roof', roof);
    const smooth = cornerNormals(model);
    const sharp = cornerNormals({ ...model, faceSmoothing: Int32Array.of(0, 0) });
    const ridge = roof.cornerVertex.indexOf(1);
    expect(Math.abs(smooth[3 * ridge])).toBeLessThan(1e-12);
    expect(Math.abs(sharp[3 * ridge])).toBeCloseTo(Math.SQRT1_2, 12);
    for (let i = 0; i < smooth.length; i += 3) {
      expect(Math.hypot(smooth[i], smooth[i + 1], smooth[i + 2])).toBeCloseTo(1, 12);
    }
  });
});

describe('seam file', () => {
  const { connectivity } = topologyOf(modelFromMesh('Cube', cube()));

  it('names edges by their vertices, either way round', () => {
    expect(readSeams('{"edges": [[0, 1], [2, 1]]}', 's.json', connectivity)).toEqual([
      findEdge(connectivity, 0, 1),
      findEdge(connectivity, 1, 2),
    ]);
  });

  it('says what is wrong with it', () => {
    const cases: [string, RegExp][] = [
      ['{"edges"', /s\.json: this is not JSON/],
      ['[]', /must be of type object/],
      ['{"edges": [[0]]}', /is not two numbers of vertices/],
      ['{"edges": [[0, -1]]}', /entry 0 of "edges" is not two numbers/],
      ['{"edges": [[0, 99]]}', /no edge between vertices 0 and 99/],
    ];
    for (const [text, sentence] of cases)
      expect(() => readSeams(text, 's.json', connectivity)).toThrow(sentence);
  });
});

describe('template', () => {
  it('draws each shell in a group of its own, upside up, at the size asked for', async () => {
    let document = openDocument(
      modelFromMesh(
        'Sheet',
        sheet(2, 2, (i, j) => [j, i, 0]),
      ),
    );
    for (const request of [
      { operation: 'unfold', params: {} },
      {
        operation: 'set-tiles',
        params: { tiles: [{ number: 1013, width: 1024, height: 512, padding: 16 }] },
      },
      { operation: 'pack', params: {} },
    ]) {
      document = applyDelta(document, (await carryOut(document, request, localContext)).delta);
    }
    const svg = writeTemplate(document, { tile: 1013, size: 512, fills: true, edges: true, numbers: true });
    expect(svg).toMatch(/^<svg [^>]*width="1024" height="512"/);
    expect(svg.match(/<g id="shell-/g)).toHaveLength(1);
    expect(svg).toContain('>1</text>');
    const points = [...svg.matchAll(/[ML](-?[\d.]+) (-?[\d.]+)/g)];
    for (const [axis, side] of [
      [1, 1024],
      [2, 512],
    ]) {
      const numbers = points.map((point) => Number(point[axis]));
      expect(Math.min(...numbers)).toBeGreaterThanOrEqual(16 - 0.01);
      expect(Math.max(...numbers)).toBeLessThanOrEqual(side - 16 + 0.01);
    }
    const bare = writeTemplate(document, {
      tile: 1013,
      size: 512,
      fills: false,
      edges: false,
      numbers: false,
    });
    expect(bare).not.toContain('hsl');
    expect(bare.match(/<path/g)).toHaveLength(1);
  });
});
