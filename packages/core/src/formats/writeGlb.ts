import type { Accessor, Document, Mesh, Node, Primitive } from '@gltf-transform/core';
import { faceCount } from '../mesh/mesh.ts';
import { type Model, type ModelSource, repeatable } from '../mesh/model.ts';
import { triangulate } from '../mesh/triangulate.ts';
import { cornerNormals } from './cornerNormals.ts';
import { documentWithMaterials } from './documentWithMaterials.ts';
import { glbParts } from './glbParts.ts';
import { gltfIo } from './gltfIo.ts';
import { flipV } from './modelFromGltf.ts';

/**
 * Writes a model as binary glTF with the given UV sets as TEXCOORD_0, TEXCOORD_1 and so on. A model that came from a GLB file is that file
 * again, with nothing but UVs changed: vertices keep their order, and those that seams divide are repeated
 * behind them. Meshes that several nodes share become one mesh a node, since each node has UVs of its own.
 *
 * @param sets  one or more, each `2 × cornerCount`; corners without UV (NaN) get 0, 0
 */
export async function writeGlb(model: Model, sets: readonly Float64Array[]): Promise<Uint8Array> {
  return gltfIo().writeBinary(await gltfDocument(model, sets));
}

/** The same as a document, before it is written as one file or as several. */
export function gltfDocument(model: Model, sets: readonly Float64Array[]): Promise<Document> {
  const source = repeatable(model);
  return source.format === 'glb' ? repeated(model, source, sets) : composed(model, sets);
}

/** UVs of a corner as glTF has them, set after set. */
const texcoords = (sets: readonly Float64Array[], c: number): number[] =>
  sets.flatMap((uv) => (Number.isNaN(uv[2 * c]) ? [0, 0] : [uv[2 * c], flipV(uv[2 * c + 1])]));

async function repeated(
  model: Model,
  source: Extract<ModelSource, { format: 'glb' }>,
  sets: readonly Float64Array[],
): Promise<Document> {
  const document = await gltfIo().readBinary(source.bytes);
  unshareMeshes(document);
  const parts = glbParts(document);
  const corners: number[][] = parts.map(() => []);
  for (let f = 0; f < faceCount(model.mesh); f++) {
    for (let c = model.mesh.faceStart[f]; c < model.mesh.faceStart[f + 1]; c++)
      corners[source.facePrimitive[f]].push(c);
  }
  parts.forEach(({ primitive }, p) => {
    writeUvs(document, primitive, corners[p], source.cornerSource, sets);
  });
  return document;
}

/** Gives every node that shares a mesh, and every primitive that shares an accessor, one of its own. */
function unshareMeshes(document: Document): void {
  const nodeOf = new Map<Mesh, Node>();
  for (const { node, mesh } of glbParts(document)) {
    const owner = nodeOf.get(mesh) ?? node;
    nodeOf.set(mesh, owner);
    if (owner === node || node.getMesh() !== mesh) continue;
    const copy = mesh.clone();
    for (const primitive of copy.listPrimitives())
      copy.removePrimitive(primitive).addPrimitive(primitive.clone());
    node.setMesh(copy);
  }
}

/** Repeats vertices where corners of one source vertex differ in UV, and sets all that is given; sets beyond stay as the file has them. */
function writeUvs(
  document: Document,
  primitive: Primitive,
  corners: readonly number[],
  cornerSource: Uint32Array,
  sets: readonly Float64Array[],
): void {
  const width = 2 * sets.length;
  const point = primitive.getAttribute('POSITION') as Accessor;
  const count = point.getCount();
  const indices = new Uint32Array(corners.length);
  // For each vertex, new and old, which source it repeats and which UV it has.
  const sourceOf = Array.from({ length: count }, (_, i) => i);
  const coordinates: number[] = new Array(width * count);
  const versions = new Map<number, number[]>();
  corners.forEach((c, i) => {
    const source = cornerSource[c];
    const own = texcoords(sets, c);
    const known = versions.get(source) ?? [];
    versions.set(source, known);
    let vertex = known.find((k) => own.every((x, j) => coordinates[width * k + j] === x));
    if (vertex === undefined) {
      vertex = known.length === 0 ? source : sourceOf.push(source) - 1;
      for (let j = 0; j < width; j++) coordinates[width * vertex + j] = own[j];
      known.push(vertex);
    }
    indices[i] = vertex;
  });
  if (sourceOf.length > count) {
    for (const name of primitive.listSemantics()) {
      primitive.setAttribute(name, repeatedAccessor(primitive.getAttribute(name) as Accessor, sourceOf));
    }
    for (const target of primitive.listTargets()) {
      for (const name of target.listSemantics()) {
        target.setAttribute(name, repeatedAccessor(target.getAttribute(name) as Accessor, sourceOf));
      }
    }
  }
  const buffer = document.getRoot().listBuffers()[0] ?? document.createBuffer();
  sets.forEach((_, s) => {
    const values = Float32Array.from(
      { length: 2 * sourceOf.length },
      (_, i) => coordinates[width * (i >> 1) + 2 * s + (i & 1)] ?? 0,
    );
    primitive.setAttribute(
      `TEXCOORD_${s}`,
      document.createAccessor().setType('VEC2').setArray(values).setBuffer(buffer),
    );
  });
  const mirrored = indicesAreMirrored(primitive, corners, cornerSource);
  if (mirrored)
    for (let i = 0; i < indices.length; i += 3)
      [indices[i + 1], indices[i + 2]] = [indices[i + 2], indices[i + 1]];
  primitive.setIndices(
    document
      .createAccessor()
      .setType('SCALAR')
      .setArray(sourceOf.length <= 0xffff ? Uint16Array.from(indices) : indices)
      .setBuffer(buffer),
  );
}

/** The reader turns mirrored triangles round; in the file they go back the other way. */
function indicesAreMirrored(
  primitive: Primitive,
  corners: readonly number[],
  cornerSource: Uint32Array,
): boolean {
  const old = primitive.getIndices()?.getArray();
  return corners.length > 1 && cornerSource[corners[1]] !== (old ? old[1] : 1);
}

function repeatedAccessor(accessor: Accessor, sourceOf: readonly number[]): Accessor {
  const size = accessor.getElementSize();
  const old = accessor.getArray()!;
  const array = new (old.constructor as new (length: number) => typeof old)(sourceOf.length * size);
  sourceOf.forEach((source, i) => {
    for (let k = 0; k < size; k++) array[i * size + k] = old[source * size + k];
  });
  return accessor.clone().setArray(array);
}

async function composed(model: Model, sets: readonly Float64Array[]): Promise<Document> {
  const { document, materials } = await documentWithMaterials(model);
  const buffer = document.getRoot().listBuffers()[0] ?? document.createBuffer();
  const scene = document.createScene(model.name);
  const normals = cornerNormals(model);
  const { triangleCorners, triangleFace } = triangulate(model.mesh);

  // Corners of each object and material, three a triangle.
  const primitives = new Map<string, { object: number; material: number; corners: number[] }>();
  triangleFace.forEach((f, t) => {
    const [object, material] = [model.faceObject[f], model.faceMaterial[f]];
    const key = `${object} ${material}`;
    const entry = primitives.get(key) ?? { object, material, corners: [] };
    primitives.set(key, entry);
    entry.corners.push(triangleCorners[3 * t], triangleCorners[3 * t + 1], triangleCorners[3 * t + 2]);
  });
  const meshes = model.objects.map((name) => {
    const mesh = document.createMesh(name);
    scene.addChild(document.createNode(name).setMesh(mesh));
    return mesh;
  });
  for (const { object, material, corners } of primitives.values()) {
    const { indices, position, normal, texture } = splitVertices(model, corners, normals, sets);
    const accessor = (type: 'VEC2' | 'VEC3' | 'SCALAR', array: Float32Array | Uint32Array) =>
      document.createAccessor().setType(type).setArray(array).setBuffer(buffer);
    const primitive = document
      .createPrimitive()
      .setAttribute('POSITION', accessor('VEC3', position))
      .setAttribute('NORMAL', accessor('VEC3', normal))
      .setIndices(accessor('SCALAR', indices));
    texture.forEach((values, s) => {
      primitive.setAttribute(`TEXCOORD_${s}`, accessor('VEC2', Float32Array.from(values)));
    });
    if (material >= 0) primitive.setMaterial(materials[material]);
    meshes[object].addPrimitive(primitive);
  }
  return document;
}

/** glTF vertices: one for every different vertex, normal and UV. */
function splitVertices(
  model: Model,
  corners: readonly number[],
  normals: Float64Array,
  sets: readonly Float64Array[],
) {
  const vertexOf = new Map<string, number>();
  const position: number[] = [];
  const normal: number[] = [];
  const texture: number[][] = sets.map(() => []);
  const indices = Uint32Array.from(corners, (c) => {
    const v = model.mesh.cornerVertex[c];
    const own = texcoords(sets, c);
    const n = normals.subarray(3 * c, 3 * c + 3);
    const key = `${v} ${own.join(' ')} ${n[0]} ${n[1]} ${n[2]}`;
    let vertex = vertexOf.get(key);
    if (vertex === undefined) {
      vertex = position.length / 3;
      vertexOf.set(key, vertex);
      position.push(...model.mesh.positions.subarray(3 * v, 3 * v + 3));
      normal.push(...n);
      texture.forEach((values, s) => {
        values.push(own[2 * s], own[2 * s + 1]);
      });
    }
    return vertex;
  });
  return {
    indices,
    position: Float32Array.from(position),
    normal: Float32Array.from(normal),
    texture,
  };
}
