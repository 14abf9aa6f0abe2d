import { triangleAreas } from '../surface/areas.ts';
import { signedArea } from '../surface/flatArea.ts';
import type { Shell } from '../surface/shell.ts';

/** Ellipses as they are drawn: lines, two ends each. */
export interface Ellipses {
  /** In the flat, what becomes of equal circles on the surface: u and v of both ends. */
  readonly board: Float32Array;
  /** On the surface, what becomes of equal circles in the flat: xyz of both ends. */
  readonly model: Float32Array;
  readonly count: number;
}

/** Lines of one ellipse. */
export const SEGMENTS = 28;
/** An ellipse is drawn no longer than this many times its circle; what is drawn out further shows as that. */
const LONGEST = 2.5;
/** Radius of a circle over the mean distance between places. */
const RADIUS = 0.36;

/** Triangles that are tried for every ellipse that is wished for. */
const TRIES = 24;

interface Affine {
  /** From the flat to the surface, along u and v: two columns of xyz. */
  readonly u: readonly [number, number, number];
  readonly v: readonly [number, number, number];
}

/**
 * Tissot's indicatrix (Snyder 1987, p. 20): small circles and the ellipses that the map makes of them, spread over the shells in the
 * order of their size and so that no two overlap in the flat. A shell's own scale does not count.
 *
 * @param count  about how many
 */
export function indicatrices(
  shells: readonly { readonly shell: Shell; readonly uv: Float64Array }[],
  count: number,
): Ellipses {
  const whole = shells.reduce((sum, { shell, uv }) => sum + Math.abs(signedArea(shell.triangles, uv)), 0);
  const spacing = Math.sqrt(whole / Math.max(1, count));
  const taken = new Map<string, { readonly u: number; readonly v: number; readonly reach: number }[]>();
  // Nothing reaches further than a cell.
  const cell = 2 * LONGEST * RADIUS * spacing;
  const isFree = (u: number, v: number, reach: number): boolean => {
    const [i, j] = [Math.floor(u / cell), Math.floor(v / cell)];
    for (let a = i - 1; a <= i + 1; a++)
      for (let b = j - 1; b <= j + 1; b++)
        for (const other of taken.get(`${a} ${b}`) ?? [])
          if (Math.hypot(other.u - u, other.v - v) < other.reach + reach) return false;
    const key = `${i} ${j}`;
    taken.set(key, [...(taken.get(key) ?? []), { u, v, reach }]);
    return true;
  };
  const board: number[] = [];
  const model: number[] = [];
  let drawn = 0;
  for (const { shell, uv } of shells) {
    const { triangles, positions } = shell;
    const area = triangleAreas(positions, triangles).reduce((sum, a) => sum + a, 0);
    const perUnit = Math.sqrt(Math.abs(signedArea(triangles, uv)) / (area || 1));
    const radius = RADIUS * spacing;
    const share = Math.abs(signedArea(triangles, uv)) / (whole || 1);
    for (const t of scattered(triangles.length / 3, TRIES * (share * count + 1))) {
      const map = affine(shell, uv, t);
      if (!map) continue;
      const [u, v] = [0, 1].map((k) => mean(t, triangles, (i) => uv[2 * i + k]));
      const inFlat = circleInFlat(map);
      const long = Math.min(inFlat.most / perUnit, LONGEST);
      // The circle in the flat needs room as well.
      if (!isFree(u, v, radius * Math.max(1, long))) continue;
      const shrink = long / (inFlat.most / perUnit);
      const onModel = radius * Math.min(1, LONGEST / (inFlat.mostBack * perUnit));
      const [x, y, z] = [0, 1, 2].map((k) => mean(t, triangles, (i) => positions[3 * i + k]));
      drawn++;
      for (let s = 0; s < SEGMENTS; s++)
        for (const end of [s, s + 1]) {
          const [cos, sin] = [
            Math.cos((2 * Math.PI * end) / SEGMENTS),
            Math.sin((2 * Math.PI * end) / SEGMENTS),
          ];
          const [du, dv] = inFlat.at(cos, sin).map((d) => (shrink * radius * d) / perUnit);
          board.push(u + du, v + dv);
          model.push(...[x, y, z].map((at, k) => at + onModel * (cos * map.u[k] + sin * map.v[k])));
        }
    }
  }
  return { board: Float32Array.from(board), model: Float32Array.from(model), count: drawn };
}

/** Triangles, none twice, in an order that goes all over the shell: by the multiples of a number near the golden section. */
function* scattered(count: number, most: number): Generator<number> {
  let step = Math.max(1, Math.floor(count * (Math.sqrt(5) - 1) * 0.5));
  while (gcd(step, count) > 1) step++;
  for (let i = 0, t = 0; i < Math.min(count, most); i++, t = (t + step) % count) yield t;
}

const gcd = (a: number, b: number): number => (b === 0 ? a : gcd(b, a % b));

const mean = (t: number, triangles: Uint32Array, of: (vertex: number) => number): number =>
  (of(triangles[3 * t]) + of(triangles[3 * t + 1]) + of(triangles[3 * t + 2])) / 3;

/** The map of one triangle from the flat to the surface; undefined where either has no area. */
function affine({ positions, triangles }: Shell, uv: Float64Array, t: number): Affine | undefined {
  const [a, b, c] = triangles.subarray(3 * t, 3 * t + 3);
  const [bu, bv] = [uv[2 * b] - uv[2 * a], uv[2 * b + 1] - uv[2 * a + 1]];
  const [cu, cv] = [uv[2 * c] - uv[2 * a], uv[2 * c + 1] - uv[2 * a + 1]];
  const twice = bu * cv - bv * cu;
  if (!(Math.abs(twice) > 0)) return undefined;
  const side = (k: number) => [
    positions[3 * b + k] - positions[3 * a + k],
    positions[3 * c + k] - positions[3 * a + k],
  ];
  const along = (k: number): [number, number] => {
    const [p, q] = side(k);
    return [(p * cv - q * bv) / twice, (q * bu - p * cu) / twice];
  };
  const columns = [along(0), along(1), along(2)];
  const pick = (k: 0 | 1): [number, number, number] => [columns[0][k], columns[1][k], columns[2][k]];
  const map = { u: pick(0), v: pick(1) };
  return Number.isFinite(map.u[0] + map.v[0]) ? map : undefined;
}

/** The unit circle of the surface in the flat: the inverse of the root of the first fundamental form. */
function circleInFlat({ u, v }: Affine): {
  /** Longest half axis, and that of the unit circle of the flat on the surface. */
  readonly most: number;
  readonly mostBack: number;
  at(cos: number, sin: number): [number, number];
} {
  const dot = (p: readonly number[], q: readonly number[]) => p[0] * q[0] + p[1] * q[1] + p[2] * q[2];
  const [e, f, g] = [dot(u, u), dot(u, v), dot(v, v)];
  // A = [[e, f], [f, g]]; its square root is (A + s I) / t with s = √det, t = √(trace + 2 s).
  const s = Math.sqrt(Math.max(e * g - f * f, 0));
  const t = Math.sqrt(e + g + 2 * s);
  const [p, q, r] = [(e + s) / t, f / t, (g + s) / t];
  const det = p * r - q * q;
  const least = Math.sqrt(Math.max(0.5 * (e + g - Math.hypot(e - g, 2 * f)), 0));
  return {
    most: 1 / (least || Number.MIN_VALUE),
    mostBack: Math.sqrt(0.5 * (e + g + Math.hypot(e - g, 2 * f))),
    at: (cos, sin) => [(r * cos - q * sin) / det, (p * sin - q * cos) / det],
  };
}
