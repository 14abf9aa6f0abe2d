import { EXTMeshoptCompression, KHRDracoMeshCompression } from '@gltf-transform/extensions';
import { BufferAttribute, BufferGeometry, Mesh as ThreeMesh, WireframeGeometry } from 'three';
import { PLYExporter } from 'three/addons/exporters/PLYExporter.js';
import { STLExporter } from 'three/addons/exporters/STLExporter.js';
import { PLYLoader } from 'three/addons/loaders/PLYLoader.js';
import { STLLoader } from 'three/addons/loaders/STLLoader.js';
import { describe, expect, it } from 'vitest';
import { openDocument, topologyOf } from '../src/document/document.ts';
import { gltfIo } from '../src/formats/gltfIo.ts';
import { readModel } from '../src/formats/readModel.ts';
import { readPly } from '../src/formats/readPly.ts';
import { writeGlb } from '../src/formats/writeGlb.ts';
import { modelFigures } from '../src/health/modelFigures.ts';
import type { Mesh } from '../src/mesh/mesh.ts';
import type { Model } from '../src/mesh/model.ts';
import { modelFromMesh } from '../src/mesh/model.ts';
import { torus } from '../src/testing/shapes.ts';
import { encoder } from './encoders.ts';
import { openModels } from './openModels.ts';

/** three's loaders and exporters, and the encoders of Draco and meshoptimizer, as independent readers and writers. */

const bytesOf = (text: string) => new TextEncoder().encode(text);

/** A torus as triangles that three can write. */
function threeTorus(): ThreeMesh {
  const { positions, cornerVertex, faceStart } = torus(12, 8);
  const index: number[] = [];
  for (let f = 0; f + 1 < faceStart.length; f++) {
    const [a, b, c, d] = cornerVertex.subarray(faceStart[f], faceStart[f + 1]);
    index.push(a, b, c, a, c, d);
  }
  const geometry = new BufferGeometry();
  geometry.setAttribute('position', new BufferAttribute(Float32Array.from(positions), 3));
  geometry.setIndex(index);
  return new ThreeMesh(geometry);
}

/** Edges of a mesh of triangles as three's wireframe has them, each once. */
function edgesByThree({ positions, cornerVertex }: Mesh): number {
  const geometry = new BufferGeometry();
  geometry.setAttribute('position', new BufferAttribute(Float32Array.from(positions), 3));
  geometry.setIndex([...cornerVertex]);
  return new WireframeGeometry(geometry).getAttribute('position').count / 2;
}

const figuresOf = (model: Model) => modelFigures({ ...topologyOf(model), model });

/** Points of every corner of every face, one after the other. */
const corners = ({ mesh }: Model): number[] =>
  [...mesh.cornerVertex].flatMap((v) => [...mesh.positions.subarray(3 * v, 3 * v + 3)].map(Math.fround));

const TORUS = { euler: 0, borders: 0, genus: 1 };

describe('PLY', () => {
  it.each([
    ['text', {}],
    ['binary, little end first', { binary: true, littleEndian: true }],
    ['binary, big end first', { binary: true }],
  ])('as %s, written by three, is the same model', async (_, options) => {
    const written = new PLYExporter().parse(threeTorus(), undefined as never, options) as
      | string
      | ArrayBuffer;
    const bytes = typeof written === 'string' ? bytesOf(written) : new Uint8Array(written);
    const model = await readModel(bytes, 'ring.ply');
    const theirs = new PLYLoader().parse(typeof written === 'string' ? written : written.slice(0));
    const index = theirs.index?.array as ArrayLike<number>;
    const points = theirs.getAttribute('position').array;
    expect(corners(model)).toEqual(
      Array.from(index).flatMap((v) => Array.from(points.slice(3 * v, 3 * v + 3))),
    );
    expect(figuresOf(model).pieces).toEqual([expect.objectContaining(TORUS)]);
  });

  it('keeps polygons, takes UVs of corners, and passes over what else there is', () => {
    const model = readPly(
      bytesOf(
        `ply
format ascii 1.0
comment made by hand
element vertex 5
property float x
property float y
property float z
property uchar red
element tag 1
property list uchar int numbers
element face 2
property list uchar int vertex_indices
property list uchar float texcoord
end_header
0 0 0 255
1 0 0 255
1 1 0 9
0 1 0 9
2 0.5 0 9
3 1 2 3
4 0 1 2 3 8 0 0 1 0 1 1 0 1
3 1 4 2 0
`,
      ),
      'card.ply',
    );
    expect([...model.mesh.faceStart]).toEqual([0, 4, 7]);
    expect([...model.uvSets[0].uv.subarray(0, 8)]).toEqual([0, 0, 1, 0, 1, 1, 0, 1]);
    expect(model.uvSets[0].uv[8]).toBeNaN();
  });

  it.each([
    ['ply\nformat ascii 1.0\nelement vertex 3\nproperty float x\nend_header\n0 0 0', 'no x, y and z'],
    [
      'ply\nformat ascii 1.0\nelement vertex 999999999\nproperty float x\nproperty float y\nproperty float z\nend_header\n',
      'promises',
    ],
    [
      'ply\nformat ascii 1.0\nelement vertex 2\nproperty float x\nproperty float y\nproperty float z\nend_header\n0 0 0 1',
      'ends too soon',
    ],
    ['ply\nformat odd 1.0\nend_header\n', 'names no format'],
    ['ply\nformat ascii 1.0\n', 'does not end'],
  ])('says what is wrong: %s', (text, problem) => {
    expect(() => readPly(bytesOf(text), 'x.ply')).toThrow(problem);
  });
});

describe('STL', () => {
  it.each([
    ['text', false],
    ['binary', true],
  ])('as %s, written by three, is the same surface with its points joined', async (_, binary) => {
    const written = new STLExporter().parse(threeTorus(), { binary }) as string | DataView;
    const bytes =
      typeof written === 'string' ? bytesOf(written) : new Uint8Array(written.buffer as ArrayBuffer);
    const model = await readModel(bytes, 'ring.stl');
    const theirs = new STLLoader().parse(
      typeof written === 'string' ? written : (written.buffer as ArrayBuffer),
    );
    expect(corners(model)).toEqual(Array.from(theirs.getAttribute('position').array));
    expect(model.mesh.positions.length / 3).toBe(96);
    expect(figuresOf(model).pieces).toEqual([expect.objectContaining(TORUS)]);
  });

  it('tells solids apart, and names the line of a fault', async () => {
    const facet =
      'facet normal 0 0 1\nouter loop\nvertex 0 0 0\nvertex 1 0 0\nvertex 0 1 0\nendloop\nendfacet\n';
    const model = await readModel(
      bytesOf(`solid a\n${facet}endsolid\nsolid b\n${facet}${facet}endsolid\n`),
      'x.stl',
    );
    expect(model.objects).toEqual(['a', 'b']);
    expect([...model.faceObject]).toEqual([0, 1, 1]);
    await expect(readModel(bytesOf('solid\nvertex 0 0 zero\n'), 'x.stl')).rejects.toThrow('line 2');
    await expect(readModel(bytesOf('solid\nvertex 0 0 0\nendfacet'), 'x.stl')).rejects.toThrow('1 corners');
  });
});

describe('an STL that is none', () => {
  const binary = () =>
    new Uint8Array(
      (new STLExporter().parse(threeTorus(), { binary: true }) as DataView).buffer as ArrayBuffer,
    );

  it('is told by what is in it, whatever its name', async () => {
    await expect(
      readModel(bytesOf('# a box\nv 0 0 0\nv 1 0 0\nv 0 1 0\nf 1 2 3\n'), 'x.stl'),
    ).rejects.toThrow(/not an STL file. It looks like an OBJ file/);
    const page = '<!doctype html><title>Not found</title>'.repeat(40);
    await expect(readModel(bytesOf(page), 'x.stl')).rejects.toThrow(/this is not an STL file. Export/);
  });

  it('is not read short where its count is wrong', async () => {
    const bytes = binary();
    const count = new DataView(bytes.buffer).getUint32(80, true);
    for (const wrong of [0, count - 1, count + 1, 2 ** 32 - 1]) {
      const copy = bytes.slice();
      new DataView(copy.buffer).setUint32(80, wrong, true);
      await expect(readModel(copy, 'x.stl')).rejects.toThrow(
        `it says that it holds ${wrong} triangles, and there are ${count}.`,
      );
    }
    await expect(readModel(bytes.subarray(0, bytes.length - 10), 'x.stl')).rejects.toThrow(/there are/);
    // A few bytes at the end, as some programs leave them, are passed over.
    const padded = new Uint8Array([...bytes, 1, 2, 3]);
    expect((await readModel(padded, 'x.stl')).mesh.faceStart.length - 1).toBe(count);
  });
});

it('refuses a model of which no point has a place, in every format that is text', async () => {
  const nan = 'v nan nan nan\n'.repeat(3);
  await expect(readModel(bytesOf(`${nan}f 1 2 3\n`), 'x.obj')).rejects.toThrow(
    /none of its points has a place/,
  );
  const header =
    'ply\nformat ascii 1.0\nelement vertex 3\nproperty float x\nproperty float y\nproperty float z\n';
  const ply = `${header}element face 1\nproperty list uchar int vertex_indices\nend_header\n${'nan nan nan\n'.repeat(3)}3 0 1 2\n`;
  await expect(readModel(bytesOf(ply), 'x.ply')).rejects.toThrow(/none of its points has a place/);
});

describe('a glTF that promises more than it holds', () => {
  const places = Buffer.from(new Float32Array([0, 0, 0, 1, 0, 0, 0, 1, 0]).buffer).toString('base64');
  const gltf = (accessor: object, padding = '') =>
    bytesOf(
      JSON.stringify({
        asset: { version: '2.0' },
        scene: 0,
        scenes: [{ nodes: [0] }],
        nodes: [{ mesh: 0 }],
        meshes: [{ primitives: [{ attributes: { POSITION: 0 } }] }],
        buffers: [{ byteLength: 36, uri: `data:application/octet-stream;base64,${places}` }],
        bufferViews: [{ buffer: 0, byteLength: 36 }],
        accessors: [{ bufferView: 0, componentType: 5126, count: 3, type: 'VEC3', ...accessor }],
        extras: padding,
      }),
    );
  const some = { indices: { bufferView: 0, componentType: 5121 }, values: { bufferView: 0 } };

  it('is refused before anything is made for it (glTF 2.0 specification, 3.6.2.3 Sparse Accessors)', async () => {
    const wrong: [object, string?][] = [
      [{ sparse: { count: 1e9, ...some } }],
      [{ bufferView: undefined, count: 1e9 }],
      [{ bufferView: undefined, count: 9e6, sparse: { count: 1, ...some } }, 'x'.repeat(30_000)],
      [{ bufferView: undefined, count: 1e9, sparse: { count: 1, ...some } }, 'x'.repeat(3e6)],
      [{ count: 'many' }],
    ];
    for (const [accessor, padding] of wrong)
      await expect(readModel(gltf(accessor, padding), 'x.gltf')).rejects.toThrow(
        /promises far more than it holds/,
      );
    const changed = { indices: { bufferView: 0, componentType: 5121 }, values: { bufferView: 0 } };
    const model = await readModel(gltf({ sparse: { count: 1, ...changed } }), 'x.gltf');
    expect(model.mesh.faceStart.length - 1).toBe(1);
  });
});

describe('glTF', () => {
  const source = () =>
    writeGlb(modelFromMesh('ring', torus(12, 8)), [new Float64Array(2 * 4 * 96).fill(0.5)]);

  it('as JSON, with the buffer opened along with it or inside it', async () => {
    const { json, resources } = await gltfIo().binaryToJSON(await source());
    const [buffer] = Object.values(resources);
    const named = { ...json, buffers: [{ ...json.buffers?.[0], uri: 'parts/ring%20data.bin' }] };
    const text = bytesOf(JSON.stringify(named));
    await expect(readModel(text, 'ring.gltf')).rejects.toThrow('it needs the file “ring data.bin”');
    const model = await readModel(text, 'ring.gltf', new Map([['ring data.bin', buffer]]));
    const inline = {
      ...named,
      buffers: [
        {
          ...named.buffers[0],
          uri: `data:application/octet-stream;base64,${Buffer.from(buffer).toString('base64')}`,
        },
      ],
    };
    expect((await readModel(bytesOf(JSON.stringify(inline)), 'ring.gltf')).mesh).toEqual(model.mesh);
    expect((await readModel(await source(), 'ring.glb')).mesh).toEqual(model.mesh);
    // What is exported is a GLB with everything inside.
    expect((await readModel(await writeGlb(model, [model.uvSets[0].uv]), 'out.glb')).mesh).toEqual(
      model.mesh,
    );
  });

  it('opens without pictures that are not at hand, and fetches none', async () => {
    const { json, resources } = await gltfIo().binaryToJSON(await source());
    const [buffer] = Object.values(resources);
    const named = {
      ...json,
      buffers: [{ ...json.buffers?.[0], uri: 'b.bin' }],
      images: [{ uri: 'http://example.invalid/skin.png' }],
      textures: [{ source: 0 }],
      materials: [{ pbrMetallicRoughness: { baseColorTexture: { index: 0 } } }],
    };
    const model = await readModel(bytesOf(JSON.stringify(named)), 'a.gltf', new Map([['b.bin', buffer]]));
    expect(figuresOf(model).faces).toBe(192);
  });

  it.each(['draco', 'meshopt'] as const)(
    'compressed by %s is the same surface, and written plain',
    async (kind) => {
      const io = gltfIo().registerDependencies(await encoder());
      const document = await io.readBinary(await source());
      if (kind === 'draco') {
        document
          .createExtension(KHRDracoMeshCompression)
          .setRequired(true)
          .setEncoderOptions({ quantizationBits: { POSITION: 16 } });
      } else {
        document
          .createExtension(EXTMeshoptCompression)
          .setRequired(true)
          .setEncoderOptions({ method: EXTMeshoptCompression.EncoderMethod.QUANTIZE });
      }
      const packed = await io.writeBinary(document);
      const plain = await source();
      expect(packed.length).not.toBe(plain.length);
      const model = await readModel(packed, 'packed.glb');
      expect(figuresOf(model)).toMatchObject({ faces: 192, pieces: [TORUS] });
      const size = (m: Model) => figuresOf(m).meanEdge;
      expect(size(model)).toBeCloseTo(size(await readModel(plain, 'plain.glb')), 3);
      const out = await writeGlb(model, [openDocument(model).uvSets[0].uv]);
      const { json } = await gltfIo().binaryToJSON(out);
      expect(json.extensionsUsed ?? []).toEqual([]);
      expect(json.extensionsRequired ?? []).toEqual([]);
      expect((await readModel(out, 'out.glb')).mesh).toEqual(model.mesh);
    },
  );

  it('keeps nodes of one name apart, with their transforms', async () => {
    const whole = await gltfIo().readBinary(await source());
    const [mesh] = whole.getRoot().listMeshes();
    const scene = whole.getRoot().listScenes()[0];
    scene.addChild(whole.createNode('ring').setMesh(mesh).setScale([1, -1, 1]));
    const model = await readModel(await gltfIo().writeBinary(whole), 'two.glb');
    expect(model.objects).toEqual(['ring', 'ring']);
    expect(model.objectTransforms?.map((m) => m[5])).toEqual([1, -1]);
    expect(figuresOf(model).pieces.length).toBe(2);
  });
});

/**
 * Euler characteristic and borders of the open models, counted independently: edges by three's wireframe, V − E + F from them, and
 * for borders the pairs of vertices that do not occur twice.
 */
describe('figures of open models', () => {
  it.each([
    ['bunny', openModels.bunny()],
    ['teapot', openModels.teapot()],
    ['dragon', openModels.dragon()],
  ] as const)('%s', (name, mesh) => {
    const pairs = new Map<string, number>();
    for (let f = 0; f + 1 < mesh.faceStart.length; f++) {
      const face = mesh.cornerVertex.subarray(mesh.faceStart[f], mesh.faceStart[f + 1]);
      face.forEach((v, k) => {
        const w = face[(k + 1) % face.length];
        const key = v < w ? `${v} ${w}` : `${w} ${v}`;
        pairs.set(key, (pairs.get(key) ?? 0) + 1);
      });
    }
    const figures = figuresOf(modelFromMesh('model', mesh));
    // three counts places, not points: the teapot has points that lie in one place.
    if (name === 'teapot') expect(figures.edges).toBeGreaterThan(edgesByThree(mesh));
    else expect(figures.edges).toBe(edgesByThree(mesh));
    expect(figures.edges).toBe(pairs.size);
    const euler = figures.pieces.reduce((sum, piece) => sum + piece.euler, 0);
    const used = new Set(mesh.cornerVertex);
    const shared = figures.pieces.reduce((sum, piece) => sum + piece.vertices, 0) - used.size;
    expect(euler).toBe(used.size + shared - pairs.size + mesh.faceStart.length - 1);
    const open = [...pairs.values()].some((n) => n !== 2);
    expect(figures.pieces.some(({ borders }) => borders > 0)).toBe(open);
  });

  it('the bunny with its holes filled is a ball: χ = 2', () => {
    const figures = figuresOf(modelFromMesh('bunny', openModels.bunny()));
    expect(figures.pieces).toEqual([expect.objectContaining({ euler: 2, borders: 0, genus: 0 })]);
  });
});
