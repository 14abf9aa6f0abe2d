/**
 * Pairs of flat triangles whose insides overlap, found on a uniform grid. Triangles that only touch, as
 * neighbours do, are no pair.
 *
 * @param uv  UV of the three corners of each triangle, `6 × triangleCount`
 * @param limit  stop after so many pairs
 * @returns indices of the pairs, two a pair
 */
export function overlappingTriangles(uv: Float64Array, limit = Infinity): Uint32Array {
  const count = uv.length / 6;
  const box = new Float64Array(4 * count);
  let [minU, minV, maxU, maxV] = [Infinity, Infinity, -Infinity, -Infinity];
  for (let t = 0; t < count; t++) {
    const o = 6 * t;
    box[4 * t] = Math.min(uv[o], uv[o + 2], uv[o + 4]);
    box[4 * t + 1] = Math.min(uv[o + 1], uv[o + 3], uv[o + 5]);
    box[4 * t + 2] = Math.max(uv[o], uv[o + 2], uv[o + 4]);
    box[4 * t + 3] = Math.max(uv[o + 1], uv[o + 3], uv[o + 5]);
    minU = Math.min(minU, box[4 * t]);
    minV = Math.min(minV, box[4 * t + 1]);
    maxU = Math.max(maxU, box[4 * t + 2]);
    maxV = Math.max(maxV, box[4 * t + 3]);
  }
  const side = Math.max(1, Math.min(2048, Math.ceil(Math.sqrt(count))));
  const perU = side / (maxU - minU || 1);
  const perV = side / (maxV - minV || 1);
  const cell = (value: number, min: number, per: number) =>
    Math.max(0, Math.min(side - 1, Math.floor((value - min) * per)));

  const cells: number[][] = Array.from({ length: side * side }, () => []);
  const pairs: number[] = [];
  for (let t = 0; t < count; t++) {
    const fromU = cell(box[4 * t], minU, perU);
    const toU = cell(box[4 * t + 2], minU, perU);
    const fromV = cell(box[4 * t + 1], minV, perV);
    const toV = cell(box[4 * t + 3], minV, perV);
    for (let cv = fromV; cv <= toV; cv++) {
      for (let cu = fromU; cu <= toU; cu++) {
        for (const other of cells[cv * side + cu]) {
          // Only in the cell where both boxes begin together, so that a pair is met once.
          if (cu !== Math.max(fromU, cell(box[4 * other], minU, perU))) continue;
          if (cv !== Math.max(fromV, cell(box[4 * other + 1], minV, perV))) continue;
          if (insidesOverlap(uv, 6 * t, 6 * other)) {
            pairs.push(other, t);
            if (pairs.length / 2 >= limit) return Uint32Array.from(pairs);
          }
        }
        cells[cv * side + cu].push(t);
      }
    }
  }
  return Uint32Array.from(pairs);
}

/** Whether any triangle of one flat shell overlaps one of another. */
export function shellsOverlap(a: Float64Array, b: Float64Array): boolean {
  const both = new Float64Array(a.length + b.length);
  both.set(a);
  both.set(b, a.length);
  const border = a.length / 6;
  const pairs = overlappingTriangles(both);
  for (let i = 0; i < pairs.length; i += 2) if (pairs[i] < border !== pairs[i + 1] < border) return true;
  return false;
}

/** Separating axis test over the six sides, with a hair's breadth of allowance for touching. */
function insidesOverlap(uv: Float64Array, a: number, b: number): boolean {
  return !sideSeparates(uv, a, b) && !sideSeparates(uv, b, a);
}

function sideSeparates(uv: Float64Array, a: number, b: number): boolean {
  const area = (uv[a + 2] - uv[a]) * (uv[a + 5] - uv[a + 1]) - (uv[a + 3] - uv[a + 1]) * (uv[a + 4] - uv[a]);
  if (area === 0) return true;
  const winding = area > 0 ? 1 : -1;
  for (let k = 0; k < 3; k++) {
    const i = a + 2 * k;
    const j = a + 2 * ((k + 1) % 3);
    const du = (uv[j] - uv[i]) * winding;
    const dv = (uv[j + 1] - uv[i + 1]) * winding;
    const hair = -1e-6 * Math.abs(area);
    let outside = true;
    for (let m = 0; m < 6 && outside; m += 2) {
      const inside = du * (uv[b + m + 1] - uv[i + 1]) - dv * (uv[b + m] - uv[i]);
      outside = inside <= -hair;
    }
    if (outside) return true;
  }
  return false;
}
