import { analyse, factorise, solve } from '../src/linear/cholesky.ts';
import { hasFusedKernel } from '../src/linear/kernel.ts';
import { gatherPattern, multiply } from '../src/linear/sparse.ts';

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
process.stdout.write(JSON.stringify({ fused: hasFusedKernel(), error: Math.max(...residual) / scale }));
