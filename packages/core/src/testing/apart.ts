/**
 * Greatest distance between two maps after the similarity that fits the first to the second best, relative to the size of
 * the second.
 *
 * @param a, b  `2 × vertexCount`
 */
export function apart(a: Float64Array, b: Float64Array): number {
  const n = a.length / 2;
  const mean = (m: Float64Array, k: number) => m.reduce((s, x, i) => ((i & 1) === k ? s + x / n : s), 0);
  const [au, av, bu, bv] = [mean(a, 0), mean(a, 1), mean(b, 0), mean(b, 1)];
  let [re, im, square, size] = [0, 0, 0, 0];
  for (let i = 0; i < a.length; i += 2) {
    const [x, y, p, q] = [a[i] - au, a[i + 1] - av, b[i] - bu, b[i + 1] - bv];
    re += x * p + y * q;
    im += x * q - y * p;
    square += x * x + y * y;
    size = Math.max(size, Math.hypot(p, q));
  }
  let most = 0;
  for (let i = 0; i < a.length; i += 2) {
    const [x, y] = [a[i] - au, a[i + 1] - av];
    const u = (re * x - im * y) / square - (b[i] - bu);
    const v = (im * x + re * y) / square - (b[i + 1] - bv);
    most = Math.max(most, Math.hypot(u, v));
  }
  return most / size;
}
