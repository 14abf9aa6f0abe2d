import { bucket } from '../mesh/connectivity.ts';
import type { Mesh } from '../mesh/mesh.ts';
import { facesOfShell } from '../surface/shells.ts';
import { current, type HemDocument, shellsOf } from './document.ts';

/** New places in one UV set. Where all corners of a vertex share theirs, before and after, it is kept once, for the vertex. */
export interface UvChange {
  readonly kind: 'uv';
  /** By its lasting id. */
  readonly set: number;
  readonly vertices: Places;
  readonly corners: Places;
}

/** UV of vertices or corners: `2 × at.length`. */
export interface Places {
  readonly at: Uint32Array;
  readonly before: Float64Array;
  readonly after: Float64Array;
}

/**
 * New UVs for whole shells of a document; what does not differ is left out.
 *
 * @param uvOf  for each shell, UV per shell vertex
 */
export function uvChange(document: HemDocument, uvOf: ReadonlyMap<number, Float64Array>): UvChange {
  return uvDifference(document, cornerUv(document, uvOf));
}

/** The current UVs of all corners with new ones for whole shells: UV per shell vertex, by number of the shell. */
export function cornerUv(document: HemDocument, uvOf: ReadonlyMap<number, Float64Array>): Float64Array {
  const { mesh } = document.model;
  const shells = shellsOf(document);
  const next = current(document).uv.slice();
  for (const [shell, uv] of uvOf) {
    const first = shells.wedgeStart[shell];
    for (const f of facesOfShell(shells, shell)) {
      for (let c = mesh.faceStart[f]; c < mesh.faceStart[f + 1]; c++) {
        const v = shells.cornerWedge[c] - first;
        next[2 * c] = uv[2 * v];
        next[2 * c + 1] = uv[2 * v + 1];
      }
    }
  }
  return next;
}

/** What leads from the UVs of the current set to others: `2 × cornerCount`. */
export function uvDifference(document: HemDocument, next: Float64Array): UvChange {
  const { mesh } = document.model;
  const { id: set, uv: old } = current(document);
  const { start, items } = cornersAt(mesh);
  const same = (a: Float64Array, i: number, b: Float64Array, j: number) =>
    Object.is(a[2 * i], b[2 * j]) && Object.is(a[2 * i + 1], b[2 * j + 1]);
  const vertices: number[] = [];
  const corners: number[] = [];
  for (let v = 0; v + 1 < start.length; v++) {
    const first = items[start[v]];
    let [shared, changed] = [true, false];
    for (let k = start[v]; k < start[v + 1]; k++) {
      const c = items[k];
      if (!same(old, c, next, c)) changed = true;
      if (!same(old, c, old, first) || !same(next, c, next, first)) shared = false;
    }
    if (!changed) continue;
    if (shared) vertices.push(v);
    else
      for (let k = start[v]; k < start[v + 1]; k++)
        if (!same(old, items[k], next, items[k])) corners.push(items[k]);
  }
  const places = (at: readonly number[], cornerOf: (i: number) => number): Places => {
    const before = new Float64Array(2 * at.length);
    const after = new Float64Array(2 * at.length);
    for (let i = 0; i < at.length; i++) {
      const c = cornerOf(at[i]);
      before[2 * i] = old[2 * c];
      before[2 * i + 1] = old[2 * c + 1];
      after[2 * i] = next[2 * c];
      after[2 * i + 1] = next[2 * c + 1];
    }
    return { at: Uint32Array.from(at), before, after };
  };
  return {
    kind: 'uv',
    set,
    vertices: places(vertices, (v) => items[start[v]]),
    corners: places(corners, (c) => c),
  };
}

/** UVs of all corners as a change leaves them. */
export function placedUv(mesh: Mesh, old: Float64Array, { vertices, corners }: UvChange): Float64Array {
  const uv = old.slice();
  const put = (corner: number, { after }: Places, i: number) => {
    uv[2 * corner] = after[2 * i];
    uv[2 * corner + 1] = after[2 * i + 1];
  };
  if (vertices.at.length > 0) {
    const { start, items } = cornersAt(mesh);
    for (let i = 0; i < vertices.at.length; i++) {
      const v = vertices.at[i];
      for (let k = start[v]; k < start[v + 1]; k++) put(items[k], vertices, i);
    }
  }
  for (let i = 0; i < corners.at.length; i++) put(corners.at[i], corners, i);
  return uv;
}

/** Whether every corner that a change moves lies where the change says it did. */
export function startsFrom(mesh: Mesh, uv: Float64Array, { vertices, corners }: UvChange): boolean {
  const lies = (corner: number, { before }: Places, i: number) =>
    Object.is(uv[2 * corner], before[2 * i]) && Object.is(uv[2 * corner + 1], before[2 * i + 1]);
  if (vertices.at.length > 0) {
    const { start, items } = cornersAt(mesh);
    for (let i = 0; i < vertices.at.length; i++) {
      const v = vertices.at[i];
      for (let k = start[v]; k < start[v + 1]; k++) if (!lies(items[k], vertices, i)) return false;
    }
  }
  return corners.at.every((c, i) => lies(c, corners, i));
}

const cornerLists = new WeakMap<Mesh, { readonly start: Uint32Array; readonly items: Uint32Array }>();

/** Corners of every vertex, worked out once per mesh. */
function cornersAt(mesh: Mesh) {
  let lists = cornerLists.get(mesh);
  if (!lists) {
    lists = bucket(mesh.cornerVertex, mesh.positions.length / 3);
    cornerLists.set(mesh, lists);
  }
  return lists;
}

/** Corners whose UV a change touches. */
export function* cornersOf(mesh: Mesh, { vertices, corners }: UvChange): Generator<number> {
  if (vertices.at.length > 0) {
    const { start, items } = cornersAt(mesh);
    for (const v of vertices.at) for (let k = start[v]; k < start[v + 1]; k++) yield items[k];
  }
  yield* corners.at;
}
