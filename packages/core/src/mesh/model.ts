import type { Connectivity } from './connectivity.ts';
import { disjointSets, numberSets, unite } from './disjointSets.ts';
import type { Material, ModelImage } from './material.ts';
import { faceCount, type Mesh } from './mesh.ts';

/** A mesh with everything a file said about it besides positions. */
export interface Model {
  /** File name without its ending. */
  readonly name: string;
  readonly mesh: Mesh;
  /** Index into `objects`, per face. */
  readonly faceObject: Uint32Array;
  readonly objects: readonly string[];
  /** Index into `groups`, per face. */
  readonly faceGroup: Uint32Array;
  readonly groups: readonly string[];
  /** Index into `materials`, per face; -1 for none. */
  readonly faceMaterial: Int32Array;
  readonly materials: readonly Material[];
  /** Those that materials name. */
  readonly images: readonly ModelImage[];
  /** Smoothing group per face; 0 is off, -1 where the file says nothing. */
  readonly faceSmoothing: Int32Array;
  /**
   * Where the file says so, the transform of each object, already carried out on its points: column-major 4 × 4 matrices.
   */
  readonly objectTransforms?: readonly Float64Array[];
  /** 1 for each face with a corner to which the file gave no place. */
  readonly faceLost?: Uint8Array;
  /** UV sets found in the file. */
  readonly uvSets: readonly UvSet[];
  /** What the model was read from, so that an export can repeat it to the byte. */
  readonly source: ModelSource;
  /** True once the mesh or its names are not those of the source any more: then exports are composed anew. */
  readonly altered?: boolean;
}

/** What an export can repeat to the byte. */
export const repeatable = ({ source, altered }: Model): ModelSource =>
  altered ? { format: 'none' } : source;

/** Fields of a model with one number a face. */
export const FACE_FIELDS = ['faceObject', 'faceGroup', 'faceMaterial', 'faceSmoothing', 'faceLost'] as const;
export type FaceField = (typeof FACE_FIELDS)[number];

export interface UvSet {
  readonly name: string;
  /** UV of each corner, `2 × cornerCount`; NaN where a corner has none. */
  readonly uv: Float64Array;
}

export type ModelSource =
  | {
      readonly format: 'obj';
      readonly bytes: Uint8Array;
      /** Material libraries that were opened along with it. */
      readonly libraries?: readonly { readonly name: string; readonly bytes: Uint8Array }[];
    }
  | { readonly format: 'ply'; readonly bytes: Uint8Array }
  | {
      readonly format: 'glb';
      readonly bytes: Uint8Array;
      /** Vertex of each corner within the primitive it came from. */
      readonly cornerSource: Uint32Array;
      /** Running number of the primitive of each face, in the order of the reader. */
      readonly facePrimitive: Uint32Array;
    }
  | { readonly format: 'none' };

/** A model with other fields; one that comes to have no value goes. */
export function withFields(
  model: Model,
  { before, after }: { readonly before: Partial<Model>; readonly after: Partial<Model> },
): Model {
  const gone = new Set(Object.keys(before));
  const kept = Object.entries(model).filter(([key]) => !gone.has(key));
  const values = Object.entries(after).filter(([, value]) => value !== undefined);
  return Object.fromEntries([...kept, ...values]) as unknown as Model;
}

/** A model of one nameless object, for scripts and tests. */
export function modelFromMesh(name: string, mesh: Mesh): Model {
  const faces = faceCount(mesh);
  return {
    name,
    mesh,
    faceObject: new Uint32Array(faces),
    objects: [name],
    faceGroup: new Uint32Array(faces),
    groups: [''],
    faceMaterial: new Int32Array(faces).fill(-1),
    materials: [],
    images: [],
    faceSmoothing: new Int32Array(faces).fill(-1),
    uvSets: [],
    source: { format: 'none' },
  };
}

/** Pieces of faces that share vertices: a label per face and how many there are. */
export function loosePieces(mesh: Mesh, connectivity: Connectivity): { label: Uint32Array; count: number } {
  const sets = disjointSets(faceCount(mesh));
  for (let e = 0; e < connectivity.isInterior.length; e++) {
    const first = connectivity.edgeCornerStart[e];
    for (let i = first + 1; i < connectivity.edgeCornerStart[e + 1]; i++) {
      unite(
        sets,
        connectivity.cornerFace[connectivity.edgeCorners[first]],
        connectivity.cornerFace[connectivity.edgeCorners[i]],
      );
    }
  }
  return numberSets(sets);
}
