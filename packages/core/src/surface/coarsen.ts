import type { Context } from '../progress.ts';
import { heedStop } from '../progress.ts';
import type { RestTriangles } from './restTriangles.ts';

/** One step from fine to coarse: some vertices that are no neighbours of each other go, each into a neighbour. */
export interface Level {
  /** The mesh before the step. */
  readonly fine: IntrinsicTriangles;
  /** Vertices that go. */
  readonly removed: Uint32Array;
  /** The neighbour that takes the triangles of each of them over. */
  readonly into: Uint32Array;
}

export interface Hierarchy {
  /** Finest first. */
  readonly levels: readonly Level[];
  /** What is left: some triangles, as few as the topology allows. */
  readonly base: IntrinsicTriangles;
}

/** Triangles by the vertices of a shell, with the lengths of their sides along its surface. */
export interface IntrinsicTriangles {
  readonly triangles: Uint32Array;
  /** From each corner to the next, `3 × triangleCount`. */
  readonly lengths: Float64Array;
}

/** Vertices with more neighbours than this wait for a later step: their stars are slow, and thin. */
const MOST_NEIGHBOURS = 9;
/** Worst triangle a step may make, as side² over area against a regular one; steps that stall get double. */
const FIRST_BADNESS = 4;
/** What is better by less is as good, and the first of those is taken: on regular meshes rounding would decide, and all that follows hang on it. */
const BETTER = 1 - 1e-6;
/** A step that takes away fewer than this part of the vertices has stalled. */
const STALLED = 0.08;

/**
 * Coarsens a triangle mesh with borders to as few triangles as its topology allows, by half-edge collapses (Hoppe 1996) of independent
 * vertices, step by step (Hormann, Greiner, Campagna 1999). A collapse keeps the mesh a manifold of the same topology: the link
 * condition (Dey, Edelsbrunner, Guha, Nekhayev 1999). Vertices of a border only move along it, and those inside only into others inside.
 *
 * @param triangles  of a manifold shell, agreeing in winding
 * @param rest  their shapes
 * @param enough  triangles that need not become fewer
 */
export function coarsen(
  triangles: Uint32Array,
  rest: RestTriangles,
  vertexCount: number,
  signal?: Context['signal'],
  enough = 0,
): Hierarchy {
  const mesh = new CollapsibleMesh(triangles, rest, vertexCount);
  const levels: Level[] = [];
  let badness = FIRST_BADNESS;
  for (let left = mesh.vertexCount; ; ) {
    heedStop(signal);
    const before = mesh.live();
    if (before.triangles.length <= 3 * enough) return { levels, base: before };
    const { removed, into } = collapseIndependent(mesh, badness, enough);
    if (removed.length < STALLED * left) {
      if (removed.length === 0 && badness === Infinity) return { levels, base: before };
      badness = badness > 1e6 ? Infinity : 4 * badness;
    }
    left -= removed.length;
    if (removed.length > 0)
      levels.push({ fine: before, removed: Uint32Array.from(removed), into: Uint32Array.from(into) });
  }
}

function collapseIndependent(mesh: CollapsibleMesh, most: number, enough: number) {
  const removed: number[] = [];
  const into: number[] = [];
  const locked = new Uint8Array(mesh.corner.length);
  const star: Star = { ring: [], spoke: [], rim: [], angle: [], closed: false, whole: 0 };
  for (const v of mixed(mesh)) {
    if (mesh.triangleCount <= enough) break;
    if (mesh.corner[v] < 0 || locked[v]) continue;
    mesh.lookRound(v, star);
    if (star.ring.length > MOST_NEIGHBOURS && most < Infinity) continue;
    const target = bestTarget(mesh, v, star, most);
    if (target < 0) continue;
    for (const w of star.ring) locked[w] = 1;
    mesh.collapse(v, star, target);
    removed.push(v);
    into.push(star.ring[target]);
  }
  return { removed, into };
}

/** The vertices that are left, mixed: in the order of rows a regular mesh would be coarsened aslant. */
function mixed({ corner }: CollapsibleMesh): Uint32Array {
  const left: number[] = [];
  corner.forEach((c, v) => {
    if (c >= 0) left.push(v);
  });
  const hash = (v: number) => Math.imul(v + 1, 0x9e3779b1) >>> 0;
  return Uint32Array.from(left).sort((a, b) => hash(a) - hash(b));
}

/** Place in the ring of the neighbour whose fan over the hole has the best worst triangle; -1 when none may. */
function bestTarget(mesh: CollapsibleMesh, v: number, star: Star, most: number): number {
  let best = -1;
  let least = most;
  const { ring, closed } = star;
  const n = ring.length;
  for (let k = 0; k < n; k++) {
    // Of a border only the two neighbours along it.
    if (!closed && k > 0 && k < n - 1) continue;
    let worst = 0;
    for (let i = 0; i < (closed ? n : n - 1) && worst <= least; i++) {
      const j = i + 1 === n ? 0 : i + 1;
      if (i === k || j === k) continue;
      worst = Math.max(worst, badnessOf(star.rim[i], distance(star, k, i), distance(star, k, j)));
    }
    if (worst > (best < 0 ? least : BETTER * least)) continue;
    if (!mesh.mayCollapse(v, ring, k, closed)) continue;
    best = k;
    least = worst;
  }
  return best;
}

/** The neighbours of a vertex in turn, anticlockwise, as they lie round it when its triangles are laid out one after the other. */
interface Star {
  readonly ring: number[];
  /** Distance of each from the vertex. */
  readonly spoke: number[];
  /** From each to the next. */
  readonly rim: number[];
  /** Angle between the first and each. */
  readonly angle: number[];
  /** Whether they close round the vertex; after how much. */
  closed: boolean;
  whole: number;
}

/** Between two of a star along the surface: straight, or by way of its vertex where that is no detour. */
function distance({ spoke, angle, closed, whole }: Star, i: number, j: number): number {
  const across = Math.abs(angle[i] - angle[j]);
  const turn = closed ? Math.min(across, whole - across) : across;
  const [a, b] = [spoke[i], spoke[j]];
  if (turn >= Math.PI) return a + b;
  return Math.sqrt(Math.max(0, a * a + b * b - 2 * a * b * Math.cos(turn)));
}

/** (a² + b² + c²) / (4 √3 area), 1 where all sides are equal. */
function badnessOf(a: number, b: number, c: number): number {
  const badness = (a * a + b * b + c * c) / (4 * Math.sqrt(3) * heron(a, b, c));
  return badness < Infinity ? badness : Number.MAX_VALUE;
}

/** Area of a triangle by its sides, in the form that keeps its digits (Kahan 2014). */
function heron(p: number, q: number, r: number): number {
  const a = Math.max(p, q, r);
  const c = Math.min(p, q, r);
  const b = p + q + r - a - c;
  return 0.25 * Math.sqrt(Math.max(0, (a + (b + c)) * (c - (a - b)) * (c + (a - b)) * (a + (b - c))));
}

/** Triangles by corners with the corner across each side; corner c stands for the side to the next one. */
class CollapsibleMesh {
  /** A corner at each vertex; -1 where it is gone. */
  readonly corner: Int32Array;
  readonly vertexCount: number;
  /** Triangles that are left. */
  triangleCount: number;
  private readonly vertex: Uint32Array;
  private readonly length: Float64Array;
  private readonly across: Int32Array;
  private readonly gone: Uint8Array;
  private readonly mark: Uint32Array;
  private stamp = 0;

  constructor(triangles: Uint32Array, { local }: RestTriangles, vertexCount: number) {
    this.vertex = triangles.slice();
    this.across = acrossSides(triangles, vertexCount);
    this.length = new Float64Array(triangles.length);
    for (let t = 0; t < triangles.length; t += 3) {
      const [x2, x3, y3] = local.subarray(t, t + 3);
      this.length.set([x2, Math.hypot(x3 - x2, y3), Math.hypot(x3, y3)], t);
    }
    // Two triangles may tell the length of the side between them apart.
    this.across.forEach((other, c) => {
      if (other > c) this.length[c] = this.length[other] = 0.5 * (this.length[c] + this.length[other]);
    });
    this.gone = new Uint8Array(triangles.length / 3);
    this.triangleCount = this.gone.length;
    this.mark = new Uint32Array(vertexCount);
    this.corner = new Int32Array(vertexCount).fill(-1);
    triangles.forEach((v, c) => {
      this.corner[v] = c;
    });
    this.vertexCount = this.corner.reduce((n, c) => n + (c >= 0 ? 1 : 0), 0);
  }

  /** The triangles that are left. */
  live(): IntrinsicTriangles {
    const triangles = new Uint32Array(3 * this.triangleCount);
    const lengths = new Float64Array(3 * this.triangleCount);
    for (let t = 0, at = 0; t < this.gone.length; t++) {
      if (this.gone[t]) continue;
      for (let c = 3 * t; c < 3 * t + 3; c++, at++) {
        triangles[at] = this.vertex[c];
        lengths[at] = this.length[c];
      }
    }
    return { triangles, lengths };
  }

  /** The neighbours of v in turn, anticlockwise; returns whether they close round it. */
  ring(v: number, into: number[]): boolean {
    into.length = 0;
    const first = this.first(v);
    let c = first;
    for (;;) {
      into.push(this.vertex[next(c)]);
      const back = this.across[previous(c)];
      if (back < 0) {
        into.push(this.vertex[previous(c)]);
        return false;
      }
      if (back === first) return true;
      c = back;
    }
  }

  lookRound(v: number, star: Star): void {
    const { ring, spoke, rim, angle } = star;
    ring.length = spoke.length = rim.length = angle.length = 0;
    const first = this.first(v);
    star.whole = 0;
    for (let c = first; ; ) {
      const [out, over, back] = [this.length[c], this.length[next(c)], this.length[previous(c)]];
      ring.push(this.vertex[next(c)]);
      spoke.push(out);
      rim.push(over);
      angle.push(star.whole);
      const cosine = (out * out + back * back - over * over) / (2 * out * back);
      // Sides of no length leave no angle.
      star.whole += Math.acos(Math.max(-1, Math.min(1, cosine || 0)));
      const then = this.across[previous(c)];
      star.closed = then === first;
      if (star.closed) return;
      if (then < 0) {
        ring.push(this.vertex[previous(c)]);
        spoke.push(back);
        angle.push(star.whole);
        return;
      }
      c = then;
    }
  }

  /** The corner at v that has no triangle before it, or any where they go round. */
  private first(v: number): number {
    const any = this.corner[v];
    let c = any;
    for (;;) {
      const before = this.across[c];
      if (before < 0) return c;
      c = next(before);
      if (c === any) return c;
    }
  }

  /** The link condition for v going into the k-th of its ring. */
  mayCollapse(v: number, ring: readonly number[], k: number, closed: boolean): boolean {
    const n = ring.length;
    const u = ring[k];
    const stamp = ++this.stamp;
    const around: number[] = [];
    const uClosed = this.ring(u, around);
    for (const w of around) this.mark[w] = stamp;
    let common = 0;
    for (const w of ring) if (this.mark[w] === stamp) common++;
    // Triangles of a border vertex may go round it more than once in the flat; no vertex could come back among them.
    if (closed) return uClosed && common === 2;
    if (uClosed || common !== 1) return false;
    // The border between u and the other neighbour along it must not close on itself.
    const other = k === 0 ? ring[n - 1] : ring[0];
    const beyond = around[0] === v ? around[around.length - 1] : around[0];
    return beyond !== other;
  }

  /** Takes v into the k-th of its neighbours. */
  collapse(v: number, star: Star, k: number): void {
    const { vertex, across, length, corner } = this;
    const { ring } = star;
    const corners: number[] = [];
    for (let c = this.first(v); corners.length < star.rim.length; c = across[previous(c)]) corners.push(c);
    const side = k < corners.length ? corners[k] : -1;
    // Where v–u is the last side of a border fan, it is the side towards v.
    const opposite = side >= 0 ? across[side] : previous(corners[k - 1]);
    corners.forEach((c, i) => {
      const j = i + 1 === ring.length ? 0 : i + 1;
      vertex[c] = ring[k];
      length[c] = distance(star, k, i);
      length[previous(c)] = distance(star, k, j);
    });
    for (const s of [side, opposite]) if (s >= 0) this.close(s);
    corner[v] = -1;
  }

  /** Takes the triangle of a collapsed side away and joins its two others. */
  private close(side: number): void {
    const { vertex, across, corner } = this;
    const [n, p] = [next(side), previous(side)];
    const [a, b] = [across[n], across[p]];
    if (a >= 0) across[a] = b;
    if (b >= 0) across[b] = a;
    this.gone[Math.floor(side / 3)] = 1;
    this.triangleCount--;
    // n runs from the kept end to the apex, p back: a starts at the apex, b at the kept end.
    const apex = vertex[p];
    const kept = vertex[n];
    corner[apex] = a >= 0 ? a : next(b);
    corner[kept] = b >= 0 ? b : next(a);
  }
}

const next = (c: number): number => (c % 3 === 2 ? c - 2 : c + 1);
const previous = (c: number): number => (c % 3 === 0 ? c + 2 : c - 1);

/** The corner whose side runs the other way, -1 on a border. */
function acrossSides(triangles: Uint32Array, vertexCount: number): Int32Array {
  const across = new Int32Array(triangles.length).fill(-1);
  // Sides by the lower of their ends, chained.
  const head = new Int32Array(vertexCount).fill(-1);
  const chain = new Int32Array(triangles.length).fill(-1);
  for (let c = 0; c < triangles.length; c++) {
    const [from, to] = [triangles[c], triangles[next(c)]];
    const low = Math.min(from, to);
    let before = -1;
    let other = head[low];
    while (other >= 0 && !(triangles[other] === to && triangles[next(other)] === from)) {
      before = other;
      other = chain[other];
    }
    if (other < 0) {
      chain[c] = head[low];
      head[low] = c;
      continue;
    }
    across[c] = other;
    across[other] = c;
    if (before < 0) head[low] = chain[other];
    else chain[before] = chain[other];
  }
  return across;
}
