import { type Mesh, meshFromPolygons } from '../mesh/mesh.ts';
import type { Shell } from '../surface/shell.ts';
import { surfaceNets } from './surfaceNets.ts';

/** Sculpt-like shells that are discs by topology and nearly closed by shape; `cells` says how dense. */

/** Distance to a bone from a to b that is r thick at a and s at b. */
const bone =
  (a: readonly number[], b: readonly number[], r: number, s: number) =>
  (x: number, y: number, z: number): number => {
    const d = [b[0] - a[0], b[1] - a[1], b[2] - a[2]];
    const p = [x - a[0], y - a[1], z - a[2]];
    const along = p[0] * d[0] + p[1] * d[1] + p[2] * d[2];
    const t = Math.max(0, Math.min(1, along / (d[0] ** 2 + d[1] ** 2 + d[2] ** 2)));
    return Math.hypot(p[0] - t * d[0], p[1] - t * d[1], p[2] - t * d[2]) - (r + t * (s - r));
  };

/** Least of several distances, rounded where they meet. */
const blended =
  (parts: readonly ((x: number, y: number, z: number) => number)[], round: number) =>
  (x: number, y: number, z: number): number =>
    -round * Math.log(parts.reduce((sum, part) => sum + Math.exp(-part(x, y, z) / round), 0));

/** A hand in a glove: a palm, four fingers and a thumb, open at the wrist. */
export function glove(cells: number): Shell {
  const fingers = [-0.75, -0.25, 0.25, 0.75].map((x, i) =>
    bone([x, 1.6, 0], [1.5 * x, 3.6 + 0.35 * (1 - Math.abs(i - 1.6)), 0.15], 0.24, 0.17),
  );
  const thumb = bone([0.8, 0.4, 0.1], [2.1, 1.9, 0.5], 0.3, 0.2);
  const palm = (x: number, y: number, z: number) =>
    0.5 * (Math.hypot(x / 1.05, (y - 0.8) / 1.2, z / 0.42) - 1);
  const wrist = bone([0, -1.2, 0], [0, 0.5, 0], 0.5, 0.5);
  return surfaceNets(blended([palm, wrist, thumb, ...fingers], 0.05), [-2, -1, -1], [2.6, 4.4, 1], cells);
}

/** A ball with eight spikes, open below. */
export function spikyBall(cells: number): Shell {
  const spikes = [-1, 1].flatMap((x) =>
    [-1, 1].flatMap((y) =>
      [-1, 1].map((z) => bone([0, 0, 0], [1.5 * x, 0.9 * y + 0.5, 1.5 * z], 0.45, 0.06)),
    ),
  );
  const ball = (x: number, y: number, z: number) => Math.hypot(x, y, z) - 1;
  return surfaceNets(blended([ball, ...spikes], 0.06), [-1.9, -0.9, -1.9], [1.9, 2.1, 1.9], cells);
}

/** A head with a nose and two ears, only the neck open. */
export function head(cells: number): Shell {
  const skull = (x: number, y: number, z: number) => 0.8 * (Math.hypot(x / 0.8, y, z / 0.95) - 1);
  const ear = (side: number) => bone([side * 0.7, 0.1, 0], [side * 1.15, 0.75, -0.1], 0.14, 0.05);
  const nose = bone([0, 0, 0.85], [0, -0.25, 1.15], 0.1, 0.14);
  const neck = bone([0, -1.8, -0.1], [0, -0.6, -0.1], 0.38, 0.36);
  return surfaceNets(
    blended([skull, ear(-1), ear(1), nose, neck], 0.04),
    [-1.4, -1.4, -1.3],
    [1.4, 1.3, 1.5],
    cells,
  );
}

/** A tentacle that winds upwards, open at its thick end. */
export function tentacle(cells: number): Shell {
  const places = Array.from({ length: 26 }, (_, i) => {
    const a = 0.42 * Math.max(0, i - 1);
    return [Math.cos(a) * (1.2 - 0.03 * i), i === 0 ? -0.4 : 0.3 + 0.15 * i, Math.sin(a) * (1.2 - 0.03 * i)];
  });
  const bones = places.slice(1).map((b, i) => bone(places[i], b, 0.36 - 0.011 * i, 0.36 - 0.011 * (i + 1)));
  const solid = (x: number, y: number, z: number) => Math.min(...bones.map((part) => part(x, y, z)));
  return surfaceNets(solid, [-1.6, 0, -1.6], [1.6, 4.2, 1.6], cells);
}

/**
 * A head as a careless scan has it: holes, faces twice, slivers without area, fins at edges that have their two faces already, faces turned
 * round, and a crumb that hangs in the air.
 */
export function dirtyScan(cells: number): Mesh {
  const { positions, triangles } = head(cells);
  const points = Array.from({ length: positions.length / 3 }, (_, v) => [
    ...positions.subarray(3 * v, 3 * v + 3),
  ]);
  const faces: number[][] = [];
  for (let t = 0; t < triangles.length / 3; t++) {
    const [a, b, c] = triangles.subarray(3 * t, 3 * t + 3);
    if (t % 97 === 5) continue;
    faces.push(t % 61 === 7 ? [a, c, b] : [a, b, c]);
    if (t % 89 === 11) faces.push([a, b, c]);
    if (t % 113 === 13) faces.push([a, b, a]);
    if (t % 127 === 17) {
      points.push([1.3, 1.2, 1.1].map((out, k) => out * positions[3 * a + k]));
      faces.push([a, b, points.length - 1]);
    }
  }
  const crumb = points.length;
  points.push([3, 0, 0], [3.1, 0, 0], [3, 0.1, 0]);
  faces.push([crumb, crumb + 1, crumb + 2]);
  return meshFromPolygons(points, faces);
}

/** Radius of the legs of a beast, and where they end. */
export const LEG = { radius: 0.2, y: -1.3 } as const;

/** A closed body on four legs, symmetric across x. */
export function beast(cells: number): Shell {
  const body = bone([0, 0, -1], [0, 0, 1], 0.5, 0.55);
  const legs = [-1, 1].flatMap((x) =>
    [-0.9, 0.9].map((z) => bone([0.3 * x, -0.2, z], [0.36 * x, LEG.y, z], LEG.radius, LEG.radius)),
  );
  return surfaceNets(blended([body, ...legs], 0.05), [-0.9, -1.8, -1.8], [0.9, 0.8, 1.8], cells);
}
