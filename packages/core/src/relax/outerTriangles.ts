import { constrainedDelaunay } from '../mesh/constrainedDelaunay.ts';

/** Triangles of what is empty round a map, over its vertices and some more. */
export interface OuterTriangles {
  /** Facing up; the added vertices follow those of the map. */
  readonly triangles: Uint32Array;
  /** UV of the added vertices, far out on a circle. */
  readonly added: Float64Array;
}

/** Vertices of the circle, and how far out it is as a part of the extent of the map. */
const [ROUND, FAR] = [16, 1.5];

/**
 * Fills what is empty round a map that does not lie on itself, and its holes, with triangles: the constrained Delaunay triangulation of its borders and
 * a circle round them. As long as none of these flips, nor any of the map, the map does not come to lie on itself (air meshes: Müller, Chentanez,
 * Kim, Macklin 2015; scaffolds: Jiang, Schaefer, Panozzo 2017).
 *
 * @param uv  `2 × vertexCount`
 * @param loops  border loops, each in the direction of the triangles beside it
 * @returns undefined where borders cross or touch
 */
export function outerTriangles(uv: Float64Array, loops: readonly Uint32Array[]): OuterTriangles | undefined {
  const border = loops.flatMap((loop) => [...loop]);
  const sides: [number, number][] = [];
  for (const loop of loops) {
    const first = sides.length;
    for (let i = 0; i < loop.length; i++) sides.push([first + i, first + ((i + 1) % loop.length)]);
  }
  const { middle, extent } = boxOf(uv);
  // About the origin and of size 1: the triangulation takes points for one that are closer than a fixed, tiny length.
  const places = new Float64Array(2 * (border.length + ROUND));
  border.forEach((v, i) => {
    for (const k of [0, 1]) places[2 * i + k] = (uv[2 * v + k] - middle[k]) / extent;
  });
  for (let i = 0; i < ROUND; i++) {
    places[2 * (border.length + i)] = FAR * Math.cos((2 * Math.PI * i) / ROUND);
    places[2 * (border.length + i) + 1] = FAR * Math.sin((2 * Math.PI * i) / ROUND);
  }
  const all = constrainedDelaunay(places, sides);
  if (!all) return undefined;

  const keyOf = (a: number, b: number) => a * border.length + b;
  const isSide = new Set(sides.map(([a, b]) => keyOf(a, b)));
  const { triangles, halfedges } = all;
  const end = (side: number) => triangles[side % 3 === 2 ? side - 2 : side + 1];
  // From the circle, and from beyond every border, over all sides that are no border.
  const isOuter = new Uint8Array(triangles.length / 3);
  const outer: number[] = [];
  const reach = (t: number) => {
    if (isOuter[t]) return;
    isOuter[t] = 1;
    outer.push(t);
  };
  for (let side = 0; side < triangles.length; side++) {
    // Triangles wind against ours, so those beyond a border have its sides as they are in the loop.
    const [a, b] = [triangles[side], end(side)];
    if (Math.max(a, b) >= border.length || isSide.has(keyOf(a, b))) reach(Math.floor(side / 3));
  }
  for (const t of outer)
    for (let side = 3 * t; side < 3 * t + 3; side++) {
      const [a, b] = [triangles[side], end(side)];
      const isBorder = Math.max(a, b) < border.length && (isSide.has(keyOf(a, b)) || isSide.has(keyOf(b, a)));
      if (halfedges[side] >= 0 && !isBorder) reach(Math.floor(halfedges[side] / 3));
    }
  const vertexCount = uv.length / 2;
  const vertexOf = (i: number) => (i < border.length ? border[i] : vertexCount + i - border.length);
  return {
    triangles: Uint32Array.from(
      outer.flatMap((t) => [triangles[3 * t], triangles[3 * t + 2], triangles[3 * t + 1]].map(vertexOf)),
    ),
    added: places.slice(2 * border.length).map((x, i) => middle[i & 1] + extent * x),
  };
}

function boxOf(uv: Float64Array): { middle: [number, number]; extent: number } {
  const [low, high] = [
    [Infinity, Infinity],
    [-Infinity, -Infinity],
  ];
  uv.forEach((x, i) => {
    low[i & 1] = Math.min(low[i & 1], x);
    high[i & 1] = Math.max(high[i & 1], x);
  });
  return {
    middle: [(low[0] + high[0]) / 2, (low[1] + high[1]) / 2],
    extent: Math.max(high[0] - low[0], high[1] - low[1]),
  };
}
