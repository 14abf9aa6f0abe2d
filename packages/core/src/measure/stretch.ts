import { triangleAreas } from '../surface/areas.ts';
import type { Shell } from '../surface/shell.ts';
import { singularValues } from './singularValues.ts';

/** Stretch of one shell. All figures are scale-free: shrinking the shell changes none of them. */
export interface ShellStretch {
  /** L² stretch (Sander et al. 2001): 1 is ideal. */
  readonly l2: number;
  /** L∞ stretch (Sander et al. 2001): the greatest stretch anywhere, 1 is ideal. */
  readonly linf: number;
  /** Area-weighted mean of Tissot's maximum angular deformation ω, degrees: 0 is ideal (Snyder 1987, p. 20). */
  readonly angleMean: number;
  /** Geometric mean by which area is too large or too small, at least 1. */
  readonly areaMean: number;
  /** Faces upside down in the flat. */
  readonly flipped: number;
  /** Faces with area on the model and none in the flat. */
  readonly collapsed: number;
  /** Area on the model and in the flat, units squared. */
  readonly area: number;
  readonly uvArea: number;
  /** Per triangle: natural logarithm of its share of the flat area over its share of the surface. */
  readonly logArea: Float32Array;
  /** Per triangle: ω, degrees, 0 to 180. */
  readonly angle: Float32Array;
}

/** A flat triangle smaller than this part of its due area counts as collapsed. */
export const COLLAPSED = 1e-9;
/** One with less than this part of the surface of its shell has nothing to stretch. */
export const NO_SURFACE = 1e-14;

/**
 * @param uv  `2 × vertexCount`, any scale
 */
export function measureStretch(shell: Shell, uv: Float64Array): ShellStretch {
  const { positions, triangles, triangleFace } = shell;
  const sv = singularValues(positions, triangles, uv);
  const count = triangles.length / 3;
  const area3 = triangleAreas(positions, triangles);
  let area = 0;
  let uvArea = 0;
  for (let t = 0; t < count; t++) {
    area += area3[t];
    uvArea += Math.abs(sv[3 * t + 2]);
  }
  const scale = Math.sqrt(uvArea / area);

  const logArea = new Float32Array(count);
  const angle = new Float32Array(count);
  const flippedFaces = new Set<number>();
  const collapsedFaces = new Set<number>();
  let squares = 0;
  let linf = 0;
  let angles = 0;
  let logs = 0;
  for (let t = 0; t < count; t++) {
    const due = area3[t] * scale * scale;
    const flat = sv[3 * t + 2];
    if (area3[t] <= NO_SURFACE * area) continue;
    if (Math.abs(flat) <= COLLAPSED * due) {
      collapsedFaces.add(triangleFace[t]);
      linf = squares = Infinity;
      angle[t] = 180;
      logArea[t] = Math.log(COLLAPSED);
    } else {
      const most = sv[3 * t] * scale;
      const least = sv[3 * t + 1] * scale;
      squares += 0.5 * (most * most + least * least) * area3[t];
      linf = Math.max(linf, most);
      angle[t] = (360 / Math.PI) * Math.asin(Math.min(1, (most - least) / (most + least)));
      logArea[t] = Math.log(Math.abs(flat) / due);
      if (flat < 0) flippedFaces.add(triangleFace[t]);
    }
    angles += angle[t] * area3[t];
    logs += Math.abs(logArea[t]) * area3[t];
  }
  return {
    l2: Math.sqrt(squares / area),
    linf,
    angleMean: angles / area,
    areaMean: Math.exp(logs / area),
    flipped: flippedFaces.size,
    collapsed: collapsedFaces.size,
    area,
    uvArea,
    logArea,
    angle,
  };
}
