import validator from 'gltf-validator';
import { MTLLoader } from 'three/addons/loaders/MTLLoader.js';
import { PLYLoader } from 'three/addons/loaders/PLYLoader.js';
import { describe, expect, it } from 'vitest';
import { lossesOf } from '../src/formats/losses.ts';
import { readModel } from '../src/formats/readModel.ts';
import { writeModel } from '../src/formats/writeModel.ts';
import { type Model, modelFromMesh } from '../src/mesh/model.ts';
import { cube, sheet } from '../src/testing/shapes.ts';
import { texturedGlb } from './texturedGlb.ts';

/**
 * Files that we write, read by others: the PLY and MTL loaders of three.js and the glTF validator of the Khronos Group. PLY as Turk (1994)
 * describes it, MTL as of Wavefront Technologies.
 */
const bytesOf = (text: string) => new TextEncoder().encode(text);
const textOf = (bytes: Uint8Array) => new TextDecoder().decode(bytes);

/** UVs with a break at every face. */
const broken = ({ mesh }: Model) =>
  Float64Array.from({ length: 2 * mesh.cornerVertex.length }, (_, i) => ((i * 37) % 101) / 101);

const write = (model: Model, name: string, uv: Float64Array = broken(model)) =>
  writeModel(model, { sets: [uv], at: 0 }, name);

describe('PLY', () => {
  it('is read by three with every place and every UV of a corner', async () => {
    const model = modelFromMesh(
      'Sheet',
      sheet(3, 4, (i, j) => [j / 3, i / 7, 0]),
    );
    const uv = broken(model);
    const [{ bytes }] = await write(model, 'sheet.ply', uv);
    const geometry = new PLYLoader().parse(
      bytes.buffer.slice(bytes.byteOffset, bytes.byteOffset + bytes.length) as ArrayBuffer,
    );
    // Quads in two triangles, of corners 0 1 2 and 0 2 3.
    const corners = [...Array(model.mesh.faceStart.length - 1).keys()].flatMap((f) =>
      [0, 1, 2, 0, 2, 3].map((k) => model.mesh.faceStart[f] + k),
    );
    const { position, uv: theirs } = geometry.attributes;
    expect(position.count).toBe(corners.length);
    corners.forEach((c, i) => {
      const v = model.mesh.cornerVertex[c];
      expect(position.getX(i)).toBeCloseTo(model.mesh.positions[3 * v], 6);
      expect(theirs.getX(i)).toBeCloseTo(uv[2 * c], 6);
      expect(theirs.getY(i)).toBeCloseTo(uv[2 * c + 1], 6);
    });
  });

  const HEADER = (format: string, more: string) =>
    `ply\nformat ${format} 1.0\ncomment made at home\nelement vertex 4\nproperty float x\nproperty float y\nproperty float z\n` +
    `property uchar red\n${more}element face 2\nproperty list uchar int vertex_indices\nproperty uchar patch\nelement edge 1\nproperty int vertex1\nproperty int vertex2\nend_header\n`;
  const TEXT = bytesOf(
    `${HEADER('ascii', 'property float s\nproperty float t\n')}0 0 0 200 0.5 0.5\n1 0 0 100 0.25 0.5\n1 1 0 50 0.5 0.125\n0 1 0 25 0 0\n3 0 1 2 7\n3 0 2 3 9\n0 1\n`,
  );

  it('repeats a text file: colours, comments, other elements; UVs by vertex go, those by corner come', async () => {
    const model = await readModel(TEXT, 'a.ply');
    const [{ bytes }] = await write(
      model,
      'a.ply',
      Float64Array.of(0, 0, 1, 0, 1, 1, 0.5, 0.5, 0.25, 0, 0, 1),
    );
    expect(textOf(bytes)).toBe(
      `${HEADER('ascii', '').replace('property uchar patch\n', 'property uchar patch\nproperty list uchar float texcoord\n')}` +
        '0 0 0 200\n1 0 0 100\n1 1 0 50\n0 1 0 25\n3 0 1 2 7 6 0 0 1 0 1 1\n3 0 2 3 9 6 0.5 0.5 0.25 0 0 1\n0 1\n',
    );
    // Once more: what was added before is replaced.
    const again = await readModel(bytes, 'a.ply');
    const [twice] = await write(again, 'a.ply', again.uvSets[0].uv);
    expect(textOf(twice.bytes)).toBe(textOf(bytes));
  });

  it.each(['binary_little_endian', 'binary_big_endian'])(
    'repeats a %s file byte for byte but for UVs',
    async (format) => {
      const little = format.includes('little');
      const view = new DataView(new ArrayBuffer(4 * 13 + 2 * 14 + 8));
      let at = 0;
      const float = (x: number) => {
        view.setFloat32(at, x, little);
        at += 4;
      };
      const byte = (x: number) => view.setUint8(at++, x);
      const int = (x: number) => {
        view.setInt32(at, x, little);
        at += 4;
      };
      for (const [x, y, red] of [
        [0, 0, 1],
        [1, 0, 2],
        [1, 1, 3],
        [0, 1, 4],
      ]) {
        [x, y, 0].forEach(float);
        byte(red);
      }
      for (const [corners, patch] of [
        [[0, 1, 2], 7],
        [[0, 2, 3], 9],
      ] as const) {
        byte(3);
        corners.forEach(int);
        byte(patch);
      }
      [0, 1].forEach(int);
      const body = new Uint8Array(view.buffer);
      const bytes = Uint8Array.from([...bytesOf(HEADER(format, '')), ...body]);
      const model = await readModel(bytes, 'b.ply');
      const uv = broken(model);
      const [file] = await write(model, 'b.ply', uv);
      const back = await readModel(file.bytes, 'b.ply');
      expect(back.mesh).toEqual(model.mesh);
      back.uvSets[0].uv.forEach((x, i) => {
        expect(x).toBe(Math.fround(uv[i]));
      });
      const tail = file.bytes.subarray(file.bytes.length - 8);
      expect([...tail]).toEqual([...body.subarray(body.length - 8)]);
      // Points with their colour stand first, as they stood.
      const from = file.bytes.length - 8 - 2 * (14 + 25) - 52;
      expect([...file.bytes.subarray(from, from + 52)]).toEqual([...body.subarray(0, 52)]);
    },
  );
});

describe('glTF in several files', () => {
  it.each(['composed', 'repeated'])(
    'passes the validator, %s, and is read back with its images',
    async (way) => {
      const model =
        way === 'composed'
          ? modelFromMesh('Cube', cube())
          : await readModel(await texturedGlb(), 'scraps.glb');
      const files = await write(model, 'a name.gltf');
      const byName = new Map(files.map(({ name, bytes }) => [name, bytes]));
      expect(files.map(({ name }) => name)).toEqual(
        way === 'composed'
          ? ['a name.gltf', 'a name.bin']
          : expect.arrayContaining(['a name.gltf', 'a name.bin']),
      );
      expect(files).toHaveLength(way === 'composed' ? 2 : 5);
      const asked: string[] = [];
      const report = await validator.validateBytes(files[0].bytes, {
        externalResourceFunction: async (uri) => {
          asked.push(uri);
          return byName.get(decodeURIComponent(uri)) ?? Promise.reject(new Error(uri));
        },
      });
      expect(report.issues.numErrors).toBe(0);
      // Nothing is left behind of meshes that were taken apart.
      expect(JSON.parse(textOf(files[0].bytes)).meshes).toHaveLength(1);
      expect(asked).toHaveLength(files.length - 1);
      const back = await readModel(files[0].bytes, files[0].name, byName);
      expect(back.mesh.cornerVertex.length).toBe(way === 'composed' ? 36 : 6);
    },
  );
});

describe('OBJ with its library', () => {
  it('of a glTF model has its colours and images, and materials of one name are told apart', async () => {
    const model = await readModel(await texturedGlb(), 'scraps.glb');
    const files = await write(model, 'scraps.obj');
    expect(files.map(({ name }) => name)).toEqual([
      'scraps.obj',
      'scraps.mtl',
      'colour map.png',
      'normal map.png',
      'unused.png',
    ]);
    const { materialsInfo } = new MTLLoader().parse(textOf(files[1].bytes), '');
    expect(materialsInfo).toMatchObject({
      Skin: { kd: [0.5, 0.25, 0.125] },
      'Skin.2': { map_kd: 'colour map.png', norm: 'normal map.png' },
    });
    const back = await readModel(
      files[0].bytes,
      'scraps.obj',
      new Map(files.map(({ name, bytes }) => [name, bytes])),
    );
    expect(back.materials.map(({ name }) => name)).toEqual(['Skin', 'Skin.2']);
    expect(back.images.find(({ name }) => name === 'colour map.png')?.bytes).toEqual(files[2].bytes);
  });

  it('that was opened along comes out byte for byte', async () => {
    const library = bytesOf('newmtl Moss\r\nKd 1 0 0\nNs 96.5\nillum 2\n');
    const obj = bytesOf('mtllib skin.mtl\nv 0 0 0\nv 1 0 0\nv 0 1 0\nusemtl Moss\nf 1 2 3\n');
    const model = await readModel(obj, 'a.obj', new Map([['skin.mtl', library]]));
    const files = await write(model, 'a.obj');
    expect(files.map(({ name }) => name)).toEqual(['a.obj', 'skin.mtl']);
    expect(files[1].bytes).toEqual(library);
  });
});

describe('what a format cannot hold', () => {
  it('is said before it is written', async () => {
    const glb = await readModel(await texturedGlb(), 'scraps.glb');
    expect(lossesOf(glb, 'glb', 2)).toEqual([]);
    // Its clear coat and roughness have no place in a library.
    expect(lossesOf(glb, 'obj', 2)).toEqual([
      'what materials say beside colour, normal and emissive images',
      '1 UV set',
    ]);
    expect(lossesOf(glb, 'ply', 1)).toEqual(['2 materials']);
    const box = { ...modelFromMesh('Cube', cube()), groups: ['a', 'b'], faceSmoothing: new Int32Array(6) };
    expect(lossesOf(box, 'obj', 1)).toEqual([]);
    expect(lossesOf(box, 'glb', 1)).toEqual([
      '6 faces with more than three corners (they are split)',
      '2 groups',
      'smoothing groups (they become normals)',
    ]);
    const coloured = await readModel(
      bytesOf('v 0 0 0 1 0 0\nv 1 0 0 1 0 0\nv 0 1 0 1 0 0\nvn 0 0 1\nf 1//1 2//1 3//1\n'),
      'a.obj',
    );
    expect(lossesOf(coloured, 'obj', 1)).toEqual([]);
    expect(lossesOf(coloured, 'ply', 1)).toEqual(['vertex colours', 'normals of the file']);
    expect(lossesOf({ ...coloured, altered: true }, 'obj', 1)).toEqual([
      'vertex colours',
      'normals of the file',
    ]);
    const plain = await readModel(bytesOf('v 0 0 0\nv 1 0 0\nv 0 1 0\nv 1 1 0\nf 1 2 3 4\n'), 'a.obj');
    expect(lossesOf(plain, 'ply', 1)).toEqual([]);
  });
});
