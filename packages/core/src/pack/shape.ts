import { coveredArea } from '../surface/flatArea.ts';
import { boxOf } from '../surface/uvBox.ts';
import { type Chain, type FlatMesh, outlineOf, segmentsOf } from './outline.ts';

/** A flat shell about the middle of its box. */
export interface Shape {
  readonly mesh: FlatMesh;
  /** Middle of the box in the shell's own coordinates; all else here is told from there. */
  readonly middle: readonly [number, number];
  readonly halfWidth: number;
  readonly halfHeight: number;
  readonly area: number;
  /** Borders, their segments (two ends of each, `4 × count`) and their length. */
  readonly chains: readonly Chain[];
  readonly segments: Float64Array;
  readonly border: number;
  /** Points of the convex hull, u and v, anticlockwise. */
  readonly hull: Float64Array;
}

export function shapeOf({ triangles, uv }: FlatMesh): Shape {
  const [minU, minV, maxU, maxV] = boxOf(uv);
  const middle = [(minU + maxU) / 2, (minV + maxV) / 2] as const;
  const mesh = { triangles, uv: uv.map((x, i) => x - middle[i % 2]) };
  const chains = outlineOf(mesh);
  const segments = segmentsOf(chains);
  return {
    mesh,
    middle,
    halfWidth: (maxU - minU) / 2,
    halfHeight: (maxV - minV) / 2,
    area: coveredArea(triangles, mesh.uv),
    chains,
    segments,
    border: lengthOf(segments),
    hull: hullOf(mesh.uv),
  };
}

function lengthOf(segments: Float64Array): number {
  let sum = 0;
  for (let i = 0; i < segments.length; i += 4)
    sum += Math.hypot(segments[i + 2] - segments[i], segments[i + 3] - segments[i + 1]);
  return sum;
}

/** Convex hull (Andrew 1979). */
function hullOf(uv: Float64Array): Float64Array {
  const order = Array.from({ length: uv.length / 2 }, (_, i) => i).sort(
    (a, b) => uv[2 * a] - uv[2 * b] || uv[2 * a + 1] - uv[2 * b + 1],
  );
  const chain = (points: readonly number[]): number[] => {
    const kept: number[] = [];
    for (const p of points) {
      while (kept.length > 1 && turn(kept[kept.length - 2], kept[kept.length - 1], p) <= 0) kept.pop();
      kept.push(p);
    }
    return kept.slice(0, -1);
  };
  const turn = (a: number, b: number, c: number): number =>
    (uv[2 * b] - uv[2 * a]) * (uv[2 * c + 1] - uv[2 * a + 1]) -
    (uv[2 * b + 1] - uv[2 * a + 1]) * (uv[2 * c] - uv[2 * a]);
  const hull = [...chain(order), ...chain(order.reverse())];
  return Float64Array.from((hull.length > 0 ? hull : [0]).flatMap((p) => [uv[2 * p], uv[2 * p + 1]]));
}
