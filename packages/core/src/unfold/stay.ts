import { HemError } from '../errors.ts';
import { distance } from '../mesh/distance.ts';
import type { Shell } from '../surface/shell.ts';
import type { Pins } from './lscm.ts';

/** Shell vertices along a chain of edges that must lie straight at true length, in order. */
export type Stay = Uint32Array;

/** Two stays share a vertex, or one visits a vertex twice. */
export class StayError extends HemError {
  constructor(vertex: number) {
    super('crossing-stays', 'Two stays meet at a point: end one of them before it.', [vertex]);
    this.name = 'StayError';
  }
}

/** A stay turns round a corner of a face, whose corners cannot all lie on one line. */
export class BentStayError extends HemError {
  constructor(vertices: readonly number[]) {
    super(
      'bent-stay',
      'This stay turns round a corner of a face, which would have no area left once it lies straight: take a chain that goes on from edge to edge, such as a loop.',
      vertices,
    );
    this.name = 'BentStayError';
  }
}

/**
 * @param triangles  of the shell, under every diagonal of its polygons
 * @throws BentStayError
 */
export function checkBends(triangles: Uint32Array, stays: readonly Stay[]): void {
  const stayOf = new Map<number, number>();
  stays.forEach((stay, i) => {
    for (const v of stay) stayOf.set(v, i);
  });
  for (let i = 0; i < triangles.length; i += 3) {
    const corners = [...triangles.subarray(i, i + 3)];
    const [a, b, c] = corners.map((v) => stayOf.get(v));
    if (a !== undefined && a === b && b === c) throw new BentStayError(corners);
  }
}

/**
 * Where the vertices of each stay belong: on a straight line, as far apart as on the surface, placed and turned as
 * near as can be to where a map without stays has them.
 *
 * @param stays  two or more vertices each
 * @param uv  `2 × vertexCount`, model units
 * @returns pins for all vertices of all stays
 * @throws StayError
 */
export function straightened(shell: Shell, stays: readonly Stay[], uv: Float64Array): Pins {
  const seen = new Set<number>();
  const vertices: number[] = [];
  const places: number[] = [];
  for (const stay of stays) {
    for (const v of stay) {
      if (seen.has(v)) throw new StayError(v);
      seen.add(v);
      vertices.push(v);
    }
    places.push(...straight(alongOf(shell, stay), stay, uv));
  }
  return { vertices, uv: places };
}

/** Distance of each vertex from the first, along the chain. */
function alongOf({ positions }: Shell, stay: Stay): number[] {
  const along = [0];
  for (let i = 1; i < stay.length; i++) along.push(along[i - 1] + distance(positions, stay[i - 1], stay[i]));
  return along;
}

/** The line that lies nearest to the vertices as they are: through their middle, in their direction. */
function straight(along: readonly number[], stay: Stay, uv: Float64Array): number[] {
  const n = stay.length;
  const middle = along.reduce((a, b) => a + b, 0) / n;
  let [cu, cv, du, dv] = [0, 0, 0, 0];
  stay.forEach((v, i) => {
    cu += uv[2 * v] / n;
    cv += uv[2 * v + 1] / n;
    du += (along[i] - middle) * uv[2 * v];
    dv += (along[i] - middle) * uv[2 * v + 1];
  });
  const length = Math.hypot(du, dv);
  const [tu, tv] = length > 0 ? [du / length, dv / length] : [1, 0];
  return along.flatMap((a) => [cu + (a - middle) * tu, cv + (a - middle) * tv]);
}
