import type { Connectivity } from '../mesh/connectivity.ts';
import type { Mesh } from '../mesh/mesh.ts';
import { type Context, heedStop } from '../progress.ts';
import { connectedFaces } from '../select/connected.ts';
import { edgeLength, shortestPath } from '../select/shortestPath.ts';
import { areaOfTriangle, surfaceArea } from '../surface/areas.ts';
import { coarseSurface } from '../surface/coarseSurface.ts';
import { distanceFrom, farthestVertex } from '../surface/distanceFrom.ts';
import type { Shell } from '../surface/shell.ts';
import { meanEdge } from '../symmetry/counterparts.ts';

/** Triangles on which limbs are looked for. */
const TRIANGLES = 2000;
/** Places far from one another by which the middle of a surface is found. */
const PLACES = 12;
/** A tip lies at least so far from the middle, as a part of the farthest. */
const FAR = 0.35;
/** A front that is longer than the best before by this factor, and by so much a length of the way between them, no longer goes round the limb. */
const [WIDER, STEEP] = [1.3, 1.5];
/** A limb has at least so much surface, as a part of the length of its end squared: half a ball has 0.16, the end of a finger as long as it is thick 0.4. */
const LONG = 0.28;
/** And so much where it is slit, so that its end runs from border to border: the corner of a sheet has 0.32. */
const LONG_SLIT = 0.7;
/** A limb is so much of the whole surface, and no more: what lies beyond is the body. */
export const [LEAST, MOST] = [0.02, 0.45];

/** A limb of a shell: what lies nearer to its tip than where the body begins. */
export interface Limb {
  /** Vertex of the shell. */
  readonly tip: number;
  /** The vertex of the shell that lies farthest from the tip. */
  readonly goal: number;
  /** From the tip along the surface to where the body begins, and how far it is round the limb there; model units. */
  readonly distance: number;
  readonly round: number;
}

/**
 * Limbs of a shell: arms, legs, a neck, a tail. From every tip, a vertex farther from the middle of the surface than those around it, the
 * front of all that lies at one distance is followed over the surface. It lengthens slowly along a limb and at once where the body begins;
 * of the fronts before, the limb ends at the one behind which lies the most surface for its length (geodesic level sets: Hilaga et al. 2001).
 *
 * @returns those with the farthest tips first; of limbs that lie in one another, such as fingers, all
 * @throws StoppedError
 */
export function limbs(shell: Shell, { signal, report }: Context): Limb[] {
  const { mesh, connectivity, vertex } = coarseSurface(shell, TRIANGLES, signal);
  const tips = tipsOf(mesh, connectivity);
  return tips.flatMap((tip, i) => {
    report({ fraction: i / tips.length });
    const far = distanceFrom(mesh.positions, mesh.cornerVertex, [tip], signal);
    const goal = farthestVertex(far);
    const end = lastFront(mesh, connectivity, far, goal, signal);
    return end ? [{ tip: vertex[tip], goal: vertex[goal], distance: end.distance, round: end.length }] : [];
  });
}

/** Vertices that lie farther from the middle of a surface, the vertex nearest to all, than all around them. */
function tipsOf(mesh: Mesh, connectivity: Connectivity): number[] {
  const count = connectivity.vertexEdgeStart.length - 1;
  const distances = (from: number) =>
    shortestPath(connectivity, from, undefined, (e) => edgeLength(mesh, connectivity, e)).cost;
  const sum = new Float64Array(count);
  const nearest = new Float64Array(count).fill(Infinity);
  let place = farthestVertex(distances(0));
  for (let k = 0; k < PLACES; k++) {
    const own = distances(place);
    for (let v = 0; v < count; v++) {
      sum[v] += own[v];
      nearest[v] = Math.min(nearest[v], own[v]);
    }
    place = farthestVertex(nearest);
  }
  const middle = sum.reduce((best, s, v) => (s < sum[best] ? v : best), 0);
  const far = distances(middle);
  const most = far[farthestVertex(far)];
  const tips = [...far.keys()].filter(
    (v) =>
      far[v] < Infinity &&
      far[v] > FAR * most &&
      [...around(connectivity, v, 2)].every((w) => far[w] <= far[v]),
  );
  return tips.sort((a, b) => far[b] - far[a]);
}

/** What lies at one distance from a tip, as far as it faces the goal. */
interface Front {
  readonly distance: number;
  readonly length: number;
  /** Surface behind it, as a part of the whole. */
  readonly behind: number;
  /** Whether it runs from border to border. */
  readonly isOpen: boolean;
}

/** The front at which a limb ends; none where there is no limb. */
function lastFront(
  mesh: Mesh,
  connectivity: Connectivity,
  far: Float64Array,
  goal: number,
  signal: Context['signal'],
): Front | undefined {
  const step = meanEdge(mesh, connectivity);
  const whole = surfaceArea(mesh.positions, mesh.cornerVertex);
  const scoreOf = ({ behind, length }: Front) => (behind * whole) / length ** 2;
  let best: Front | undefined;
  for (let distance = step; distance < far[goal]; distance += step) {
    heedStop(signal);
    const front = frontAt(mesh, connectivity, far, distance, goal, whole);
    const widens =
      best &&
      front.length > WIDER * best.length &&
      front.length - best.length > STEEP * (distance - best.distance);
    if (best && widens) {
      if (best.behind >= LEAST) return best;
      best = undefined;
    }
    if (front.behind > MOST) return undefined;
    const least = front.isOpen ? LONG_SLIT : LONG;
    if (scoreOf(front) > Math.max(least, best ? scoreOf(best) : 0)) best = front;
  }
  return undefined;
}

function frontAt(
  mesh: Mesh,
  connectivity: Connectivity,
  far: Float64Array,
  distance: number,
  goal: number,
  whole: number,
): Front {
  const { positions, cornerVertex } = mesh;
  const isAhead = (v: number) => far[v] > distance;
  const ahead = connectedFaces(
    mesh,
    connectivity,
    facesAround(connectivity, goal),
    (e) =>
      connectivity.isInterior[e] === 1 && [0, 1].some((k) => isAhead(connectivity.edgeVertices[2 * e + k])),
  );
  let [length, behind, isOpen] = [0, whole, false];
  for (const f of ahead) {
    const corners = [0, 1, 2].map((k) => cornerVertex[3 * f + k]);
    const area = areaOfTriangle(positions, corners[0], corners[1], corners[2]);
    const crossings: number[][] = [];
    for (let k = 0; k < 3; k++) {
      const [v, w] = [corners[k], corners[(k + 1) % 3]];
      if (isAhead(v) === isAhead(w)) continue;
      if (!connectivity.isInterior[connectivity.cornerEdge[3 * f + k]]) isOpen = true;
      const t = (distance - far[v]) / (far[w] - far[v]);
      crossings.push([0, 1, 2].map((i) => (1 - t) * positions[3 * v + i] + t * positions[3 * w + i]));
    }
    behind -= crossings.length > 0 ? area / 2 : area;
    if (crossings.length > 0)
      length += Math.hypot(...[0, 1, 2].map((i) => crossings[0][i] - crossings[1][i]));
  }
  return { distance, length, behind: behind / whole, isOpen };
}

function facesAround(
  { vertexEdges, vertexEdgeStart, edgeCorners, edgeCornerStart, cornerFace }: Connectivity,
  v: number,
): number[] {
  const found = new Set<number>();
  for (let i = vertexEdgeStart[v]; i < vertexEdgeStart[v + 1]; i++)
    for (let k = edgeCornerStart[vertexEdges[i]]; k < edgeCornerStart[vertexEdges[i] + 1]; k++)
      found.add(cornerFace[edgeCorners[k]]);
  return [...found];
}

/** Vertices within some edges of one. */
function around(
  { edgeVertices, vertexEdges, vertexEdgeStart }: Connectivity,
  vertex: number,
  edges: number,
): Set<number> {
  const found = new Set([vertex]);
  for (let k = 0; k < edges; k++)
    for (const v of [...found])
      for (let i = vertexEdgeStart[v]; i < vertexEdgeStart[v + 1]; i++)
        for (let end = 0; end < 2; end++) found.add(edgeVertices[2 * vertexEdges[i] + end]);
  return found;
}
