import { catmullClark } from '@blunt-hem/core/mesh/catmullClark';
import { connectivityOf } from '@blunt-hem/core/mesh/connectivity';
import { type Mesh, meshFromPolygons } from '@blunt-hem/core/mesh/mesh';

export type Point = [number, number, number];

/** Half of a symmetric figure, x ≥ 0, as it is being modelled. */
export interface Cage {
  readonly points: Point[];
  /** Polygons; undefined where one was taken away. */
  readonly faces: (number[] | undefined)[];
  /** Edges that shall be seams, as `low high`. */
  readonly seams: Set<string>;
}

export const edgeKey = (a: number, b: number): string => (a < b ? `${a} ${b}` : `${b} ${a}`);

const onMirror = ([x]: Point): boolean => Math.abs(x) < 1e-9;

/**
 * Pulls a set of faces out of the surface: they move, and a band of new faces joins them to where they were.
 * Edges on the mirror plane get no band, since the other half goes on there.
 *
 * @param move  where each of their points goes
 * @param seam  whether the foot of the band becomes a seam
 */
export function extrude(cage: Cage, faces: readonly number[], move: (p: Point) => Point, seam = false): void {
  const directed = new Map<string, [number, number]>();
  for (const f of faces) {
    const face = cage.faces[f] as number[];
    face.forEach((a, i) => {
      const b = face[(i + 1) % face.length];
      if (directed.has(`${b} ${a}`)) directed.delete(`${b} ${a}`);
      else directed.set(`${a} ${b}`, [a, b]);
    });
  }
  const rim = [...directed.values()].filter(
    ([a, b]) => !onMirror(cage.points[a]) || !onMirror(cage.points[b]),
  );
  const copy = new Map<number, number>();
  for (const f of faces) {
    cage.faces[f] = (cage.faces[f] as number[]).map((v) => {
      let moved = copy.get(v);
      if (moved === undefined) {
        moved = cage.points.length;
        copy.set(v, moved);
        const p = move(cage.points[v]);
        cage.points.push(onMirror(cage.points[v]) ? [0, p[1], p[2]] : p);
      }
      return moved;
    });
  }
  for (const [a, b] of rim) {
    cage.faces.push([a, b, copy.get(b) as number, copy.get(a) as number]);
    if (seam) cage.seams.add(edgeKey(a, b));
  }
}

/** The middle of a set of faces' points. */
export function centre(cage: Cage, faces: readonly number[]): Point {
  const points = [...new Set(faces.flatMap((f) => cage.faces[f] as number[]))].map((v) => cage.points[v]);
  const sum = points.reduce<Point>((s, p) => [s[0] + p[0], s[1] + p[1], s[2] + p[2]], [0, 0, 0]);
  return [sum[0] / points.length, sum[1] / points.length, sum[2] / points.length];
}

/** Scales about a middle, then moves. */
export const about =
  (middle: Point, scale: number | Point, by: Point = [0, 0, 0]) =>
  (p: Point): Point => {
    const s = typeof scale === 'number' ? [scale, scale, scale] : scale;
    return [0, 1, 2].map((k) => middle[k] + s[k] * (p[k] - middle[k]) + by[k]) as Point;
  };

export interface Figure {
  readonly mesh: Mesh;
  /** Pairs of vertices. */
  readonly seams: [number, number][];
}

/** Both halves joined along the mirror plane, smoothed by so many levels; seams go along. */
export function figure(cage: Cage, levels: number): Figure {
  const used = [...new Set(cage.faces.flatMap((face) => face ?? []))].sort((a, b) => a - b);
  const points: Point[] = [];
  const [left, right] = [new Map<number, number>(), new Map<number, number>()];
  for (const v of used) {
    const [x, y, z] = cage.points[v];
    left.set(v, points.push(onMirror([x, y, z]) ? [0, y, z] : [x, y, z]) - 1);
    right.set(v, onMirror([x, y, z]) ? (left.get(v) as number) : points.push([-x, y, z]) - 1);
  }
  const half = cage.faces.filter((face) => face !== undefined);
  const faces = [
    ...half.map((face) => face.map((v) => left.get(v) as number)),
    ...half.map((face) => face.map((v) => right.get(v) as number).reverse()),
  ];
  let seams = [...cage.seams].flatMap((key) => {
    const [a, b] = key.split(' ').map(Number);
    return [left, right].map((side): [number, number] => [side.get(a) as number, side.get(b) as number]);
  });
  let mesh = meshFromPolygons(points, faces);
  for (let level = 0; level < levels; level++) {
    const connectivity = connectivityOf(mesh);
    const number = new Map<string, number>();
    for (let e = 0; e < connectivity.isInterior.length; e++) {
      number.set(edgeKey(connectivity.edgeVertices[2 * e], connectivity.edgeVertices[2 * e + 1]), e);
    }
    const finer = catmullClark(mesh);
    seams = seams.flatMap(([a, b]): [number, number][] => {
      const middle = finer.edgePoint[number.get(edgeKey(a, b)) as number];
      return [
        [a, middle],
        [middle, b],
      ];
    });
    mesh = finer.mesh;
  }
  return { mesh, seams: [...new Map(seams.map((s) => [edgeKey(...s), s])).values()] };
}
