import { about, type Cage, centre, extrude, type Figure, figure, type Point } from './cage.ts';

/** Points of the half ring, from the middle of the face round the side to the nape. */
const AROUND = 8;

/** Rings of the hood from its rim up: height, how far it reaches in front, to the side and behind, and where its middle lies along z. */
const RINGS: readonly (readonly [y: number, front: number, side: number, back: number, z: number])[] = [
  [0.0, 0.92, 1.16, 1.1, -0.12],
  [0.22, 0.84, 1.02, 0.98, -0.1],
  [0.58, 0.8, 0.86, 0.88, -0.06],
  [0.98, 0.86, 0.82, 0.9, 0.0],
  [1.32, 0.92, 0.84, 0.98, 0.04],
  [1.62, 0.84, 0.76, 0.98, 0.02],
  [1.86, 0.58, 0.52, 0.78, -0.06],
];

/** A dancer's hood in the likeness of a heron: open below, with holes for the eyes, a long parted beak and a crest. Quads throughout. */
export function heronHood(): Figure {
  const cage = hood();
  beak(cage);
  brow(cage);
  crest(cage);
  return figure(cage, 3);
}

const point = (ring: number, i: number): number => ring * AROUND + i;
/** The face between a ring and the next, between points i and i + 1. */
const side = (ring: number, i: number): number => ring * (AROUND - 1) + i;

function hood(): Cage {
  const cage: Cage = { points: [], faces: [], seams: new Set() };
  for (const [y, front, wide, back, z] of RINGS) {
    for (let i = 0; i < AROUND; i++) {
      const angle = (Math.PI * i) / (AROUND - 1);
      const [c, s] = [Math.cos(angle), Math.sin(angle)];
      const x = i === 0 || i === AROUND - 1 ? 0 : wide * s ** 0.85;
      cage.points.push([x, y + 0.1 * c * c * y, z + (c > 0 ? front : back) * c]);
    }
  }
  for (let ring = 0; ring + 1 < RINGS.length; ring++)
    for (let i = 0; i + 1 < AROUND; i++)
      cage.faces.push(
        [point(ring, i), point(ring + 1, i), point(ring + 1, i + 1), point(ring, i + 1)].reverse(),
      );
  const top = RINGS.length - 1;
  for (let i = 0; i < 3; i++)
    cage.faces.push([
      point(top, i),
      point(top, i + 1),
      point(top, AROUND - 2 - i),
      point(top, AROUND - 1 - i),
    ]);
  return cage;
}

/** Carries faces through some places, each with a scale about their middle. */
function draw(
  cage: Cage,
  faces: readonly number[],
  steps: readonly (readonly [by: Point, scale: Point])[],
): void {
  for (const [by, scale] of steps) extrude(cage, faces, about(centre(cage, faces), scale, by));
}

/** Two halves, the upper over the lower, parted by a hand's breadth. */
function beak(cage: Cage): void {
  draw(
    cage,
    [side(3, 0)],
    [
      [
        [-0.02, 0.05, 0.16],
        [0.86, 0.78, 1],
      ],
      [
        [-0.03, -0.02, 0.52],
        [0.78, 0.7, 1],
      ],
      [
        [-0.02, -0.07, 0.8],
        [0.7, 0.72, 1],
      ],
      [
        [-0.01, -0.1, 0.7],
        [0.62, 0.66, 1],
      ],
      [
        [-0.01, -0.08, 0.36],
        [0.4, 0.42, 1],
      ],
    ],
  );
  draw(
    cage,
    [side(2, 0)],
    [
      [
        [-0.03, 0.1, 0.18],
        [0.8, 0.56, 1],
      ],
      [
        [-0.03, 0.06, 0.5],
        [0.74, 0.7, 1],
      ],
      [
        [-0.02, 0.02, 0.72],
        [0.68, 0.72, 1],
      ],
      [
        [-0.01, -0.01, 0.55],
        [0.5, 0.5, 1],
      ],
    ],
  );
}

/** The eye: a rim raised a little, and a hole in it. */
function brow(cage: Cage): void {
  const eye = side(4, 2);
  draw(
    cage,
    [eye],
    [
      [
        [0.05, 0.01, 0.03],
        [0.94, 0.86, 0.94],
      ],
      [
        [0.0, 0.0, 0.0],
        [0.72, 0.66, 0.72],
      ],
      [
        [-0.08, 0, -0.05],
        [0.9, 0.9, 0.9],
      ],
    ],
  );
  cage.faces[eye] = undefined;
}

/** Plumes that fall from the back of the head. */
function crest(cage: Cage): void {
  draw(
    cage,
    [side(5, 6)],
    [
      [
        [0, 0.12, -0.3],
        [0.8, 0.7, 0.9],
      ],
      [
        [0, 0.1, -0.55],
        [0.75, 0.8, 0.9],
      ],
      [
        [0, -0.12, -0.62],
        [0.7, 0.8, 0.9],
      ],
      [
        [0, -0.3, -0.5],
        [0.5, 0.5, 0.8],
      ],
    ],
  );
  draw(
    cage,
    [side(4, 6)],
    [
      [
        [0, 0.02, -0.25],
        [0.72, 0.62, 0.9],
      ],
      [
        [0, -0.16, -0.42],
        [0.72, 0.76, 0.9],
      ],
      [
        [0, -0.34, -0.36],
        [0.5, 0.5, 0.8],
      ],
    ],
  );
}
