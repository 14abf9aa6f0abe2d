import { HemError } from '../errors.ts';
import type { Context } from '../progress.ts';
import { pickTriangles } from '../relax/freeTriangles.ts';
import { pullVertices } from '../relax/pullVertices.ts';
import { relax } from '../relax/relax.ts';
import { invertedTriangles } from '../relax/removeInversions.ts';
import type { WeightedTriangles } from '../surface/anyDiagonal.ts';
import { signedArea } from '../surface/flatArea.ts';
import type { Shell } from '../surface/shell.ts';
import { bestTurn, transformUv } from '../surface/similarity.ts';
import type { Pins } from './lscm.ts';

/** Pins or stays ask for a map that would have to flip faces. */
export class CannotMeetPinsError extends HemError {
  constructor(vertices: readonly number[]) {
    super(
      'cannot-meet-pins',
      'These pins and stays cannot all be met without flipping faces: move one, or let one go.',
      vertices,
    );
    this.name = 'CannotMeetPinsError';
  }
}

/** Relaxing that turns a valid but bad map into a usable one. */
const REPAIR = { steps: 80, tolerance: 1e-3 };

/**
 * A map that meets its pins though the solver's own has flips: a valid one whose pinned vertices are pulled to their
 * places, and relaxed there.
 *
 * @param near  a valid map, placed as near to the pins as can be
 * @throws CannotMeetPinsError, StoppedError
 */
export function meetPins(
  shell: Shell,
  anyWay: WeightedTriangles,
  pins: Pins,
  near: Float64Array,
  context: Context,
): Float64Array {
  // Pulling weighs lengths against the surface's, so it is done at its size.
  const scale = Math.sqrt(anyWay.rest.totalArea / signedArea(shell.triangles, near));
  const start = near.map((x) => x * scale);
  const goal = Float64Array.from(pins.uv, (x) => x * scale);
  const inverted = new Set(invertedTriangles(anyWay, start, 0));
  const { triangles, rest } = pickTriangles(anyWay, (t) => !inverted.has(t));
  const pulled = pullVertices(triangles, rest, start, pins.vertices, goal, context);
  if (!pulled) throw new CannotMeetPinsError([...Array.from(pins.vertices)]);
  const uv = pulled.map((x) => x / scale);
  const fixed = new Uint8Array(uv.length / 2);
  for (let i = 0; i < pins.vertices.length; i++) {
    const v = pins.vertices[i];
    uv[2 * v] = pins.uv[2 * i];
    uv[2 * v + 1] = pins.uv[2 * i + 1];
    fixed[v] = 1;
  }
  return relax(shell, uv, { ...REPAIR, fixed }, context).uv;
}

/** The map moved, and with two pins or more turned and scaled, so that its pinned vertices lie near their places. */
export function nearPins(uv: Float64Array, { vertices, uv: places }: Pins): Float64Array {
  const from = new Float64Array(2 * vertices.length);
  for (let i = 0; i < vertices.length; i++) {
    from[2 * i] = uv[2 * vertices[i]];
    from[2 * i + 1] = uv[2 * vertices[i] + 1];
  }
  const to = Float64Array.from(places);
  const scale = vertices.length > 1 ? spread(to) / spread(from) : 1;
  return transformUv(uv, bestTurn(from, to, scale > 0 && Number.isFinite(scale) ? scale : 1));
}

/** Root mean square distance of points from their middle. */
function spread(points: Float64Array): number {
  const n = points.length / 2;
  let [u, v, square] = [0, 0, 0];
  for (let i = 0; i < points.length; i += 2) {
    u += points[i] / n;
    v += points[i + 1] / n;
  }
  for (let i = 0; i < points.length; i += 2) square += (points[i] - u) ** 2 + (points[i + 1] - v) ** 2;
  return Math.sqrt(square / n);
}

/** Places of stays, and the pins that lie on none of them. */
export function mergePins(stays: Pins, pins: Pins | undefined): Pins {
  const vertices = Array.from(stays.vertices);
  const uv = Array.from(stays.uv);
  const taken = new Set(vertices);
  for (let i = 0; pins && i < pins.vertices.length; i++) {
    if (taken.has(pins.vertices[i])) continue;
    vertices.push(pins.vertices[i]);
    uv.push(pins.uv[2 * i], pins.uv[2 * i + 1]);
  }
  return { vertices, uv };
}
