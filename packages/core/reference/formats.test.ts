import { readFileSync } from 'node:fs';
import { Document } from '@gltf-transform/core';
import validator from 'gltf-validator';
import type { Mesh as ThreeMesh } from 'three';
import { Vector3 } from 'three';
import { GLTFLoader } from 'three/addons/loaders/GLTFLoader.js';
import { OBJLoader } from 'three/addons/loaders/OBJLoader.js';
import { describe, expect, it } from 'vitest';
import { applyDelta } from '../src/document/delta.ts';
import { current, type HemDocument, openDocument, topologyOf } from '../src/document/document.ts';
import { gltfIo } from '../src/formats/gltfIo.ts';
import { readGltf } from '../src/formats/readGltf.ts';
import { readModel } from '../src/formats/readModel.ts';
import { readObj } from '../src/formats/readObj.ts';
import { writeGlb } from '../src/formats/writeGlb.ts';
import { writeObj } from '../src/formats/writeObj.ts';
import { findEdge } from '../src/mesh/connectivity.ts';
import { carryOut } from '../src/operations/catalogue.ts';
import { localContext } from '../src/operations/localContext.ts';

/**
 * What we write, read back by readers that are not ours: the loaders of three.js, and the glTF validator of the
 * Khronos Group.
 */
const CUBE = `# comment kept
mtllib cube.mtl
o Box one
v -1 -1 -1\r
v 1.000 -1 -1 # trailing
v 1 1 -1
v -1 1 -1
v -1 -1 1
v 1 -1 1
v 1 1 1
v -1 1 1
vn 0 0 1
vt 0.1 0.2
g sides lower
usemtl Paint
s 2
f 4//1 3//1 \\
  2//1 1//1
f 5/1 6/1 7/1 8/1
s off
g upper
f -8 -7 -3 -4
f 2 3 7 6
f 3 4 8 7
f 4 1 5 8
l 1/1 2/1
`;
const CROSS = [
  [0, 1],
  [1, 2],
  [2, 3],
  [4, 5],
  [5, 6],
  [6, 7],
  [1, 5],
] as const;

async function unfolded(
  document: HemDocument,
  pairs: readonly (readonly [number, number])[],
): Promise<HemDocument> {
  const { connectivity } = topologyOf(document.model);
  const edges = pairs.map(([a, b]) => findEdge(connectivity, a, b));
  let now = document;
  for (const request of [
    { operation: 'cut', params: { edges } },
    { operation: 'unfold', params: {} },
  ]) {
    now = applyDelta(now, (await carryOut(now, request, localContext)).delta);
  }
  return now;
}

const bytesOf = (text: string) => new TextEncoder().encode(text);
const cubeModel = () => readObj(bytesOf(CUBE), 'cube.obj');
const uvOf = (document: HemDocument) => current(document).uv;

async function validate(glb: Uint8Array): Promise<void> {
  const report = await validator.validateBytes(glb);
  expect(report.issues.messages.filter(({ severity }: { severity: number }) => severity < 2)).toEqual([]);
}

function parseGlb(glb: Uint8Array): Promise<ThreeMesh[]> {
  return new Promise((resolve, reject) => {
    new GLTFLoader().parse(
      glb.slice().buffer,
      '',
      ({ scene }) => {
        const meshes: ThreeMesh[] = [];
        scene.updateMatrixWorld(true);
        scene.traverse((object) => {
          if ((object as ThreeMesh).isMesh) meshes.push(object as ThreeMesh);
        });
        resolve(meshes);
      },
      reject,
    );
  });
}

describe('OBJ', () => {
  it('keeps every line but UVs, to the byte, and three reads the same UVs', async () => {
    const document = await unfolded(openDocument(cubeModel(), { keepUvs: false }), CROSS);
    const text = new TextDecoder().decode(writeObj(document.model, uvOf(document)));
    const bare = (s: string) =>
      s.split('\n').filter((line) => !/^(vt|f|l) /.test(line) && !/^ {2}2/.test(line));
    expect(bare(text)).toEqual(bare(CUBE));
    expect(text).toContain('-8/');
    expect(text).toContain('l 1 2');
    expect(text).toMatch(/^f 4\/\d+\/1 3\/\d+\/1 2\/\d+\/1 1\/\d+\/1$/m);

    const group = new OBJLoader().parse(text);
    const read = group.children.flatMap((child) => [
      ...(child as ThreeMesh).geometry.getAttribute('uv').array,
    ]);
    const own = readObj(bytesOf(text), 'again.obj');
    expect(own.mesh.positions).toEqual(document.model.mesh.positions);
    expect(own.groups).toEqual(['sides lower', 'upper']);
    expect([...own.faceSmoothing]).toEqual([2, 2, 0, 0, 0, 0]);
    // three splits each quad into two triangles: 6 faces × 6 corners × 2.
    expect(read.length).toBe(72);
    const rounded = (values: Iterable<number>) => new Set([...values].map((x) => x.toFixed(4)));
    expect(rounded(read)).toEqual(rounded(own.uvSets[0].uv));
  });

  it('comes back byte for byte from a project that went through other formats', async () => {
    const glb = await readModel(await writeGlb(cubeModel(), [cubeModel().uvSets[0].uv]), 'cube.glb');
    const obj = readObj(writeObj(glb, glb.uvSets[0].uv), 'cube.obj');
    expect(obj.mesh.positions).toEqual(glb.mesh.positions);
    expect(obj.mesh.cornerVertex).toEqual(glb.mesh.cornerVertex);
  });
});

describe('GLB', () => {
  it('with two UV sets passes the validator, and three and our reader see both', async () => {
    const document = await unfolded(openDocument(cubeModel(), { keepUvs: false }), CROSS);
    const first = uvOf(document);
    const second = first.map((x, i) => (i & 1 ? 1 - x : 0.5 * x));
    const composed = await writeGlb(document.model, [first, second]);
    await validate(composed);
    const [{ geometry }] = await parseGlb(composed);
    expect(geometry.getAttribute('uv1').count).toBe(geometry.getAttribute('uv').count);
    // glTF counts v downwards (specification 2.0, section 3.7.2.1); three keeps it so.
    for (let i = 0; i < geometry.getAttribute('uv').count; i++) {
      const [a, b] = [geometry.getAttribute('uv'), geometry.getAttribute('uv1')];
      expect(b.getX(i)).toBeCloseTo(0.5 * a.getX(i), 6);
      expect(b.getY(i)).toBeCloseTo(1 - a.getY(i), 6);
    }
    // The same through a file that is written again, with its sets the other way round.
    const model = await readModel(composed, 'cube.glb');
    expect(model.uvSets).toHaveLength(2);
    const swapped = await writeGlb(model, [model.uvSets[1].uv, model.uvSets[0].uv]);
    await validate(swapped);
    const again = await readModel(swapped, 'cube.glb');
    expect(again.uvSets.map(({ uv }) => uv)).toEqual([model.uvSets[1].uv, model.uvSets[0].uv]);
  });

  it('made from an OBJ passes the validator, and three sees the same surface', async () => {
    const document = await unfolded(openDocument(cubeModel(), { keepUvs: false }), CROSS);
    const glb = await writeGlb(document.model, [uvOf(document)]);
    await validate(glb);
    const meshes = await parseGlb(glb);
    expect(meshes.length).toBe(1);
    const { geometry } = meshes[0];
    expect(geometry.index?.count).toBe(36);
    const area = [...Array(12).keys()].reduce((sum, t) => {
      const [a, b, c] = [0, 1, 2].map((k) => {
        const i = geometry.index?.getX(3 * t + k) as number;
        return new Vector3().fromBufferAttribute(geometry.getAttribute('position'), i);
      });
      return sum + b.sub(a).cross(c.sub(a)).length() / 2;
    }, 0);
    expect(area).toBeCloseTo(24, 5);
  });

  it('from a GLB keeps nodes, transforms, names, vertex order and materials, and adds UVs', async () => {
    const source = await sceneOfTwo();
    const model = await readGltf(source, 'pair.glb');
    expect(model.objects).toEqual(['Left', 'Right']);
    // A mirrored node is read the right way out: the volume of both halves is positive.
    expect(signedVolumes(model.mesh.positions, model.mesh.cornerVertex, model.faceObject)).toEqual([
      expect.closeTo(1 / 6, 6),
      expect.closeTo(1 / 6, 6),
    ]);
    const document = await unfolded(openDocument(model), [
      [0, 1],
      [1, 2],
      [4, 5],
      [5, 6],
    ]);
    const glb = await writeGlb(document.model, [uvOf(document)]);
    await validate(glb);
    const [before, after] = await Promise.all([gltfIo().readBinary(source), gltfIo().readBinary(glb)]);
    for (const [i, node] of after.getRoot().listNodes().entries()) {
      const old = before.getRoot().listNodes()[i];
      expect(node.getName()).toBe(old.getName());
      expect(node.getMatrix()).toEqual(old.getMatrix());
      const [oldPoints, points] = [old, node].map(
        (n) => n.getMesh()?.listPrimitives()[0].getAttribute('POSITION')?.getArray() as Float32Array,
      );
      expect(points.slice(0, oldPoints.length)).toEqual(oldPoints);
    }
    const again = await readGltf(glb, 'again.glb');
    expect(again.mesh.positions).toEqual(model.mesh.positions);
    expect(again.mesh.cornerVertex).toEqual(model.mesh.cornerVertex);
    uvOf(document).forEach((x, i) => {
      expect(again.uvSets[0].uv[i]).toBeCloseTo(x, 6);
    });
    expect((await parseGlb(glb)).map(({ name }) => name)).toEqual(['Left', 'Right']);
    const materials = after.getRoot().listMaterials();
    expect(materials.map((m) => [m.getName(), m.getBaseColorFactor()])).toEqual([
      ['Clay', [0.5, 0.25, 0.125, 1]],
    ]);
    for (const mesh of after.getRoot().listMeshes())
      expect(mesh.listPrimitives().map((p) => p.getMaterial())).toEqual([materials[0]]);
    expect(again.materials).toEqual([{ name: 'Clay', colour: [0.5, 0.25, 0.125], inFile: 0 }]);
  });

  it('from a GLB keeps normals and colours at every corner, also where seams divide a point', async () => {
    const source = await sceneOfTwo();
    const model = await readGltf(source, 'pair.glb');
    const document = await unfolded(openDocument(model), [
      [0, 1],
      [1, 2],
      [4, 5],
      [5, 6],
    ]);
    const glb = await writeGlb(document.model, [uvOf(document)]);
    const [before, after] = await Promise.all([gltfIo().readBinary(source), gltfIo().readBinary(glb)]);
    const cornersOf = (whole: typeof before, semantic: string) =>
      whole
        .getRoot()
        .listNodes()
        .flatMap((node) => {
          const [primitive] = node.getMesh()?.listPrimitives() ?? [];
          const values = primitive.getAttribute(semantic);
          return [...(primitive.getIndices()?.getArray() ?? [])].map((i) => values?.getElement(i, []));
        });
    const points = (whole: typeof before) =>
      whole.getRoot().listMeshes()[0].listPrimitives()[0].getAttribute('POSITION')?.getCount() ?? 0;
    expect(points(after)).toBeGreaterThan(points(before));
    for (const semantic of ['POSITION', 'NORMAL', 'COLOR_0']) {
      const [old, now] = [before, after].map((whole) => cornersOf(whole, semantic));
      expect(old.every((value) => value !== undefined)).toBe(true);
      expect(now).toEqual(old);
    }
    // And three sees them.
    const [mesh] = await parseGlb(glb);
    expect(mesh.geometry.getAttribute('normal').count).toBe(points(after));
    expect(mesh.geometry.getAttribute('color').count).toBe(points(after));
  });
});

/** One tetrahedron mesh shown by two nodes, the second mirrored. */
async function sceneOfTwo(): Promise<Uint8Array> {
  const document = new Document();
  const buffer = document.createBuffer();
  const position = document
    .createAccessor()
    .setType('VEC3')
    .setArray(Float32Array.from([0, 0, 0, 1, 0, 0, 0, 1, 0, 0, 0, 1]))
    .setBuffer(buffer);
  const indices = document
    .createAccessor()
    .setType('SCALAR')
    .setArray(Uint16Array.from([0, 2, 1, 0, 1, 3, 1, 2, 3, 2, 0, 3]))
    .setBuffer(buffer);
  const perPoint = (values: number[]) =>
    document.createAccessor().setType('VEC3').setArray(Float32Array.from(values)).setBuffer(buffer);
  const material = document.createMaterial('Clay').setBaseColorFactor([0.5, 0.25, 0.125, 1]);
  const primitive = document
    .createPrimitive()
    .setAttribute('POSITION', position)
    .setAttribute('NORMAL', perPoint([0, 0, -1, 1, 0, 0, 0, 1, 0, 0, 0, 1]))
    .setAttribute('COLOR_0', perPoint([1, 0, 0, 0, 1, 0, 0, 0, 1, 1, 1, 0]))
    .setIndices(indices)
    .setMaterial(material);
  const mesh = document.createMesh('Tetra').addPrimitive(primitive);
  const scene = document.createScene();
  scene.addChild(document.createNode('Left').setMesh(mesh).setTranslation([2, 0, 0]));
  scene.addChild(document.createNode('Right').setMesh(mesh).setScale([-1, 1, 1]));
  return gltfIo().writeBinary(document);
}

function signedVolumes(p: Float64Array, corners: Uint32Array, object: Uint32Array): number[] {
  const volumes: number[] = [];
  for (let f = 0; f < object.length; f++) {
    const [a, b, c] = [0, 1, 2].map((k) => new Vector3().fromArray(p, 3 * corners[3 * f + k]));
    volumes[object[f]] = (volumes[object[f]] ?? 0) + a.dot(b.cross(c)) / 6;
  }
  return volumes;
}

describe('bad files', () => {
  const cases: [string, Uint8Array, RegExp][] = [
    ['none.obj', new Uint8Array(0), /none\.obj: the file is empty/],
    ['points.obj', bytesOf('v 0 0 0\n'), /1 vertices but no faces/],
    ['words.obj', bytesOf('hello\n'), /there is no model/],
    ['two.obj', bytesOf('v 0 0 0\nv 1 0 0\nf 1 2\n'), /line 3: a face needs at least three corners/],
    ['zero.obj', bytesOf('v 0 0 0\nf 0 1 1\n'), /line 2: “0” is not the number of a vertex/],
    ['far.obj', bytesOf('v 1 2 far\n'), /“far” is not a number/],
    ['model.xyz', bytesOf('x'), /models ending in \.xyz cannot be opened/],
    ['text.glb', bytesOf('glb?'), /this is not a GLB file/],
  ];
  it.each(cases)('%s gets one sentence', async (name, bytes, sentence) => {
    await expect(readModel(bytes, name)).rejects.toThrow(sentence);
  });

  it('reads every truncation of a GLB as a sentence or a model', async () => {
    const glb = await sceneOfTwo();
    for (let length = 4; length < glb.length; length += 37) {
      const error = await readModel(glb.slice(0, length), 'cut.glb').catch((e: Error) => e);
      if (error instanceof Error) expect(error.message).toMatch(/^cut\.glb/);
    }
  });

  it('ships demo models that it can read itself', async () => {
    const bytes = readFileSync(new URL('../../app/public/demo/toad-ferryman.obj', import.meta.url));
    const { connectivity } = topologyOf(await readModel(bytes, 'toad-ferryman.obj'));
    expect(connectivity.isInterior.every((isInterior) => isInterior === 1)).toBe(true);
  });
});
