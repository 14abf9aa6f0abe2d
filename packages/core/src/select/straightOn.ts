import type { Connectivity } from '../mesh/connectivity.ts';
import type { Mesh } from '../mesh/mesh.ts';

/** A run turns at most so much at a vertex, radians. */
const MOST_TURN = (50 * Math.PI) / 180;

/**
 * The straightest run of edges through one of them, both ways, on any mesh. Straight on is where the surface has as much angle to the left as to
 * the right (Polthier, Schmies 1998). Edges seldom lie there, so that what each is off is carried on, and the next makes up for it: a run
 * over triangles keeps its heading. It ends at borders, at seams, where no edge leads on, and where it comes back to itself.
 *
 * @param seams  1 for each edge that is cut; none when absent
 * @returns edges in order, the given one among them
 */
export function straightOn(
  mesh: Mesh,
  connectivity: Connectivity,
  edge: number,
  seams?: Uint8Array,
): number[] {
  const { edgeVertices, isInterior } = connectivity;
  const run = [edge];
  const seen = new Set<number>([edgeVertices[2 * edge], edgeVertices[2 * edge + 1]]);
  const isStop = (e: number) => !isInterior[e] || seams?.[e] === 1;
  const walk = (from: number, add: (e: number) => void): void => {
    let [last, at, owed] = [edge, from, 0];
    for (;;) {
      const ahead = anglesAt(mesh, connectivity, at, last, isStop);
      if (!ahead) return;
      let best = -1;
      let off = Infinity;
      for (const [e, turn] of ahead) {
        if (Math.abs(turn) > MOST_TURN || Math.abs(owed + turn) >= Math.abs(off)) continue;
        best = e;
        off = owed + turn;
      }
      if (best < 0) return;
      at = edgeVertices[2 * best] + edgeVertices[2 * best + 1] - at;
      add(best);
      // Back where it has been it is closed, or would cross itself.
      if (seen.has(at)) return;
      seen.add(at);
      [last, owed] = [best, off];
    }
  };
  if (isStop(edge)) return run;
  walk(edgeVertices[2 * edge + 1], (e) => run.push(e));
  const isClosed = run.length > 1 && ends(run[run.length - 1]).includes(edgeVertices[2 * edge]);
  if (!isClosed) walk(edgeVertices[2 * edge], (e) => run.unshift(e));
  return run;

  function ends(e: number): readonly number[] {
    return [edgeVertices[2 * e], edgeVertices[2 * e + 1]];
  }
}

/**
 * Every edge that leads on from a vertex, and how far it is off straight on, radians to the left; undefined where the vertex is on a border or a
 * seam.
 *
 * @param last  the edge by which it is come to
 */
function anglesAt(
  { positions: p, cornerVertex }: Mesh,
  { edgeCorners, edgeCornerStart, cornerEdge, nextCorner, edgeVertices }: Connectivity,
  vertex: number,
  last: number,
  isStop: (e: number) => boolean,
): [edge: number, turn: number][] | undefined {
  const found: [number, number][] = [];
  let total = 0;
  let e = last;
  do {
    // The face to the left of the edge as it leads away from the vertex, and the next edge round it.
    const first = edgeCornerStart[e];
    const corner = [edgeCorners[first], edgeCorners[first + 1]].find((c) => cornerVertex[c] === vertex);
    if (corner === undefined || found.length > 1000) return undefined;
    let before = corner;
    while (nextCorner[before] !== corner) before = nextCorner[before];
    const [a, b] = [nextCorner[corner], before].map((c) => 3 * cornerVertex[c]);
    const v = 3 * vertex;
    const [ux, uy, uz] = [p[a] - p[v], p[a + 1] - p[v + 1], p[a + 2] - p[v + 2]];
    const [wx, wy, wz] = [p[b] - p[v], p[b + 1] - p[v + 1], p[b + 2] - p[v + 2]];
    const cross = Math.hypot(uy * wz - uz * wy, uz * wx - ux * wz, ux * wy - uy * wx);
    total += Math.atan2(cross, ux * wx + uy * wy + uz * wz);
    e = cornerEdge[before];
    if (isStop(e) || (edgeVertices[2 * e] !== vertex && edgeVertices[2 * e + 1] !== vertex)) return undefined;
    found.push([e, total]);
  } while (e !== last);
  found.pop();
  return found.map(([edge, angle]) => [edge, angle - total / 2]);
}
