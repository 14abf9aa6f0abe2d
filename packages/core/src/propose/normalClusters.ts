import FlatQueue from 'flatqueue';
import type { Connectivity } from '../mesh/connectivity.ts';
import { faceCount, type Mesh } from '../mesh/mesh.ts';
import { faceNormal } from '../mesh/normals.ts';

/** How faces were joined: cluster `faces + i` is made of two, each a face or an earlier cluster. */
export interface Joins {
  readonly faces: number;
  /** Two clusters a join, in the order in which they were joined. */
  readonly parts: Uint32Array;
}

/**
 * Joins faces into clusters that face one way each, two neighbours at a time, those first that bend least together (hierarchical
 * clustering of faces: Garland, Willmott, Heckbert 2001, with the L2,1 error of normals of Cohen-Steiner, Alliez, Desbrun 2004).
 *
 * @param isOpen  whether faces may be joined over an edge
 * @returns all joins, down to one cluster for each piece
 */
export function normalClusters(
  mesh: Mesh,
  connectivity: Connectivity,
  isOpen: (edge: number) => boolean,
): Joins {
  const faces = faceCount(mesh);
  /** The cluster that stands for each face which is not joined to an earlier one. */
  const cluster = Uint32Array.from({ length: faces }, (_, f) => f);
  const isGone = new Uint8Array(faces);
  const parts: number[] = [];
  // Sum of normals weighed by area, and area: all the error needs.
  const sum = new Float64Array(3 * faces);
  const area = new Float64Array(faces);
  for (let f = 0; f < faces; f++) {
    const n = faceNormal(mesh, f);
    for (let k = 0; k < 3; k++) sum[3 * f + k] = n[k] / 2;
    area[f] = Math.hypot(...n) / 2;
  }
  const around: Set<number>[] = Array.from({ length: faces }, () => new Set());
  const bend = (a: number, b: number): number => {
    const total = area[a] + area[b];
    const length = Math.hypot(
      sum[3 * a] + sum[3 * b],
      sum[3 * a + 1] + sum[3 * b + 1],
      sum[3 * a + 2] + sum[3 * b + 2],
    );
    return 2 * (total - length);
  };
  const version = new Uint32Array(faces);
  const pairs: [number, number, number, number][] = [];
  const queue = new FlatQueue<number>();
  const offer = (a: number, b: number): void => {
    queue.push(pairs.length, bend(a, b));
    pairs.push([a, b, version[a], version[b]]);
  };
  for (let e = 0; e < connectivity.isInterior.length; e++) {
    if (!connectivity.isInterior[e] || !isOpen(e)) continue;
    const a = connectivity.cornerFace[connectivity.edgeCorners[connectivity.edgeCornerStart[e]]];
    const b = connectivity.cornerFace[connectivity.edgeCorners[connectivity.edgeCornerStart[e] + 1]];
    if (around[a].has(b)) continue;
    around[a].add(b);
    around[b].add(a);
    offer(a, b);
  }
  for (let next = queue.pop(); next !== undefined; next = queue.pop()) {
    const [a, b, va, vb] = pairs[next];
    if (version[a] !== va || version[b] !== vb || isGone[a] || isGone[b]) continue;
    parts.push(cluster[a], cluster[b]);
    cluster[a] = faces + parts.length / 2 - 1;
    isGone[b] = 1;
    version[a]++;
    area[a] += area[b];
    for (let k = 0; k < 3; k++) sum[3 * a + k] += sum[3 * b + k];
    for (const c of around[b]) if (c !== a) around[a].add(c);
    around[a].delete(b);
    for (const c of around[a]) {
      around[c].delete(b);
      around[c].add(a);
      offer(a, c);
    }
    around[b].clear();
  }
  return { faces, parts: Uint32Array.from(parts) };
}

/** Faces of a cluster. */
export function facesOfCluster({ faces, parts }: Joins, cluster: number): number[] {
  const found: number[] = [];
  const left = [cluster];
  for (let c = left.pop(); c !== undefined; c = left.pop()) {
    if (c < faces) found.push(c);
    else left.push(parts[2 * (c - faces)], parts[2 * (c - faces) + 1]);
  }
  return found;
}
