import { boxOf } from '../surface/uvBox.ts';
import type { FlatMesh } from './outline.ts';

/** Distance to the border of a flat shape at the nodes of a grid: positive outside, negative inside. */
export interface DistanceField {
  /** Nodes across and up. */
  readonly columns: number;
  readonly rows: number;
  /** Where the first node lies. */
  readonly left: number;
  readonly low: number;
  /** Between nodes. */
  readonly cell: number;
  /** Row by row, `columns × rows`. */
  readonly distance: Float32Array;
}

/**
 * Signed distance field of a flat shape: what a triangle covers is inside. Each node takes the nearest segment that its neighbours know (vector distance
 * transform by sweeps, Danielsson 1980), which is exact but for rare nodes that are off by a small part of a cell.
 *
 * @param segments  of the border, `4 × count`
 * @param cell  distance between nodes
 * @param margin  round about the shape
 */
export function distanceField(
  { triangles, uv }: FlatMesh,
  segments: Float64Array,
  cell: number,
  margin: number,
): DistanceField {
  const [minU, minV, maxU, maxV] = boxOf(uv);
  const [left, low] = [minU - margin, minV - margin];
  const columns = Math.ceil((maxU + margin - left) / cell) + 2;
  const rows = Math.ceil((maxV + margin - low) / cell) + 2;
  const nearest = new Int32Array(columns * rows).fill(-1);
  const square = new Float64Array(columns * rows).fill(Infinity);

  const offer = (c: number, r: number, s: number): void => {
    const node = r * columns + c;
    if (nearest[node] === s) return;
    const d = squareToSegment(segments, s, left + c * cell, low + r * cell);
    if (d < square[node]) {
      square[node] = d;
      nearest[node] = s;
    }
  };
  // Nodes of the cells that a segment runs through.
  for (let s = 0; s < segments.length; s += 4) {
    const length = Math.hypot(segments[s + 2] - segments[s], segments[s + 3] - segments[s + 1]);
    const steps = Math.max(1, Math.ceil((2 * length) / cell));
    for (let k = 0; k <= steps; k++) {
      const c = Math.floor((segments[s] + (k / steps) * (segments[s + 2] - segments[s]) - left) / cell);
      const r = Math.floor(
        (segments[s + 1] + (k / steps) * (segments[s + 3] - segments[s + 1]) - low) / cell,
      );
      offer(c, r, s);
      offer(c + 1, r, s);
      offer(c, r + 1, s);
      offer(c + 1, r + 1, s);
    }
  }
  const from = (c: number, r: number, c2: number, r2: number): void => {
    if (c2 < 0 || c2 >= columns || r2 < 0 || r2 >= rows) return;
    const s = nearest[r2 * columns + c2];
    if (s >= 0) offer(c, r, s);
  };
  for (let r = 0; r < rows; r++) {
    for (let c = 0; c < columns; c++) {
      from(c, r, c - 1, r);
      from(c, r, c - 1, r - 1);
      from(c, r, c, r - 1);
      from(c, r, c + 1, r - 1);
    }
    for (let c = columns - 1; c >= 0; c--) from(c, r, c + 1, r);
  }
  for (let r = rows - 1; r >= 0; r--) {
    for (let c = columns - 1; c >= 0; c--) {
      from(c, r, c + 1, r);
      from(c, r, c + 1, r + 1);
      from(c, r, c, r + 1);
      from(c, r, c - 1, r + 1);
    }
    for (let c = 0; c < columns; c++) from(c, r, c - 1, r);
  }

  const distance = new Float32Array(columns * rows);
  for (let i = 0; i < distance.length; i++) distance[i] = Math.sqrt(square[i]);
  const inside = new Uint8Array(columns * rows);
  coverNodes(triangles, uv, { left, low, cell, columns, rows }, inside);
  for (let i = 0; i < distance.length; i++) if (inside[i]) distance[i] = -distance[i];
  return { columns, rows, left, low, cell, distance };
}

/** Marks nodes that triangles cover. */
function coverNodes(
  triangles: Uint32Array,
  uv: Float64Array,
  { left, low, cell, columns, rows }: Omit<DistanceField, 'distance'>,
  inside: Uint8Array,
): void {
  for (let t = 0; t < triangles.length; t += 3) {
    const [a, b, c] = [2 * triangles[t], 2 * triangles[t + 1], 2 * triangles[t + 2]];
    const first = Math.max(0, Math.ceil((Math.min(uv[a + 1], uv[b + 1], uv[c + 1]) - low) / cell));
    const last = Math.min(rows - 1, Math.floor((Math.max(uv[a + 1], uv[b + 1], uv[c + 1]) - low) / cell));
    for (let r = first; r <= last; r++) {
      const v = low + r * cell;
      let [least, most] = [Infinity, -Infinity];
      for (let k = 0; k < 3; k++) {
        const p = k === 0 ? a : k === 1 ? b : c;
        const q = k === 0 ? b : k === 1 ? c : a;
        if (v < Math.min(uv[p + 1], uv[q + 1]) || v > Math.max(uv[p + 1], uv[q + 1])) continue;
        const rise = uv[q + 1] - uv[p + 1];
        const u = rise === 0 ? uv[p] : uv[p] + ((v - uv[p + 1]) / rise) * (uv[q] - uv[p]);
        least = Math.min(least, u);
        most = Math.max(most, u);
      }
      const from = Math.max(0, Math.ceil((least - left) / cell));
      const to = Math.min(columns - 1, Math.floor((most - left) / cell));
      for (let column = from; column <= to; column++) inside[r * columns + column] = 1;
    }
  }
}

function squareToSegment(s: Float64Array, o: number, u: number, v: number): number {
  const du = s[o + 2] - s[o];
  const dv = s[o + 3] - s[o + 1];
  const along = ((u - s[o]) * du + (v - s[o + 1]) * dv) / (du * du + dv * dv || 1);
  const t = Math.max(0, Math.min(1, along));
  const x = u - s[o] - t * du;
  const y = v - s[o + 1] - t * dv;
  return x * x + y * y;
}
