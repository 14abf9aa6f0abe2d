import { analyse, factorise, solve } from '../src/linear/cholesky.ts';
import { factoriseHermitian, multiplyHermitian } from '../src/linear/hermitianTriangles.ts';
import { hasFusedKernel } from '../src/linear/kernel.ts';
import { gatherPattern, multiply } from '../src/linear/sparse.ts';
import { solveTriangles, triangleSystem } from '../src/linear/triangleSystem.ts';
import { restTriangles } from '../src/surface/restTriangles.ts';
import { sphericalCap } from '../src/testing/shapes.ts';
import { conformalMatrices } from '../src/unfold/lscm.ts';

/** Run by a test in an engine with relaxed SIMD: prints whether it was used and the backward error of one solve. */
const side = 60;
const size = side * side;
const from = Uint32Array.from({ length: size - side }, (_, i) => i);
const { pattern, slot } = gatherPattern(
  size,
  Uint32Array.from([...from, ...from]),
  Uint32Array.from([...from.map((i) => i + 1), ...from.map((i) => i + side)]),
);
const values = new Float64Array(pattern.row.length);
for (let j = 0; j < size; j++) values[pattern.columnStart[j]] = 4.01;
for (const k of slot) values[k] = -1;
const b = Float64Array.from({ length: size }, (_, i) => Math.cos(i));
const x = solve(factorise(analyse(pattern), values), b);
const residual = multiply(pattern, values, x).map((y, i) => Math.abs(y - b[i]));
const scale = 8 * Math.max(...x.map(Math.abs)) + 1;

/** The same with complex numbers: conformal matrices of a cap, and a little on the diagonal. */
const { triangles, positions } = sphericalCap(30, 90, 2);
const entries = conformalMatrices(restTriangles(positions, triangles));
const vertices = positions.length / 3;
const system = triangleSystem(triangles, vertices, new Uint8Array(vertices), { complex: true });
const diagonal = new Float64Array(vertices).fill(0.1);
const sides = Float64Array.from({ length: 2 * vertices }, (_, i) => Math.sin(i));
const y = solveTriangles(system, factoriseHermitian(system, entries, { diagonal }), sides);
const left = multiplyHermitian(triangles, entries, y).map((v, i) => Math.abs(v + 0.1 * y[i] - sides[i]));

process.stdout.write(
  JSON.stringify({
    fused: hasFusedKernel(),
    error: Math.max(...residual) / scale,
    complexError: Math.max(...left) / (8 * Math.max(...y.map(Math.abs)) + 1),
  }),
);
