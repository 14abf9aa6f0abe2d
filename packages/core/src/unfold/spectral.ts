import { release } from '../linear/cholesky.ts';
import { factoriseHermitian } from '../linear/hermitianTriangles.ts';
import { solveTriangles, triangleSystem } from '../linear/triangleSystem.ts';
import { type Context, heedStop } from '../progress.ts';
import { placeOnCircle } from '../relax/placeOnCircle.ts';
import type { RestTriangles } from '../surface/restTriangles.ts';
import type { Shell } from '../surface/shell.ts';
import { conformalMatrices } from './lscm.ts';

const MOST_ROUNDS = 12;
/** Rounds end when the energy falls by less than this part … */
const ENOUGH = 1e-3;
/** … or, where it is too small to tell, when the border moves by less than this. */
const SMALL = 1e-9;

/**
 * Spectral conformal map of one shell (Mullen, Tong, Alliez, Desbrun 2008): of all maps whose border has a given spread
 * about its middle, the one of least conformal energy. It needs no pins, so no far end shrinks because it was chosen
 * badly, and it does not depend on how vertices are numbered.
 *
 * The smallest eigenvector of the conformal energy against the mass of the border, by inverse iteration from the border
 * laid on a circle. The shift is on the border alone, and so leaves the eigenvectors as they are.
 *
 * @param loops  the border loops, longest first
 * @returns UV of every shell vertex, `2 × vertexCount`, at no particular size
 * @throws StoppedError
 */
export function spectralConformal(
  shell: Pick<Shell, 'positions' | 'triangles'>,
  rest: RestTriangles,
  loops: readonly Uint32Array[],
  signal?: Context['signal'],
): Float64Array {
  const { triangles, positions } = shell;
  const vertexCount = positions.length / 3;
  const entries = conformalMatrices(rest);
  heedStop(signal);
  const mass = new Float64Array(vertexCount);
  let spread = 0;
  for (const loop of loops) {
    for (const v of loop) mass[v] = 1;
    spread += loop.length;
  }
  // Eigenvalues are about 1 over the border's length: a thousandth of that hardly slows the rounds.
  const shift = 1e-3 / spread;
  const diagonal = mass.map((m) => shift * m);
  const system = triangleSystem(triangles, vertexCount, new Uint8Array(vertexCount), {
    complex: true,
    signal,
  });
  const factor = factoriseHermitian(system, entries, { diagonal, signal });

  let uv: Float64Array = new Float64Array(2 * vertexCount);
  placeOnCircle(positions, loops[0], 1, uv);
  let border = normalisedBorder(uv, mass, spread);
  let last = Infinity;
  for (let round = 0; round < MOST_ROUNDS; round++) {
    uv = solveTriangles(system, factor, border, signal);
    const energy = rayleighQuotient(uv, border, mass) - shift;
    const next = normalisedBorder(uv, mass, spread);
    if (energy > SMALL ? last - energy < ENOUGH * energy : farthestMove(border, next) < SMALL) break;
    border = next;
    last = energy;
  }
  release(factor);
  return uv;
}

/** The border about its middle, at spread 1, and zero inside. */
function normalisedBorder(uv: Float64Array, mass: Float64Array, total: number): Float64Array {
  let u = 0;
  let v = 0;
  for (let i = 0; i < mass.length; i++) {
    u += (mass[i] * uv[2 * i]) / total;
    v += (mass[i] * uv[2 * i + 1]) / total;
  }
  let square = 0;
  for (let i = 0; i < mass.length; i++) {
    if (mass[i]) square += (uv[2 * i] - u) ** 2 + (uv[2 * i + 1] - v) ** 2;
  }
  const scale = 1 / Math.sqrt(square);
  const out = new Float64Array(uv.length);
  for (let i = 0; i < mass.length; i++) {
    if (!mass[i]) continue;
    out[2 * i] = (uv[2 * i] - u) * scale;
    out[2 * i + 1] = (uv[2 * i + 1] - v) * scale;
  }
  return out;
}

/** xᵀ A x / xᵀ M x where A x is known: the energy of a map, and the shift, at spread 1. */
function rayleighQuotient(x: Float64Array, ax: Float64Array, mass: Float64Array): number {
  let [above, below] = [0, 0];
  for (let i = 0; i < x.length; i++) {
    above += x[i] * ax[i];
    below += mass[i >> 1] * x[i] * x[i];
  }
  return above / below;
}

function farthestMove(a: Float64Array, b: Float64Array): number {
  let most = 0;
  for (let i = 0; i < a.length; i++) most = Math.max(most, Math.abs(a[i] - b[i]));
  return most;
}
