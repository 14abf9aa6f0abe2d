import { type HemDocument, shellsOf, topologyOf } from '@blunt-hem/core/document/document';
import type { Mesh } from '@blunt-hem/core/mesh/mesh';
import { BufferAttribute, BufferGeometry, DoubleSide, Ray, Vector3 } from 'three';
import { MeshBVH } from 'three-mesh-bvh';
import type { BoxQuery, Pick } from './protocol.ts';

/** Finds what a ray meets, on the model or in the flat. */
export interface Picker {
  pickModel(document: HemDocument, origin: readonly number[], direction: readonly number[]): Pick | undefined;
  pickBoard(document: HemDocument, u: number, v: number): Pick | undefined;
  edgesInBox(document: HemDocument, query: BoxQuery): number[];
  facesInBox(document: HemDocument, query: BoxQuery): number[];
}

/** Trees are built when first asked for, and again when what they stand on has changed. */
export function picker(): Picker {
  const solid = memoised((document: HemDocument) => [document.model, document.hidden], solidTree);
  const flat = memoised(
    (document: HemDocument) => [document.model, document.uvSets[document.currentUv].uv, document.hidden],
    flatTree,
  );
  return {
    pickModel(document, origin, direction) {
      const tree = solid(document);
      const ray = new Ray(new Vector3(...origin), new Vector3(...direction).normalize());
      return hit(tree, ray, (face, point) => pickAt(document, face, point, modelPoint(document)));
    },
    pickBoard(document, u, v) {
      const ray = new Ray(new Vector3(u, v, 1), new Vector3(0, 0, -1));
      return hit(flat(document), ray, (face, point) => pickAt(document, face, point, flatPoint(document)));
    },
    edgesInBox: (document, query) => edgesInBox(document, solid(document), query),
    facesInBox: (document, query) => facesInBox(document, solid(document), query),
  };
}

interface Tree {
  readonly bvh: MeshBVH | undefined;
  readonly faceOf: Uint32Array;
}

function memoised<T>(
  keys: (document: HemDocument) => readonly unknown[],
  build: (document: HemDocument) => T,
) {
  let last: readonly unknown[] = [];
  let value: T;
  return (document: HemDocument): T => {
    const now = keys(document);
    if (now.length !== last.length || now.some((key, i) => key !== last[i])) {
      value = build(document);
      last = now;
    }
    return value;
  };
}

function treeOver(document: HemDocument, point: (corner: number) => readonly [number, number, number]): Tree {
  const { triangulation } = topologyOf(document.model);
  const positions: number[] = [];
  const faceOf: number[] = [];
  for (let t = 0; t < triangulation.triangleFace.length; t++) {
    const f = triangulation.triangleFace[t];
    if (document.hidden[f]) continue;
    const corners = [0, 1, 2].map((k) => point(triangulation.triangleCorners[3 * t + k]));
    if (corners.some(([x]) => Number.isNaN(x))) continue;
    for (const corner of corners) positions.push(...corner);
    faceOf.push(f);
  }
  if (faceOf.length === 0) return { bvh: undefined, faceOf: new Uint32Array(0) };
  const geometry = new BufferGeometry();
  geometry.setAttribute('position', new BufferAttribute(Float32Array.from(positions), 3));
  // Indirect: the order of triangles stays, so that they can be told apart.
  return { bvh: new MeshBVH(geometry, { indirect: true }), faceOf: Uint32Array.from(faceOf) };
}

const solidTree = (document: HemDocument): Tree => treeOver(document, modelPoint(document));
const flatTree = (document: HemDocument): Tree => treeOver(document, flatPoint(document));

type PointOf = (corner: number) => readonly [number, number, number];

const modelPoint =
  (document: HemDocument): PointOf =>
  (c) => {
    const { positions, cornerVertex } = document.model.mesh;
    const i = 3 * cornerVertex[c];
    return [positions[i], positions[i + 1], positions[i + 2]];
  };

const flatPoint =
  (document: HemDocument): PointOf =>
  (c) => {
    const { uv } = document.uvSets[document.currentUv];
    return [uv[2 * c], uv[2 * c + 1], 0];
  };

function hit(tree: Tree, ray: Ray, found: (face: number, point: Vector3) => Pick): Pick | undefined {
  const first = tree.bvh?.raycastFirst(ray, DoubleSide);
  if (!first || first.faceIndex === undefined || first.faceIndex === null) return undefined;
  return found(tree.faceOf[first.faceIndex], first.point);
}

/** The face that was met, its nearest edge and its shell. */
function pickAt(document: HemDocument, face: number, point: Vector3, pointOf: PointOf): Pick {
  const { mesh, links } = topologyOf(document.model);
  let edge = links.cornerEdge[mesh.faceStart[face]];
  let least = Infinity;
  for (let c = mesh.faceStart[face]; c < mesh.faceStart[face + 1]; c++) {
    const length = distanceToSegment(point, pointOf(c), pointOf(links.nextCorner[c]));
    if (length < least) {
      least = length;
      edge = links.cornerEdge[c];
    }
  }
  return { face, edge, shell: shellsOf(document).faceShell[face], point: [point.x, point.y, point.z] };
}

function distanceToSegment(p: Vector3, a: readonly number[], b: readonly number[]): number {
  const d = [b[0] - a[0], b[1] - a[1], b[2] - a[2]];
  const square = d[0] * d[0] + d[1] * d[1] + d[2] * d[2] || 1;
  const along = ((p.x - a[0]) * d[0] + (p.y - a[1]) * d[1] + (p.z - a[2]) * d[2]) / square;
  const t = Math.max(0, Math.min(1, along));
  return Math.hypot(p.x - a[0] - t * d[0], p.y - a[1] - t * d[1], p.z - a[2] - t * d[2]);
}

/** 1 for each vertex that lies in the rectangle. */
function verticesInBox({ positions }: Mesh, { matrix: m, rectangle }: BoxQuery): Uint8Array {
  const inside = new Uint8Array(positions.length / 3);
  for (let v = 0; v < inside.length; v++) {
    const x = positions[3 * v];
    const y = positions[3 * v + 1];
    const z = positions[3 * v + 2];
    const w = m[3] * x + m[7] * y + m[11] * z + m[15];
    if (w <= 0) continue;
    const cx = (m[0] * x + m[4] * y + m[8] * z + m[12]) / w;
    const cy = (m[1] * x + m[5] * y + m[9] * z + m[13]) / w;
    inside[v] = cx >= rectangle[0] && cx <= rectangle[2] && cy >= rectangle[1] && cy <= rectangle[3] ? 1 : 0;
  }
  return inside;
}

/** Whether no face hides the middle of some vertices from the eye. */
function sight({ bvh }: Tree, { positions }: Mesh, eye: BoxQuery['eye']) {
  const from = new Vector3(...eye);
  const ray = new Ray(from.clone(), new Vector3());
  return (vertices: Uint32Array): boolean => {
    ray.direction.set(0, 0, 0);
    for (const v of vertices) {
      ray.direction.x += positions[3 * v] / vertices.length;
      ray.direction.y += positions[3 * v + 1] / vertices.length;
      ray.direction.z += positions[3 * v + 2] / vertices.length;
    }
    ray.direction.sub(from);
    const reach = ray.direction.length();
    ray.direction.divideScalar(reach);
    const first = bvh?.raycastFirst(ray, DoubleSide);
    return !first || first.distance >= reach * (1 - 1e-3);
  };
}

/** Edges with both ends in the rectangle; visible only: those whose middle no face hides. */
function edgesInBox(document: HemDocument, tree: Tree, query: BoxQuery): number[] {
  const { mesh, links } = topologyOf(document.model);
  const inside = verticesInBox(mesh, query);
  const isSeen = sight(tree, mesh, query.eye);
  const found: number[] = [];
  for (let e = 0; e < links.joined.length; e++) {
    const ends = links.edgeVertices.subarray(2 * e, 2 * e + 2);
    if (!inside[ends[0]] || !inside[ends[1]]) continue;
    if (document.hidden[links.cornerFace[links.edgeCorners[links.edgeCornerStart[e]]]]) continue;
    if (!query.visibleOnly || isSeen(ends)) found.push(e);
  }
  return found;
}

/** Faces with all corners in the rectangle; visible only: those whose middle no other face hides. */
function facesInBox(document: HemDocument, tree: Tree, query: BoxQuery): number[] {
  const { mesh } = document.model;
  const inside = verticesInBox(mesh, query);
  const isSeen = sight(tree, mesh, query.eye);
  const found: number[] = [];
  for (let f = 0; f + 1 < mesh.faceStart.length; f++) {
    const corners = mesh.cornerVertex.subarray(mesh.faceStart[f], mesh.faceStart[f + 1]);
    if (document.hidden[f] || !corners.every((v) => inside[v])) continue;
    if (!query.visibleOnly || isSeen(corners)) found.push(f);
  }
  return found;
}
