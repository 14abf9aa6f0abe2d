import type { Point } from './cage.ts';
import { type Part, tubeFaces } from './parts.ts';

/** An oak post with a cap, an iron ring to tie up to, and a rope of three strands coiled round it, its end hanging. */
export function mooringPost(): Part[] {
  return [post(), cap(), ring(), rope()];
}

/** Radius and height of the post, which is worn where ropes run. */
const POST: readonly (readonly [radius: number, height: number])[] = [
  [0.5, 0],
  [0.5, 0.12],
  [0.49, 0.5],
  [0.47, 0.8],
  [0.435, 1.05],
  [0.42, 1.3],
  [0.43, 1.55],
  [0.455, 1.8],
  [0.465, 2.1],
  [0.46, 2.3],
];

function post(): Part {
  const around = 40;
  const rows = (POST.length - 1) * 6;
  const vertices: Point[] = [];
  for (let i = 0; i <= rows; i++) {
    const [radius, height] = along(POST, i / rows);
    for (let j = 0; j < around; j++) {
      const angle = (2 * Math.PI * j) / around;
      // Hewn with an adze: eight broad faces, none of them quite even.
      const hewn = 1 + 0.018 * Math.cos(8 * angle) + 0.012 * Math.sin(3 * angle + 2.1 * height);
      vertices.push([radius * hewn * Math.cos(angle), height, radius * hewn * Math.sin(angle)]);
    }
  }
  return closed('Post', 'post', 'Oak', vertices, rows + 1, around);
}

/** A turned cap that sheds the rain. */
function cap(): Part {
  const outline = [
    [0.44, 2.26],
    [0.58, 2.28],
    [0.6, 2.34],
    [0.58, 2.42],
    [0.46, 2.52],
    [0.28, 2.6],
    [0.12, 2.635],
  ] as const;
  const around = 40;
  const rows = (outline.length - 1) * 4;
  const vertices: Point[] = [];
  for (let i = 0; i <= rows; i++) {
    const [radius, height] = along(outline, i / rows);
    for (let j = 0; j < around; j++) {
      const angle = (2 * Math.PI * j) / around;
      vertices.push([radius * Math.cos(angle), height, radius * Math.sin(angle)]);
    }
  }
  return closed('Cap', 'post', 'Lead', vertices, rows + 1, around);
}

/** An iron ring: a handle of its own, that needs a cut round and a cut across. */
function ring(): Part {
  const [major, minor] = [48, 14];
  const vertices: Point[] = [];
  for (let i = 0; i < major; i++) {
    for (let j = 0; j < minor; j++) {
      const [a, b] = [(2 * Math.PI * i) / major, (2 * Math.PI * j) / minor];
      const reach = 0.21 + 0.035 * Math.cos(b);
      const [x, y] = [reach * Math.sin(a), reach * Math.cos(a)];
      vertices.push([0.06 * (1 - y / 0.21) + 0.44 + 0.035 * Math.sin(b), 1.86 + y, x]);
    }
  }
  const faces: number[][] = [];
  const id = (i: number, j: number) => (i % major) * minor + (j % minor);
  for (let i = 0; i < major; i++)
    for (let j = 0; j < minor; j++) faces.push([id(i, j), id(i + 1, j), id(i + 1, j + 1), id(i, j + 1)]);
  return { name: 'Ring', group: 'fittings', material: 'Iron', vertices, faces };
}

const TURNS = 6;
/** Thickness of the rope, and turns of its strands along it. */
const [THICK, LAY] = [0.075, 46];

function rope(): Part {
  const [rows, around] = [900, 18];
  const vertices: Point[] = [];
  for (let i = 0; i <= rows; i++) {
    const t = i / rows;
    const at = ropePath(t);
    const ahead = ropePath(t + 1e-4);
    const forward = unit([0, 1, 2].map((k) => ahead[k] - at[k]) as Point);
    // The post is behind the rope: what points away from its axis is across.
    const out = unit(cross(forward, [0, 1, 0]));
    const up = cross(out, forward);
    const end = Math.min(1, 18 * Math.min(t, 1 - t) + 0.35);
    for (let j = 0; j < around; j++) {
      const angle = (2 * Math.PI * j) / around;
      const strand = 0.8 + 0.24 * Math.abs(Math.cos(1.5 * (angle - 2 * Math.PI * LAY * t)));
      const [c, s] = [end * THICK * strand * Math.cos(angle), end * THICK * strand * Math.sin(angle)];
      vertices.push([0, 1, 2].map((k) => at[k] + c * out[k] + s * up[k]) as Point);
    }
  }
  return closed('Rope', 'fittings', 'Hemp', vertices, rows + 1, around);
}

/** From its end on the ground, up in a slack bow, and round the post in a rising coil. */
function ropePath(t: number): Point {
  const coil = Math.max(0, (t - 0.16) / 0.84);
  const angle = 2 * Math.PI * TURNS * coil;
  const height = 0.93 + 0.145 * TURNS * coil;
  const slack = Math.max(0, 1 - t / 0.16);
  const [radius] = along(POST, height / 2.3);
  const reach = radius + THICK * 0.86 + 0.85 * slack ** 1.6;
  const turned = angle - 1.5 * slack;
  return [
    reach * Math.cos(turned),
    height - 0.86 * Math.sin(0.5 * Math.PI * slack) ** 1.4,
    reach * Math.sin(turned),
  ];
}

/** A place on an outline, a cubic through its points (Catmull, Rom 1974). */
function along(outline: readonly (readonly [number, number])[], t: number): [number, number] {
  const last = outline.length - 1;
  const at = Math.max(0, Math.min(1, t)) * last;
  const i = Math.min(last - 1, Math.floor(at));
  const u = at - i;
  const [a, b, c, d] = [i - 1, i, i + 1, i + 2].map((k) => outline[Math.max(0, Math.min(last, k))]);
  return [0, 1].map(
    (k) =>
      0.5 *
      (2 * b[k] +
        (c[k] - a[k]) * u +
        (2 * a[k] - 5 * b[k] + 4 * c[k] - d[k]) * u ** 2 +
        (3 * b[k] - a[k] - 3 * c[k] + d[k]) * u ** 3),
  ) as [number, number];
}

/** Rings of vertices with a flat face at each end. */
function closed(
  name: string,
  group: string,
  material: string,
  vertices: Point[],
  rings: number,
  around: number,
): Part {
  const ringFrom = (first: number, step: number) =>
    Array.from({ length: around }, (_, j) => first + ((step * j + around) % around));
  const faces = [...tubeFaces(rings, around), ringFrom(0, 1), ringFrom((rings - 1) * around, -1)];
  return { name, group, material, vertices, faces };
}

const cross = (a: Point, b: Point): Point => [
  a[1] * b[2] - a[2] * b[1],
  a[2] * b[0] - a[0] * b[2],
  a[0] * b[1] - a[1] * b[0],
];

function unit(v: Point): Point {
  const length = Math.hypot(...v) || 1;
  return v.map((x) => x / length) as Point;
}
