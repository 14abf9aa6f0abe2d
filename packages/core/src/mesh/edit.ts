import { cornerCount, faceCount, type Mesh, vertexCount } from './mesh.ts';
import { triangulateFace } from './triangulate.ts';

/**
 * A mesh made from another, and where each part of it came from, so that UVs, names and seams can follow. Faces and
 * vertices keep their order; what is new comes last.
 */
export interface MeshEdit {
  readonly mesh: Mesh;
  /** Old face of each new face. */
  readonly faceSource: Uint32Array;
  /** Old corner of each new corner; it belongs to the old face. */
  readonly cornerSource: Uint32Array;
  /** How far each new corner lies from its old one to the next one of the old face, 0 to 1; all 0 when absent. */
  readonly cornerShift?: Float64Array;
}

/** Puts polygons together: `corners` are old corners, `vertexOf` their vertices now. */
function assembled(
  positions: Float64Array,
  faces: Iterable<{ readonly source: number; readonly corners: readonly number[] }>,
  vertexOf: (corner: number) => number,
): MeshEdit {
  const faceSource: number[] = [];
  const cornerSource: number[] = [];
  const faceStart = [0];
  for (const { source, corners } of faces) {
    if (corners.length < 3) continue;
    faceSource.push(source);
    for (const c of corners) cornerSource.push(c);
    faceStart.push(cornerSource.length);
  }
  return {
    mesh: {
      positions,
      faceStart: Uint32Array.from(faceStart),
      cornerVertex: Uint32Array.from(cornerSource, vertexOf),
    },
    faceSource: Uint32Array.from(faceSource),
    cornerSource: Uint32Array.from(cornerSource),
  };
}

function* polygons(mesh: Mesh) {
  for (let f = 0; f < faceCount(mesh); f++) {
    yield {
      source: f,
      corners: Array.from(
        { length: mesh.faceStart[f + 1] - mesh.faceStart[f] },
        (_, k) => mesh.faceStart[f] + k,
      ),
    };
  }
}

/** Without some faces, and without the vertices that only they used. */
export function withoutFaces(mesh: Mesh, faces: Iterable<number>): MeshEdit {
  const gone = new Set(faces);
  const before = used(mesh);
  const kept = function* () {
    for (const polygon of polygons(mesh)) if (!gone.has(polygon.source)) yield polygon;
  };
  const edit = assembled(mesh.positions, kept(), (c) => mesh.cornerVertex[c]);
  const after = used(edit.mesh);
  return withoutVertices(edit, (v) => before[v] === 1 && after[v] === 0);
}

/** Without the vertices that no face uses. */
export function withoutLoosePoints(mesh: Mesh): MeshEdit {
  const inUse = used(mesh);
  return withoutVertices(unchanged(mesh), (v) => inUse[v] === 0);
}

/** The same faces, some of them turned over; each keeps its first corner. */
export function withFlipped(mesh: Mesh, faces: Iterable<number>): MeshEdit {
  const flip = new Set(faces);
  const turned = function* () {
    for (const { source, corners } of polygons(mesh)) {
      yield { source, corners: flip.has(source) ? [corners[0], ...corners.slice(1).reverse()] : corners };
    }
  };
  return assembled(mesh.positions, turned(), (c) => mesh.cornerVertex[c]);
}

/**
 * Vertices joined: those that stand for another go, and faces lose the corners that came to repeat their neighbour.
 *
 * @param standIn  for each vertex the one that takes its place, itself where nothing changes
 */
export function withJoined(mesh: Mesh, standIn: Uint32Array): MeshEdit {
  const vertexOf = (c: number) => standIn[mesh.cornerVertex[c]];
  const shorter = function* () {
    for (const { source, corners } of polygons(mesh)) {
      const last = corners.length - 1;
      const own = corners.filter((c, k) => vertexOf(c) !== vertexOf(corners[k === 0 ? last : k - 1]));
      yield { source, corners: own };
    }
  };
  const edit = assembled(mesh.positions, shorter(), vertexOf);
  const before = used(mesh);
  return withoutVertices(edit, (v) => before[v] === 1 && standIn[v] !== v);
}

/**
 * Existing vertices put into the sides of faces that run past them.
 *
 * @param inserted  for corners, the vertices to follow each, in order, with how far along the side each lies, 0 to 1
 */
export function withInserted(
  mesh: Mesh,
  inserted: ReadonlyMap<number, readonly { readonly vertex: number; readonly along: number }[]>,
): MeshEdit {
  const faceStart = mesh.faceStart.slice();
  const cornerVertex: number[] = [];
  const cornerSource: number[] = [];
  const cornerShift: number[] = [];
  for (let f = 0; f < faceCount(mesh); f++) {
    for (let c = mesh.faceStart[f]; c < mesh.faceStart[f + 1]; c++) {
      const following = [{ vertex: mesh.cornerVertex[c], along: 0 }, ...(inserted.get(c) ?? [])];
      for (const { vertex, along } of following) {
        cornerVertex.push(vertex);
        cornerSource.push(c);
        cornerShift.push(along);
      }
    }
    faceStart[f + 1] = cornerVertex.length;
  }
  return {
    ...unchanged(mesh),
    mesh: { ...mesh, faceStart, cornerVertex: Uint32Array.from(cornerVertex) },
    cornerSource: Uint32Array.from(cornerSource),
    cornerShift: Float64Array.from(cornerShift),
  };
}

/** Some faces split into triangles, which take their place. */
export function withTriangulated(mesh: Mesh, faces: Iterable<number>): MeshEdit {
  const split = new Set(faces);
  const pieces = function* () {
    for (const polygon of polygons(mesh)) {
      if (!split.has(polygon.source)) yield polygon;
      else {
        const corners = triangulateFace(mesh, polygon.source);
        for (let k = 0; k < corners.length; k += 3)
          yield { source: polygon.source, corners: corners.slice(k, k + 3) };
      }
    }
  };
  return assembled(mesh.positions, pieces(), (c) => mesh.cornerVertex[c]);
}

/**
 * Corners given vertices of their own: all corners of one vertex with the same number share one.
 *
 * @param fan  a number for each corner; the least one at each vertex keeps the vertex, the others get copies behind the rest
 */
export function withSplitVertices(mesh: Mesh, fan: Uint32Array): MeshEdit {
  const vertices = vertexCount(mesh);
  const least = new Uint32Array(vertices).fill(0xffffffff);
  for (let c = 0; c < fan.length; c++) {
    const v = mesh.cornerVertex[c];
    if (fan[c] < least[v]) least[v] = fan[c];
  }
  const copies = new Map<number, number>();
  const added: number[] = [];
  const cornerVertex = mesh.cornerVertex.map((v, c) => {
    if (fan[c] === least[v]) return v;
    const key = v * fan.length + fan[c];
    let copy = copies.get(key);
    if (copy === undefined) {
      copy = vertices + added.length / 3;
      copies.set(key, copy);
      added.push(...mesh.positions.subarray(3 * v, 3 * v + 3));
    }
    return copy;
  });
  const positions = new Float64Array(mesh.positions.length + added.length);
  positions.set(mesh.positions);
  positions.set(added, mesh.positions.length);
  return { ...unchanged(mesh), mesh: { ...mesh, positions, cornerVertex } };
}

const unchanged = (mesh: Mesh): MeshEdit => ({
  mesh,
  faceSource: Uint32Array.from({ length: faceCount(mesh) }, (_, f) => f),
  cornerSource: Uint32Array.from({ length: cornerCount(mesh) }, (_, c) => c),
});

/** 1 for each vertex that some face uses. */
export function used(mesh: Mesh): Uint8Array {
  const marks = new Uint8Array(vertexCount(mesh));
  for (const v of mesh.cornerVertex) marks[v] = 1;
  return marks;
}

function withoutVertices(edit: MeshEdit, gone: (vertex: number) => boolean): MeshEdit {
  const { mesh } = edit;
  const to = new Uint32Array(vertexCount(mesh));
  const positions = new Float64Array(mesh.positions.length);
  let kept = 0;
  for (let v = 0; v < to.length; v++) {
    if (gone(v)) continue;
    positions.set(mesh.positions.subarray(3 * v, 3 * v + 3), 3 * kept);
    to[v] = kept++;
  }
  if (kept === to.length) return edit;
  return {
    ...edit,
    mesh: {
      ...mesh,
      positions: positions.slice(0, 3 * kept),
      cornerVertex: mesh.cornerVertex.map((v) => to[v]),
    },
  };
}
