import { disjointSets, findRoot, unite } from '../mesh/disjointSets.ts';
import { type Shell, shellFromTriangles } from '../surface/shell.ts';

/**
 * The surface of a solid as triangles without loops, like a sculpt or a scan, by naive surface nets (Gibson 1998): a vertex in every cell that
 * the surface passes, a quad for every grid edge, split along its shorter diagonal. Where the box cuts the solid, the
 * surface is open.
 *
 * @param inside  negative in the solid
 * @param low, high  corners of a box round it
 * @param cells  along the longest side of the box
 * @returns its largest piece
 */
export function surfaceNets(
  inside: (x: number, y: number, z: number) => number,
  low: readonly number[],
  high: readonly number[],
  cells: number,
): Shell {
  const size = Math.max(...high.map((h, k) => h - low[k])) / cells;
  const n = high.map((h, k) => Math.ceil((h - low[k]) / size) + 1);
  const at = (i: number, j: number, k: number) => (k * n[1] + j) * n[0] + i;
  const value = new Float64Array(n[0] * n[1] * n[2]);
  for (let k = 0; k < n[2]; k++)
    for (let j = 0; j < n[1]; j++)
      for (let i = 0; i < n[0]; i++)
        value[at(i, j, k)] = inside(low[0] + i * size, low[1] + j * size, low[2] + k * size);
  const vertex = new Map<number, number>();
  const positions: number[] = [];
  for (let k = 0; k + 1 < n[2]; k++)
    for (let j = 0; j + 1 < n[1]; j++)
      for (let i = 0; i + 1 < n[0]; i++) {
        const sum = [0, 0, 0];
        let crossings = 0;
        for (let e = 0; e < 12; e++) {
          const [axis, u, v] = [e >> 2, e & 1, (e >> 1) & 1];
          const a = [0, 0, 0];
          a[(axis + 1) % 3] = u;
          a[(axis + 2) % 3] = v;
          const b = a.slice();
          b[axis] = 1;
          const fa = value[at(i + a[0], j + a[1], k + a[2])];
          const fb = value[at(i + b[0], j + b[1], k + b[2])];
          if (fa < 0 === fb < 0) continue;
          const t = fa / (fa - fb);
          a[axis] = t;
          for (let c = 0; c < 3; c++) sum[c] += a[c];
          crossings++;
        }
        if (crossings === 0) continue;
        vertex.set(at(i, j, k), positions.length / 3);
        [i, j, k].forEach((g, c) => {
          positions.push(low[c] + size * (g + sum[c] / crossings));
        });
      }
  const triangles: number[] = [];
  const far = (a: number, b: number) =>
    Math.hypot(...[0, 1, 2].map((c) => positions[3 * a + c] - positions[3 * b + c]));
  for (let k = 1; k + 1 < n[2]; k++)
    for (let j = 1; j + 1 < n[1]; j++)
      for (let i = 1; i + 1 < n[0]; i++)
        for (let axis = 0; axis < 3; axis++) {
          const step = [0, 0, 0];
          step[axis] = 1;
          const here = value[at(i, j, k)] < 0;
          if (here === value[at(i + step[0], j + step[1], k + step[2])] < 0) continue;
          const [u, v] = [(axis + 1) % 3, (axis + 2) % 3];
          const quad = [
            [0, 0],
            [1, 0],
            [1, 1],
            [0, 1],
          ].map(([a, b]) => {
            const cell = [i, j, k];
            cell[u] -= a;
            cell[v] -= b;
            return vertex.get(at(cell[0], cell[1], cell[2])) as number;
          });
          if (!here) quad.reverse();
          const [a, b, c, d] = quad;
          const both = far(a, c) < far(b, d) ? [a, b, c, a, c, d] : [a, b, d, b, c, d];
          triangles.push(...both);
        }
  return largestPiece(positions, triangles);
}

function largestPiece(positions: readonly number[], triangles: readonly number[]): Shell {
  const sets = disjointSets(positions.length / 3);
  triangles.forEach((v, i) => {
    if (i % 3 > 0) unite(sets, v, triangles[i - 1]);
  });
  const root = (v: number) => findRoot(sets, v);
  const count = new Map<number, number>();
  for (const v of triangles) count.set(root(v), (count.get(root(v)) ?? 0) + 1);
  const largest = [...count].sort((a, b) => b[1] - a[1])[0][0];
  const number = new Map<number, number>();
  const kept = triangles.filter((v) => root(v) === largest);
  const own = kept.map((v) => {
    if (!number.has(v)) number.set(v, number.size);
    return number.get(v) as number;
  });
  return shellFromTriangles(
    [...number.keys()].flatMap((v) => positions.slice(3 * v, 3 * v + 3)),
    own,
  );
}
