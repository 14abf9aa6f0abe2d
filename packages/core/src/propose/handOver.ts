import { bucket, type Connectivity } from '../mesh/connectivity.ts';
import { disjointSets, numberSets, unite } from '../mesh/disjointSets.ts';
import type { Mesh } from '../mesh/mesh.ts';
import { edgeLength } from '../select/shortestPath.ts';
import type { CoarseSurface } from '../surface/coarseSurface.ts';
import type { Shell } from '../surface/shell.ts';

/** Seams that change so that some faces belong to what lies on the other side. */
export interface HandedOver {
  readonly cut: readonly number[];
  readonly sewn: readonly number[];
}

/**
 * Takes faces at a seam over to its other side: they are cut off their shell, and the longest run of seam along them is sewn. What is on the other
 * side may be another shell or, beside a dart, the same one.
 *
 * @param seams  1 for every cut edge
 * @param faceShell  shell of each face as the seams are
 * @param isFree  whether a seam may be sewn
 * @returns undefined where none of the faces lies at such a seam
 */
export function handOver(
  mesh: Mesh,
  links: Connectivity,
  seams: Uint8Array,
  faceShell: Uint32Array,
  region: ReadonlySet<number>,
  isFree: (edge: number) => boolean,
): HandedOver | undefined {
  const cut: number[] = [];
  const outer: { readonly edge: number; readonly shell: number }[] = [];
  for (const f of region)
    for (let c = mesh.faceStart[f]; c < mesh.faceStart[f + 1]; c++) {
      const e = links.cornerEdge[c];
      if (!links.joined[e]) continue;
      const [first, second] = [0, 1].map(
        (k) => links.cornerFace[links.edgeCorners[links.edgeCornerStart[e] + k]],
      );
      const beyond = first === f ? second : first;
      if (region.has(beyond)) continue;
      if (!seams[e]) cut.push(e);
      else if (isFree(e)) outer.push({ edge: e, shell: faceShell[beyond] });
    }
  const sewn = longestRun(mesh, links, outer);
  return sewn.length > 0 ? { cut, sewn } : undefined;
}

/** Faces by what hangs together among them. */
export function componentsOf(
  { faceStart }: Mesh,
  { cornerEdge, joined, edgeCorners, edgeCornerStart, cornerFace }: Connectivity,
  seams: Uint8Array,
  faces: ReadonlySet<number>,
): Set<number>[] {
  const components: Set<number>[] = [];
  const left = new Set(faces);
  for (const first of left) {
    const component = new Set([first]);
    for (const f of component)
      for (let c = faceStart[f]; c < faceStart[f + 1]; c++) {
        const e = cornerEdge[c];
        if (!joined[e] || seams[e]) continue;
        for (let k = 0; k < 2; k++) {
          const g = cornerFace[edgeCorners[edgeCornerStart[e] + k]];
          if (left.has(g)) component.add(g);
        }
      }
    for (const f of component) left.delete(f);
    components.push(component);
  }
  return components;
}

/** Of edges, those that hang together beside one shell and are longest. */
function longestRun(
  mesh: Mesh,
  links: Connectivity,
  edges: readonly { readonly edge: number; readonly shell: number }[],
): number[] {
  const sets = disjointSets(edges.length);
  const at = new Map<string, number>();
  edges.forEach(({ edge, shell }, i) => {
    for (let k = 0; k < 2; k++) {
      const place = `${links.edgeVertices[2 * edge + k]} ${shell}`;
      const other = at.get(place);
      if (other === undefined) at.set(place, i);
      else unite(sets, i, other);
    }
  });
  const { label, count } = numberSets(sets);
  const length = new Float64Array(count);
  edges.forEach(({ edge }, i) => {
    length[label[i]] += edgeLength(mesh, links, edge);
  });
  const longest = length.indexOf(Math.max(...length));
  return edges.filter((_, i) => label[i] === longest).map(({ edge }) => edge);
}

/**
 * Faces of a shell that some triangles of its coarse surface stand for, with what lies round the middle of each.
 *
 * @param triangles  of the coarse surface
 * @param part  how far round, as a part of the way to the farthest corner
 */
export function facesUnder(
  shell: Shell,
  { mesh, vertex }: CoarseSurface,
  triangles: Iterable<number>,
  part: number,
): Set<number> {
  const { positions } = shell;
  const at = bucket(shell.triangles, positions.length / 3);
  const faces = new Set<number>();
  for (const t of triangles) {
    const corners = Array.from(mesh.cornerVertex.subarray(3 * t, 3 * t + 3), (v) => vertex[v]);
    const middle = middleOf(positions, corners);
    const reach = part * Math.max(...corners.map((v) => distance(middle, middleOf(positions, [v]))));
    // From vertex to vertex of the shell, which does not lead across its seams.
    const seen = new Set(corners);
    for (const v of seen)
      for (let k = at.start[v]; k < at.start[v + 1]; k++) {
        const own = Math.floor(at.items[k] / 3);
        const around = shell.triangles.subarray(3 * own, 3 * own + 3);
        if (distance(middle, middleOf(positions, around)) > reach) continue;
        faces.add(shell.triangleFace[own]);
        for (const w of around) seen.add(w);
      }
  }
  return faces;
}

function middleOf(positions: Float64Array, vertices: ArrayLike<number>): [number, number, number] {
  const sum: [number, number, number] = [0, 0, 0];
  for (let i = 0; i < vertices.length; i++)
    for (let k = 0; k < 3; k++) sum[k] += positions[3 * vertices[i] + k] / vertices.length;
  return sum;
}

const distance = (a: readonly number[], b: readonly number[]): number =>
  Math.hypot(a[0] - b[0], a[1] - b[1], a[2] - b[2]);
