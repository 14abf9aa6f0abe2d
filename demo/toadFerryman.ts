import { about, type Cage, centre, edgeKey, extrude, type Figure, figure, type Point } from './cage.ts';

/** Points of the half profile, from the middle of the back round the side to the middle of the belly. */
const PROFILE = 8;

/**
 * Sections of the body from the snout backwards: where along z, how high its middle, half width, height above
 * and below the middle.
 */
const SECTIONS: readonly (readonly [z: number, y: number, width: number, up: number, down: number])[] = [
  [2.25, 1.62, 0.95, 0.26, 0.3],
  [2.02, 1.64, 1.45, 0.5, 0.52],
  [1.5, 1.66, 1.72, 0.74, 0.8],
  [0.85, 1.6, 1.62, 0.98, 0.96],
  [0.15, 1.46, 1.66, 1.18, 1.08],
  [-0.65, 1.26, 1.92, 1.26, 1.08],
  [-1.4, 1.06, 1.86, 1.1, 0.95],
  [-2.0, 0.86, 1.4, 0.82, 0.72],
  [-2.4, 0.74, 0.72, 0.4, 0.4],
];

/** A toad sitting up in a boat, wide in the mouth, with three toes to a foot. One closed mesh of quads. */
export function toadFerryman(): Figure {
  const cage = body();
  mouth(cage);
  eye(cage);
  foreleg(cage);
  hindleg(cage);
  bellySeam(cage);
  return figure(cage, 2);
}

const point = (section: number, i: number): number => section * PROFILE + i;
/** The face between two sections, between profile points i and i + 1. */
const side = (section: number, i: number): number => section * (PROFILE - 1) + i;
const snout = (i: number): number => (SECTIONS.length - 1) * (PROFILE - 1) + i;

function body(): Cage {
  const cage: Cage = { points: [], faces: [], seams: new Set() };
  for (const [z, y, width, up, down] of SECTIONS) {
    for (let i = 0; i < PROFILE; i++) {
      const angle = (Math.PI * i) / (PROFILE - 1);
      const [c, s] = [Math.cos(angle), Math.sin(angle)];
      // A little squarer than an ellipse.
      const x = i === 0 || i === PROFILE - 1 ? 0 : width * Math.sign(s) * Math.abs(s) ** 0.8;
      cage.points.push([x, y + (c > 0 ? up : down) * Math.sign(c) * Math.abs(c) ** 0.85, z]);
    }
  }
  for (let section = 0; section + 1 < SECTIONS.length; section++) {
    for (let i = 0; i + 1 < PROFILE; i++) {
      cage.faces.push([
        point(section, i),
        point(section, i + 1),
        point(section + 1, i + 1),
        point(section + 1, i),
      ]);
    }
  }
  const last = SECTIONS.length - 1;
  for (let i = 0; i < 3; i++) {
    cage.faces.push(
      [point(0, i), point(0, PROFILE - 1 - i), point(0, PROFILE - 2 - i), point(0, i + 1)].reverse(),
    );
  }
  for (let i = 0; i < 3; i++) {
    cage.faces.push([
      point(last, i),
      point(last, PROFILE - 1 - i),
      point(last, PROFILE - 2 - i),
      point(last, i + 1),
    ]);
  }
  // The winding of the caps follows from the sides: facing along +z in front, −z behind.
  for (let i = 0; i < 3; i++) {
    (cage.faces[snout(i)] as number[]).reverse();
    (cage.faces[snout(3 + i)] as number[]).reverse();
  }
  return cage;
}

/** The mouth: a wide slit round the snout, pushed in, with loops for the lips. */
function mouth(cage: Cage): void {
  const faces = [snout(0), snout(1), snout(2), side(0, 3), side(1, 3)];
  const middle: Point = [0, 1.56, 1.6];
  extrude(cage, faces, about(middle, [1.02, 0.62, 1.06]));
  const lip = lowestOnMirror(cage, faces);
  extrude(cage, faces, about(middle, [0.97, 0.45, 0.97]), true);
  extrude(cage, faces, about([0, 1.52, 1.3], [0.82, 1.5, 0.62]));
  cage.seams.add(edgeKey(point(0, PROFILE - 1), lip));
}

/** The eye: a ball on top of the head with a lid round it. */
function eye(cage: Cage): void {
  const faces = [side(2, 1)];
  const up = (by: Point, scale: number, seam = false) =>
    extrude(cage, faces, about(centre(cage, faces), scale, by), seam);
  up([0.02, 0.03, 0.02], 1.3);
  up([0.05, 0.14, 0.03], 1.08);
  up([0.03, 0.06, 0.02], 0.84, true);
  up([0.04, 0.15, 0.03], 0.98);
  up([0.03, 0.1, 0.02], 0.5);
}

type Segment = readonly [to: Point, scale: number | Point];

/** A limb: its end is carried from place to place. */
function limb(cage: Cage, faces: readonly number[], segments: readonly Segment[]): void {
  segments.forEach(([to, scale], i) => {
    const middle = centre(cage, faces);
    extrude(
      cage,
      faces,
      about(middle, scale, [to[0] - middle[0], to[1] - middle[1], to[2] - middle[2]]),
      i === 0,
    );
  });
}

function toe(cage: Cage, face: number, by: Point): void {
  const third = by.map((x) => x / 3) as Point;
  extrude(cage, [face], about(centre(cage, [face]), [0.72, 0.8, 0.72], third));
  extrude(cage, [face], about(centre(cage, [face]), [0.8, 0.9, 0.8], third));
  extrude(cage, [face], about(centre(cage, [face]), [1.25, 1.05, 1.25], third));
}

function foreleg(cage: Cage): void {
  const faces = [side(3, 4), side(3, 5)];
  limb(cage, faces, [
    [
      [1.42, 0.95, 0.66],
      [0.92, 0.92, 0.95],
    ],
    [
      [1.66, 0.76, 0.78],
      [0.84, 0.88, 0.9],
    ],
    [
      [1.66, 0.44, 0.98],
      [0.82, 0.62, 0.86],
    ],
    [
      [1.62, 0.2, 1.12],
      [1.15, 0.5, 1.1],
    ],
  ]);
  seamDown(cage, point(4, PROFILE - 2), 3);
  toes(cage, faces, [
    [0.1, -0.06, 0.7],
    [0.58, -0.06, 0.46],
    [-0.36, -0.06, 0.5],
  ]);
}

function hindleg(cage: Cage): void {
  const faces = [side(5, 3), side(5, 4), side(6, 3), side(6, 4)];
  limb(cage, faces, [
    [
      [1.98, 0.94, -1.0],
      [0.95, 0.95, 0.9],
    ],
    [
      [2.4, 1.0, -0.66],
      [1.0, 1.0, 0.9],
    ],
    [
      [2.72, 0.84, -0.42],
      [0.7, 0.72, 0.68],
    ],
    [
      [2.6, 0.42, -0.5],
      [0.72, 0.55, 0.62],
    ],
    [
      [2.62, 0.2, -0.3],
      [1.15, 0.5, 1.0],
    ],
  ]);
  toes(cage, faces, [
    [0.15, -0.05, 0.95],
    [0.72, -0.05, 0.62],
    [-0.32, -0.05, 0.78],
  ]);
}

/** Three toes from the faces of the last band that look forwards and outwards most. */
function toes(cage: Cage, end: readonly number[], directions: readonly Point[]): void {
  const rim = end.length === 2 ? 6 : 8;
  const band = Array.from({ length: rim }, (_, i) => cage.faces.length - rim + i);
  const middle = centre(cage, end);
  const free = new Set(band);
  for (const by of directions) {
    const forward = (f: number) => {
      const c = centre(cage, [f]);
      return (c[0] - middle[0]) * by[0] + (c[2] - middle[2]) * by[2];
    };
    const face = [...free].sort((a, b) => forward(b) - forward(a))[0];
    free.delete(face);
    toe(cage, face, by);
  }
}

function lowestOnMirror(cage: Cage, faces: readonly number[]): number {
  const middle = faces.flatMap((f) => cage.faces[f] as number[]).filter((v) => cage.points[v][0] === 0);
  return middle.reduce((low, v) => (cage.points[v][1] < cage.points[low][1] ? v : low));
}

/** Along the middle of the belly from lip to tail, and from there to the legs: the body opens like a hide. */
function bellySeam(cage: Cage): void {
  const line = (...vertices: number[]) => {
    for (let i = 1; i < vertices.length; i++) cage.seams.add(edgeKey(vertices[i - 1], vertices[i]));
  };
  line(...SECTIONS.map((_, section) => point(section, PROFILE - 1)));
  line(point(4, PROFILE - 1), point(4, PROFILE - 2));
  line(point(6, PROFILE - 1), point(6, PROFILE - 2), point(6, PROFILE - 3));
}

/** From the root of a limb down to its foot, along the vertex chain that the bands left behind. */
function seamDown(cage: Cage, root: number, bands: number): void {
  let v = root;
  for (let i = 0; i < bands; i++) {
    // A band quad is [a, b, copy of b, copy of a]: the way down leads from a vertex to its copy.
    const band = cage.faces.findLast((face) => face?.[0] === v && face[3] > v) as number[];
    cage.seams.add(edgeKey(v, band[3]));
    v = band[3];
  }
}
