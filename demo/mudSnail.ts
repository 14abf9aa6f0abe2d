import { type Mesh, meshFromPolygons } from '@blunt-hem/core/mesh/mesh';
import { surfaceNets } from 'isosurface';
import type { Point } from './cage.ts';

/** Cells along x, y and z, and the box they fill. */
const CELLS = [118, 145, 284] as const;
const LOW: Point = [-1.16, -0.09, -2.6];
const HIGH: Point = [1.13, 2.74, 2.9];
/** Every so many grid points the distance is known first; far from the surface that is enough. */
const COARSE = 4;

/** Round bars that may taper, eight numbers each: from where, by what, and the radius at the beginning and how it changes. */
type Bars = Float64Array;

/**
 * A snail that creeps through mud: foot, head with eye stalks and feelers, and a coiled shell with growth ridges, as a dense sculpt of
 * some 200 000 triangles without loops. A distance field, turned into triangles by surface nets.
 */
export function mudSnail(): Mesh {
  // Without what is as thin as a cell, where faces would meet three at an edge.
  let field = sampled();
  for (let round = 0; round < 2; round++)
    for (const step of [1, CELLS[0] + 1, (CELLS[0] + 1) * (CELLS[1] + 1)]) field = blurred(field, step);
  const at = (k: number, x: number) => Math.round(((x - LOW[k]) / (HIGH[k] - LOW[k])) * CELLS[k]);
  const { positions, cells } = surfaceNets(
    [...CELLS],
    (x, y, z) => field[at(0, x) + (CELLS[0] + 1) * (at(1, y) + (CELLS[1] + 1) * at(2, z))],
    [LOW, HIGH],
  );
  const triangles = cells.flatMap((cell) =>
    cell.length === 4
      ? [
          [cell[0], cell[1], cell[2]],
          [cell[0], cell[2], cell[3]],
        ]
      : [cell],
  );
  return smoothed(meshFromPolygons(positions, triangles), 4);
}

/** The distance at every grid point. */
function sampled(): Float32Array {
  const [nx, ny, nz] = CELLS.map((n) => n + 1);
  const place = (i: number, k: number) => LOW[k] + (i * (HIGH[k] - LOW[k])) / CELLS[k];
  const field = new Float32Array(nx * ny * nz);
  const reach = COARSE * 1.8 * Math.max(...CELLS.map((n, k) => (HIGH[k] - LOW[k]) / n));
  for (let z = 0; z < nz; z += COARSE) {
    for (let y = 0; y < ny; y += COARSE) {
      for (let x = 0; x < nx; x += COARSE) {
        const rough = distance([place(x, 0), place(y, 1), place(z, 2)]);
        for (let k = z; k < Math.min(nz, z + COARSE); k++)
          for (let j = y; j < Math.min(ny, y + COARSE); j++)
            for (let i = x; i < Math.min(nx, x + COARSE); i++)
              field[i + nx * (j + ny * k)] =
                Math.abs(rough) > reach ? rough : distance([place(i, 0), place(j, 1), place(k, 2)]);
      }
    }
  }
  return field;
}

/** The mean of every value and the two beside it, so many places away. */
const blurred = (field: Float32Array, step: number): Float32Array =>
  field.map(
    (value, i) => (field[i - step] ?? value) * 0.25 + 0.5 * value + 0.25 * (field[i + step] ?? value),
  );

const BODY = chain([
  [[0, 0.12, -2.75], 0.08],
  [[0, 0.2, -1.9], 0.3],
  [[0, 0.34, -0.9], 0.5],
  [[0, 0.46, 0.2], 0.6],
  [[0, 0.5, 1.1], 0.52],
  [[0, 0.62, 1.75], 0.46],
  [[0, 0.72, 2.12], 0.4],
]);
const STALKS = both((side) =>
  chain([
    [[0.17 * side, 0.98, 2.2], 0.13],
    [[0.3 * side, 1.4, 2.42], 0.085],
    [[0.36 * side, 1.78, 2.5], 0.075],
  ]),
);
const EYES = both((side) =>
  chain([
    [[0.37 * side, 1.86, 2.52], 0.13],
    [[0.37 * side, 1.86, 2.53], 0.13],
  ]),
);
const FEELERS = both((side) =>
  chain([
    [[0.2 * side, 0.5, 2.38], 0.11],
    [[0.32 * side, 0.36, 2.68], 0.07],
  ]),
);
const TURNS = 3.4;
const GROWTH = 1.95;
const COIL = coil();
/** A ball about it. */
const COIL_MIDDLE: Point = [0.3, 1.7, -0.3];
const COIL_REACH = 1.9;

function both(of: (side: -1 | 1) => Bars): Bars {
  return Float64Array.from([...of(-1), ...of(1)]);
}

function chain(points: readonly (readonly [Point, number])[]): Bars {
  return Float64Array.from(
    points.slice(1).flatMap(([to, radius], i) => {
      const [from, first] = points[i];
      return [...from, ...to.map((x, k) => x - from[k]), first, radius - first];
    }),
  );
}

/** The shell: a tube along a spiral that grows by the same part with every turn, and winds a little to the side. */
function coil(): Bars {
  const steps = 120;
  const points = Array.from({ length: steps + 1 }, (_, i): readonly [Point, number] => {
    const turn = (TURNS * i) / steps;
    const reach = 0.98 * GROWTH ** (turn - TURNS);
    const angle = -2 * Math.PI * (TURNS - turn) - 0.5;
    const tube = 1.16 * reach * ((GROWTH - 1) / (GROWTH + 1));
    const lip = 1 + 0.16 * Math.max(0, 1 - (TURNS - turn) * 9);
    const ridge = 1 + 0.03 * Math.sin(58 * turn) + 0.04 * Math.abs(Math.sin(9 * turn)) ** 6;
    return [
      [0.62 * (0.9 - reach), 1.62 + reach * Math.sin(angle), -0.22 + reach * Math.cos(angle)],
      1.5 * tube * lip * ridge,
    ];
  });
  // The pillar inside, so that no tunnel leads along the axis.
  const pillar = chain([
    [[0.46, 1.62, -0.22], 0.2],
    [[-0.12, 1.62, -0.22], 0.66],
  ]);
  return Float64Array.from([...chain(points), ...pillar]);
}

function distance(p: Point): number {
  const skin = 0.012 * wrinkles(p);
  const foot = nearest(p, BODY, 1.12);
  const wave = 1 + 0.05 * Math.sin(5.2 * p[2] + 2 * Math.sign(p[0])) + 0.03 * Math.sin(11 * p[2]);
  const skirt = toSkirt(p, wave);
  let body = blend(foot, skirt, 0.3);
  body = blend(body, nearest(p, STALKS), 0.16);
  body = blend(body, nearest(p, FEELERS), 0.14);
  body = blend(body, nearest(p, EYES), 0.05);
  const [x, y, z] = [p[0] - COIL_MIDDLE[0], p[1] - COIL_MIDDLE[1], p[2] - COIL_MIDDLE[2]];
  const outside = Math.sqrt(x * x + y * y + z * z) - COIL_REACH;
  const shell = outside > 0.3 ? outside : nearest(p, COIL, 1, 0.03) + 0.05;
  // Flat below, where it creeps.
  return -blend(-blend(body + skin, shell, 0.12), p[1], 0.08);
}

/** The hem of the foot: a flat drop, waved at its rim. */
function toSkirt([x, y, z]: Point, wave: number): number {
  const t = (z + 2.5) / 4.6;
  const wide =
    0.86 * wave * Math.sqrt(Math.max(0.02, Math.sin(Math.PI * Math.min(0.97, Math.max(0.04, t ** 0.8)))));
  const along = Math.max(0, Math.abs(z + 0.2) - 2.2);
  const round = Math.hypot(Math.max(0, Math.abs(x) - wide), along, 1.7 * (y - 0.1));
  return round - 0.13;
}

/**
 * To the nearest of some bars; they may be flat, wider along x, and flow together where they are as near as `soft` (log-sum-exp).
 */
function nearest([x, y, z]: Point, bars: Bars, flat = 1, soft = 0): number {
  let least = Infinity;
  let sum = 0;
  for (let i = 0; i < bars.length; i += 8) {
    const px = x - bars[i];
    const py = y - bars[i + 1];
    const pz = z - bars[i + 2];
    const dx = bars[i + 3];
    const dy = bars[i + 4];
    const dz = bars[i + 5];
    const t = Math.max(0, Math.min(1, (px * dx + py * dy + pz * dz) / (dx * dx + dy * dy + dz * dz)));
    const u = (px - t * dx) / flat;
    const v = py - t * dy;
    const w = pz - t * dz;
    // Many times as fast as Math.hypot, and no number here is extreme.
    const d = Math.sqrt(u * u + v * v + w * w) - bars[i + 6] - t * bars[i + 7];
    if (d < least) least = d;
    if (soft > 0 && d < 0.4) sum += Math.exp(-d / soft);
  }
  return sum > 0 ? -soft * Math.log(sum) : least;
}

/** Smooth union (polynomial). */
function blend(a: number, b: number, k: number): number {
  const h = Math.max(0, k - Math.abs(a - b)) / k;
  return Math.min(a, b) - (h * h * k) / 4;
}

const wrinkles = ([x, y, z]: Point): number =>
  Math.sin(9 * z + 3 * Math.sin(4 * y)) * Math.sin(8 * y + 5 * x) +
  0.7 * Math.sin(17 * x + 6 * Math.sin(5 * z)) * Math.sin(15 * z);

/** Takes the steps of the grid out without shrinking (Taubin 1995). */
function smoothed(mesh: Mesh, rounds: number): Mesh {
  const { cornerVertex } = mesh;
  let positions = mesh.positions;
  for (let round = 0; round < 2 * rounds; round++) {
    const sum = new Float64Array(positions.length);
    const count = new Float64Array(positions.length / 3);
    for (let c = 0; c < cornerVertex.length; c++) {
      const v = cornerVertex[c];
      const w = cornerVertex[c % 3 === 2 ? c - 2 : c + 1];
      count[v]++;
      for (let k = 0; k < 3; k++) sum[3 * v + k] += positions[3 * w + k];
    }
    const step = round % 2 === 0 ? 0.5 : -0.52;
    positions = positions.map((x, i) => x + step * (sum[i] / count[Math.floor(i / 3)] - x));
  }
  return { ...mesh, positions };
}
