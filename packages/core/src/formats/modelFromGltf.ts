import type { Document } from '@gltf-transform/core';
import { FileError } from '../errors.ts';
import { determinant } from '../mesh/affine.ts';
import type { Model, UvSet } from '../mesh/model.ts';
import { type GlbPart, glbParts } from './glbParts.ts';
import { foundPoints } from './lostPoints.ts';
import { imagesOf, materialsOf } from './materialsOfGltf.ts';

const AGAIN = 'Export the model again and open the new file.';

/** A small file may show one mesh by many nodes; more corners than this must be in the file itself. */
const MOST_CORNERS = 6_000_000;

/**
 * The model in a glTF document. Vertices that a primitive repeats only for normals or UVs are joined where their positions are
 * exactly equal, so that shells can run across them.
 *
 * @param bytes  the document as plain GLB
 * @throws FileError
 */
export function modelFromGltf(document: Document, bytes: Uint8Array, fileName: string): Model {
  const parts = glbParts(document);
  const corners = parts.reduce(
    (sum, { primitive }) => sum + (primitive.getIndices() ?? primitive.getAttribute('POSITION')!).getCount(),
    0,
  );
  if (corners > Math.max(MOST_CORNERS, 100 * bytes.length)) {
    throw new FileError(
      fileName,
      'its nodes show more triangles than fit into memory.',
      'Export fewer copies.',
    );
  }
  const positions: number[] = [];
  const cornerVertex: number[] = [];
  const cornerSource: number[] = [];
  const facePrimitive: number[] = [];
  const faceObject: number[] = [];
  const faceMaterial: number[] = [];
  const objects: string[] = [];
  const objectTransforms: Float64Array[] = [];
  const objectOf = new Map<GlbPart['node'], number>();
  const materials = materialsOf(document);
  const uvSets = new Map<number, number[]>();
  // Joined vertices of each node's mesh: by exact position, across its primitives.
  const joined = new Map<GlbPart['node'], Map<string, number>>();

  parts.forEach(({ node, mesh, primitive }, p) => {
    const matrix = node.getWorldMatrix();
    let object = objectOf.get(node);
    if (object === undefined) {
      object = objects.push(node.getName() || mesh.getName() || `Part ${p + 1}`) - 1;
      objectOf.set(node, object);
      objectTransforms.push(Float64Array.from(matrix));
    }
    const point = primitive.getAttribute('POSITION')!;
    const own = joined.get(node) ?? new Map<string, number>();
    joined.set(node, own);
    const element: number[] = [];
    const vertexOf = new Int32Array(point.getCount());
    for (let i = 0; i < vertexOf.length; i++) {
      const [x, y, z] = point.getElement(i, element);
      const key = `${x} ${y} ${z}`;
      let vertex = own.get(key);
      if (vertex === undefined) {
        vertex = positions.length / 3;
        own.set(key, vertex);
        for (let k = 0; k < 3; k++)
          positions.push(matrix[k] * x + matrix[4 + k] * y + matrix[8 + k] * z + matrix[12 + k]);
      }
      vertexOf[i] = vertex;
    }
    const indices = primitive.getIndices()?.getArray() ?? Uint32Array.from(vertexOf.keys());
    const mirrored = determinant(matrix) < 0;
    const first = cornerVertex.length;
    for (let i = 0; i + 2 < indices.length; i += 3) {
      // The specification turns the winding round under a mirroring transform.
      for (const k of mirrored ? [0, 2, 1] : [0, 1, 2]) {
        const source = indices[i + k];
        if (source >= vertexOf.length)
          throw new FileError(fileName, `a face asks for vertex ${source} of ${vertexOf.length}.`, AGAIN);
        cornerVertex.push(vertexOf[source]);
        cornerSource.push(source);
      }
      facePrimitive.push(p);
      faceObject.push(object);
      const material = primitive.getMaterial();
      faceMaterial.push(material ? materials.indexOf(material) : -1);
    }
    collectUvs(primitive, cornerSource, first, uvSets);
  });
  if (facePrimitive.length === 0)
    throw new FileError(fileName, 'there are no faces in this file.', 'Open a GLB file with triangles.');

  const faces = facePrimitive.length;
  const faceStart = Uint32Array.from({ length: faces + 1 }, (_, f) => 3 * f);
  const points = foundPoints(Float64Array.from(positions), faceStart, cornerVertex, fileName);
  return {
    name: fileName.replace(/\.[^.]*$/, ''),
    mesh: {
      positions: points.positions,
      faceStart,
      cornerVertex: Uint32Array.from(cornerVertex),
    },
    faceObject: Uint32Array.from(faceObject),
    objects,
    objectTransforms,
    faceGroup: new Uint32Array(faces),
    groups: [''],
    faceMaterial: Int32Array.from(faceMaterial),
    materials: materials.list,
    images: imagesOf(document),
    faceSmoothing: new Int32Array(faces).fill(-1),
    ...(points.faceLost && { faceLost: points.faceLost }),
    uvSets: uvSetsFrom(uvSets, cornerVertex.length),
    source: {
      format: 'glb',
      bytes,
      cornerSource: Uint32Array.from(cornerSource),
      facePrimitive: Uint32Array.from(facePrimitive),
    },
  };
}

/** glTF's v runs down the picture, ours up. */
export const flipV = (v: number): number => 1 - v;

function collectUvs(
  primitive: GlbPart['primitive'],
  cornerSource: readonly number[],
  first: number,
  uvSets: Map<number, number[]>,
): void {
  const element: number[] = [];
  for (let set = 0; ; set++) {
    const attribute = primitive.getAttribute(`TEXCOORD_${set}`);
    if (!attribute) return;
    const uv = uvSets.get(set) ?? [];
    uvSets.set(set, uv);
    for (let c = first; c < cornerSource.length; c++) {
      const [u, v] = attribute.getElement(cornerSource[c], element);
      uv[2 * c] = u;
      uv[2 * c + 1] = flipV(v);
    }
  }
}

function uvSetsFrom(uvSets: Map<number, number[]>, corners: number): UvSet[] {
  return [...uvSets].map(([set, values]) => ({
    name: set === 0 ? 'UV' : `UV ${set + 1}`,
    uv: Float64Array.from({ length: 2 * corners }, (_, i) => values[i] ?? NaN),
  }));
}
