import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { HemError } from '../errors.ts';
import type { Model } from '../mesh/model.ts';
import { modelFromMesh } from '../mesh/model.ts';
import { cube, torus } from '../testing/shapes.ts';
import { readModel } from './readModel.ts';
import { writeGlb } from './writeGlb.ts';
import { writeObj } from './writeObj.ts';

/** Whatever the bytes, a reader gives a sound model or one sentence. */
async function survives(bytes: Uint8Array, name: string): Promise<void> {
  let model: Model;
  try {
    model = await readModel(bytes, name);
  } catch (error) {
    expect(error).toBeInstanceOf(HemError);
    expect((error as Error).message).toMatch(/^x\.\w+.*: .+\. .+\.$/s);
    return;
  }
  const { positions, cornerVertex, faceStart } = model.mesh;
  expect(positions.every(Number.isFinite)).toBe(true);
  expect(cornerVertex.every((v) => v < positions.length / 3)).toBe(true);
  expect(faceStart[faceStart.length - 1]).toBe(cornerVertex.length);
  expect(model.faceObject.every((o) => o < model.objects.length)).toBe(true);
  for (const { uv } of model.uvSets) expect(uv.length).toBe(2 * cornerVertex.length);
  // No more than so many numbers for each byte.
  expect(positions.length + cornerVertex.length).toBeLessThanOrEqual(100 * bytes.length);
}

const bytesOf = (text: string) => new TextEncoder().encode(text);
const ring = modelFromMesh('ring', torus(5, 4));
const noUv = (model: Model) => new Float64Array(2 * model.mesh.cornerVertex.length).fill(0.25);

function binaryStl({ mesh }: Model): Uint8Array {
  const triangles = mesh.cornerVertex.length / 4;
  const bytes = new Uint8Array(84 + 50 * triangles);
  const view = new DataView(bytes.buffer);
  view.setUint32(80, triangles, true);
  for (let t = 0; t < triangles; t++)
    for (let k = 0; k < 9; k++)
      view.setFloat32(
        96 + 50 * t + 4 * k,
        mesh.positions[3 * mesh.cornerVertex[4 * t + Math.floor(k / 3)] + (k % 3)],
        true,
      );
  return bytes;
}

const plyText = () => {
  const { positions, cornerVertex } = cube();
  const points = Array.from({ length: 8 }, (_, v) => positions.slice(3 * v, 3 * v + 3).join(' '));
  const faces = Array.from({ length: 6 }, (_, f) => `4 ${cornerVertex.slice(4 * f, 4 * f + 4).join(' ')}`);
  return `ply\nformat ascii 1.0\nelement vertex 8\nproperty float x\nproperty float y\nproperty float z\nelement face 6\nproperty list uchar int vertex_indices\nend_header\n${[...points, ...faces].join('\n')}\n`;
};

const gltfText = `{"asset":{"version":"2.0"},"scene":0,"scenes":[{"nodes":[0]}],"nodes":[{"mesh":0}],"meshes":[{"primitives":[{"attributes":{"POSITION":0}}]}],"accessors":[{"componentType":5126,"count":3,"type":"VEC3","bufferView":0}],"bufferViews":[{"buffer":0,"byteLength":36}],"buffers":[{"byteLength":36,"uri":"data:application/octet-stream;base64,AAAAAAAAAAAAAAAAAACAPwAAAAAAAAAAAAAAAAAAgD8AAAAA"}]}`;

const seeds: [name: string, bytes: () => Promise<Uint8Array>][] = [
  ['x.obj', async () => writeObj(ring, noUv(ring))],
  ['x.glb', () => writeGlb(ring, [noUv(ring)])],
  ['x.gltf', async () => bytesOf(gltfText)],
  ['x.ply', async () => bytesOf(plyText())],
  ['x.stl', async () => binaryStl(ring)],
];

describe.each(seeds)('reading %s', (name, seed) => {
  it('begins with a sound file', async () => {
    expect((await readModel(await seed(), name)).mesh.cornerVertex.length).toBeGreaterThan(0);
  });

  it('survives changed, lost and added bytes', async () => {
    const bytes = await seed();
    const change = fc.tuple(fc.nat(bytes.length - 1), fc.integer({ min: 0, max: 255 }));
    await fc.assert(
      fc.asyncProperty(
        fc.array(change, { minLength: 1, maxLength: 12 }),
        fc.nat(bytes.length),
        async (changes, cut) => {
          const copy = bytes.slice();
          for (const [at, value] of changes) copy[at] = value;
          await survives(copy, name);
          await survives(copy.slice(0, cut), name);
          await survives(Uint8Array.from([...copy.subarray(0, cut), ...copy]), name);
        },
      ),
      { numRuns: 80 },
    );
  });

  it('survives bytes of chance, and words of its own kind', async () => {
    const words = fc.constantFrom(
      'v',
      'f',
      'vt',
      '1',
      '-1',
      '1e999',
      'nan',
      '/',
      '\\',
      '\n',
      'ply',
      'solid',
      'vertex',
      'endfacet',
      'element',
      '{',
      '}',
      '"',
      'o',
      '99999999999',
      '0',
    );
    await fc.assert(
      fc.asyncProperty(
        fc.uint8Array({ maxLength: 200 }),
        fc.array(words, { maxLength: 60 }),
        async (noise, list) => {
          await survives(noise, name);
          const head = (await seed()).subarray(0, 60);
          await survives(Uint8Array.from([...head, ...noise]), name);
          await survives(bytesOf(list.join(' ')), name);
        },
      ),
      { numRuns: 80 },
    );
  });
});

describe('promises that cannot be kept', () => {
  it.each([
    [
      'an accessor of a thousand million zeros',
      gltfText.replace('"count":3,"type":"VEC3","bufferView":0', '"count":1000000000,"type":"VEC3"'),
    ],
    ['a node that is its own child', gltfText.replace('{"mesh":0}', '{"mesh":0,"children":[0]}')],
    [
      'one mesh shown without end',
      gltfText.replace(
        '"nodes":[{"mesh":0}]',
        `"nodes":[{"children":[${Array.from({ length: 30 }, () => 1)}]},{"mesh":0}]`,
      ),
    ],
  ])('%s', async (_, text) => {
    await survives(bytesOf(text), 'x.gltf');
  });
});
