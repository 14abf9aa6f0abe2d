import { aspect, worstStretch } from './worstStretch.ts';

/** How triangles lie in one map: see `ShellStretch`. */
export interface TriangleStretch {
  readonly logArea: Float32Array;
  readonly angle: Float32Array;
}

/** Figures of one map on the triangles that are compared. */
export interface ComparedFigures {
  readonly l2: number;
  readonly linf: number;
  readonly angleMean: number;
  readonly areaMean: number;
}

export interface Comparison {
  readonly figures: readonly [ComparedFigures, ComparedFigures];
  /** Of every triangle, `worstStretch` of the first less that of the second: above 0 the second is better there. NaN where not both are known. */
  readonly difference: Float32Array;
  /** Parts of the surface on which the first is better, the second is, and neither by more than `SAME`. */
  readonly shares: readonly [first: number, second: number, same: number];
}

/** Differences of `worstStretch` below this are nothing that one sees: a hundredth of a length. */
const SAME = 0.01;

/**
 * Two maps of one surface, triangle by triangle.
 *
 * @param area  of every triangle on the surface
 * @param both  1 for triangles that lie flat in both
 */
export function compareStretch(
  area: Float32Array,
  both: Uint8Array,
  [one, other]: readonly [TriangleStretch, TriangleStretch],
): Comparison {
  const difference = new Float32Array(area.length).fill(NaN);
  const parts: [number, number, number] = [0, 0, 0];
  let whole = 0;
  for (let t = 0; t < area.length; t++) {
    if (!both[t]) continue;
    const d = worstStretch(one.logArea[t], one.angle[t]) - worstStretch(other.logArea[t], other.angle[t]);
    difference[t] = d;
    parts[d < -SAME ? 0 : d > SAME ? 1 : 2] += area[t];
    whole += area[t];
  }
  const [first, second, same] = parts.map((part) => part / (whole || 1));
  return {
    figures: [figuresOf(area, both, one), figuresOf(area, both, other)],
    difference,
    shares: [first, second, same],
  };
}

function figuresOf(
  area: Float32Array,
  both: Uint8Array,
  { logArea, angle }: TriangleStretch,
): ComparedFigures {
  let [whole, squares, linf, angles, logs] = [0, 0, 0, 0, 0];
  for (let t = 0; t < area.length; t++) {
    if (!both[t] || area[t] === 0) continue;
    // The stretch of Sander et al. is of the way back, from the flat onto the surface.
    const [size, r] = [Math.exp(-logArea[t]), aspect(angle[t])];
    whole += area[t];
    squares += 0.5 * area[t] * size * (r + 1 / r);
    linf = Math.max(linf, Math.sqrt(size * r));
    angles += area[t] * angle[t];
    logs += area[t] * Math.abs(logArea[t]);
  }
  return {
    l2: Math.sqrt(squares / (whole || 1)),
    linf,
    angleMean: angles / (whole || 1),
    areaMean: Math.exp(logs / (whole || 1)),
  };
}
