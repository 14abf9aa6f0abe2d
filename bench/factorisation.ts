import { analyse, factorise, release } from '@blunt-hem/core/linear/cholesky';
import { hasFusedKernel } from '@blunt-hem/core/linear/kernel';
import { gatherPattern, type Pattern } from '@blunt-hem/core/linear/sparse';
import { LOWER_ENTRIES } from '@blunt-hem/core/linear/triangleSystem';
import { unattended } from '@blunt-hem/core/progress';
import { quadratic } from '@blunt-hem/core/relax/distortion';
import { restTriangles } from '@blunt-hem/core/surface/restTriangles';
import { unfoldShell } from '@blunt-hem/core/unfold/unfold';
import { hasPeer, peerCholesky } from './peer/peer.ts';
import { cap } from './shapes.ts';
import { time } from './table.ts';

/**
 * The matrix of one relax step, analysed and factorised by us and by Eigen. Run by itself, so that it can be run in an
 * engine with relaxed SIMD too; prints JSON.
 */
const results = process.argv.slice(2).map((wanted) => {
  const shell = cap(Number(wanted));
  const { triangles, positions } = shell;
  const vertexCount = positions.length / 3;
  const rest = restTriangles(positions, triangles);
  const { hessian } = quadratic(triangles, rest, unfoldShell(shell, 'conformal', unattended).uv);
  // Held at one triangle, so that no motion is left free.
  const fixed = new Uint8Array(vertexCount);
  for (const v of triangles.subarray(0, 3)) fixed[v] = 1;
  const [pattern, values] = assembled(triangles, hessian, fixed);
  let analysis = analyse(pattern);
  const analysing = time(3, () => {
    analysis = analyse(pattern);
  });
  let factor = factorise(analysis, values);
  const factorising = time(5, () => {
    factor = factorise(analysis, values, undefined, factor);
  });
  release(factor);
  const peer = hasPeer() ? peerCholesky(pattern, values) : undefined;
  return {
    triangles: triangles.length / 3,
    fused: hasFusedKernel(),
    analyse: analysing,
    factorise: factorising,
    peer,
  };
});
process.stdout.write(JSON.stringify(results));

/** The same matrix entry by entry, with ones for what is fixed. */
function assembled(
  triangles: Uint32Array,
  lower: Float64Array,
  fixed: Uint8Array,
): [pattern: Pattern, values: Float64Array] {
  const rows = new Uint32Array((LOWER_ENTRIES * triangles.length) / 3);
  const columns = new Uint32Array(rows.length);
  for (let t = 0, at = 0; t < triangles.length; t += 3) {
    for (let r = 0; r < 6; r++) {
      for (let c = 0; c <= r; c++, at++) {
        rows[at] = 2 * triangles[t + (r >> 1)] + (r & 1);
        columns[at] = 2 * triangles[t + (c >> 1)] + (c & 1);
      }
    }
  }
  const size = 2 * fixed.length;
  const { pattern, slot } = gatherPattern(size, rows, columns);
  const values = new Float64Array(pattern.row.length);
  slot.forEach((place, i) => {
    if (!fixed[rows[i] >> 1] && !fixed[columns[i] >> 1]) values[place] += lower[i];
  });
  for (let j = 0; j < size; j++) if (fixed[j >> 1]) values[pattern.columnStart[j]] = 1;
  return [pattern, values];
}
