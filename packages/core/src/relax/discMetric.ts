import { bucket } from '../mesh/connectivity.ts';
import { disjointSets, findRoot, unite } from '../mesh/disjointSets.ts';
import type { Context } from '../progress.ts';
import { distanceFrom } from '../surface/distanceFrom.ts';
import type { RestTriangles } from '../surface/restTriangles.ts';

/** Bands of equal distance from the border. */
const BANDS = 128;

/**
 * The triangles of a shell, each stretched along the lines of equal distance from its longest border, so that what lies beyond a line is never
 * rounder than the line allows: a region of a disc that has area A has a border of at least √(4 π A), and a horn or a glove, which
 * lacks it, gets it here. What has it stays as it is. With these shapes a nearly closed surface is nearly a flat disc, whose lines of equal
 * distance are circles at radii of arc length; a conformal map of it neither shrinks the far part nor twists.
 *
 * Lines are taken a band at a time, from the farthest: what lies beyond grows by each band, and joins where fingers meet (a merge
 * tree); a band's length of line is its area over its width. Holes count as discs.
 *
 * @param rest  the triangles as they are on the surface
 * @param loops  border loops, longest first
 */
export function discMetric(
  positions: Float64Array,
  triangles: Uint32Array,
  rest: RestTriangles,
  loops: readonly Uint32Array[],
  signal?: Context['signal'],
): RestTriangles {
  const distance = distanceFrom(positions, triangles, loops[0], signal);
  const stretch = stretchByBand(positions, triangles, rest, loops, distance);
  const local = new Float64Array(rest.local.length);
  const area = new Float64Array(rest.area.length);
  let totalArea = 0;
  for (let t = 0; t < area.length; t++) {
    const [x2, x3, y3] = rest.local.subarray(3 * t, 3 * t + 3);
    const d0 = distance[triangles[3 * t]];
    // Across the lines, in the plane of the triangle.
    let gx = (distance[triangles[3 * t + 1]] - d0) / x2;
    let gy = (distance[triangles[3 * t + 2]] - d0 - gx * x3) / y3;
    const length = Math.hypot(gx, gy);
    [gx, gy] = length > 0 ? [gx / length, gy / length] : [1, 0];
    const s = length > 0 ? stretch[t] : 1;
    // Sides from the first corner, their parts along the lines stretched.
    const along2 = -gy * x2 * s;
    const across2 = gx * x2;
    const along3 = (gx * y3 - gy * x3) * s;
    const across3 = gx * x3 + gy * y3;
    const base = Math.hypot(along2, across2);
    local[3 * t] = base;
    local[3 * t + 1] = (along2 * along3 + across2 * across3) / base;
    local[3 * t + 2] = (x2 * y3 * s) / base;
    area[t] = rest.area[t] * s;
    totalArea += area[t];
  }
  return { local, area, totalArea };
}

/** How much each triangle is stretched along the lines, 1 or more. */
function stretchByBand(
  positions: Float64Array,
  triangles: Uint32Array,
  rest: RestTriangles,
  loops: readonly Uint32Array[],
  distance: Float64Array,
): Float64Array {
  let farthest = 0;
  for (const d of distance) if (d < Infinity) farthest = Math.max(farthest, d);
  const width = farthest / BANDS;
  const bandAt = (d: number) => Math.min(BANDS - 1, Math.floor(d / width));
  const band = Uint32Array.from(rest.area, (_, t) =>
    bandAt(
      (distance[triangles[3 * t]] + distance[triangles[3 * t + 1]] + distance[triangles[3 * t + 2]]) / 3,
    ),
  );
  const inBand = bucket(band, BANDS);

  // Regions beyond a line, by their vertices.
  const regions = disjointSets(distance.length);
  const root = (v: number): number => findRoot(regions, v);
  /** Area beyond, as stretched, and of the band that is being added. */
  const beyond = new Float64Array(distance.length);
  const added = new Float64Array(distance.length);
  for (const loop of loops.slice(1)) {
    let length = 0;
    loop.forEach((v, i) => {
      const w = loop[(i + 1) % loop.length];
      length += Math.hypot(...[0, 1, 2].map((k) => positions[3 * v + k] - positions[3 * w + k]));
      unite(regions, v, w);
    });
    beyond[root(loop[0])] += (length * length) / (4 * Math.PI);
  }

  /** How far a region reaches; a new one begins within a band. */
  const top = distance.slice();
  const widthOf = (region: number, b: number) => (beyond[region] > 0 ? width : top[region] - b * width);

  const stretch = new Float64Array(rest.area.length).fill(1);
  for (let b = BANDS - 1; b >= 0; b--) {
    const here = inBand.items.subarray(inBand.start[b], inBand.start[b + 1]);
    for (const t of here) {
      for (const k of [1, 2]) {
        const [one, two] = [root(triangles[3 * t]), root(triangles[3 * t + k])];
        if (one === two) continue;
        unite(regions, one, two);
        const [kept, gone] = one < two ? [one, two] : [two, one];
        beyond[kept] += beyond[gone];
        added[kept] += added[gone];
        top[kept] = Math.max(top[kept], top[gone]);
      }
      added[root(triangles[3 * t])] += rest.area[t];
    }
    for (const t of here) {
      const a = root(triangles[3 * t]);
      stretch[t] = growth(beyond[a], added[a], widthOf(a, b));
    }
    for (const t of here) {
      const a = root(triangles[3 * t]);
      beyond[a] += added[a] * growth(beyond[a], added[a], widthOf(a, b));
      added[a] = 0;
    }
  }
  return stretch;
}

/** What a band must be stretched by, so that a disc of area `inner` may grow by it. */
function growth(inner: number, bandArea: number, width: number): number {
  if (!(bandArea > 0)) return 1;
  const due = Math.PI * width * (2 * Math.sqrt(inner / Math.PI) + width);
  return Math.max(1, due / bandArea);
}
