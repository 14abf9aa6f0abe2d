// What real and complex factors share.

export const F64: usize = 8;

/** What is known of supernode s: 8 words each. */
@inline export function word(table: usize, s: i32, k: i32): i32 {
  return load<i32>(table + ((<usize>s * 8 + <usize>k) << 2));
}
// Words: 0 padded pivots, 1 update rows, 2 panel place (in f64), 3 first entry of its lists, 4 children, 5 first column,
// 6 true pivots, 7 unused.

/** c − a b, in one rounding where the engine can. */
@inline export function minusProduct(c: v128, a: v128, b: v128): v128 {
  if (ASC_FEATURE_RELAXED_SIMD) return f64x2.relaxed_nmadd(a, b, c);
  return f64x2.sub(c, f64x2.mul(a, b));
}

/** c + a b, in one rounding where the engine can. */
@inline export function plusProduct(c: v128, a: v128, b: v128): v128 {
  if (ASC_FEATURE_RELAXED_SIMD) return f64x2.relaxed_madd(a, b, c);
  return f64x2.add(c, f64x2.mul(a, b));
}

/** The pivots' part of x, of numbers of so many bytes, at the head of the work; zeros where pivots are padding. */
export function loadPivots(s: i32, table: usize, x: usize, work: usize, bytes: usize): void {
  const pivots = <usize>word(table, s, 0) * bytes;
  const own = <usize>word(table, s, 6) * bytes;
  memory.copy(work, x + <usize>word(table, s, 5) * bytes, own);
  memory.fill(work + own, 0, pivots - own);
}

export function storePivots(s: i32, table: usize, x: usize, work: usize, bytes: usize): void {
  memory.copy(x + <usize>word(table, s, 5) * bytes, work, <usize>word(table, s, 6) * bytes);
}
