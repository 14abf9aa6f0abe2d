/**
 * Random numbers that are the same for the same seed on every machine (mulberry32, from memory).
 *
 * @param seed  a whole number
 * @returns draws a number from 0 up to, not including, 1
 */
export function randomFrom(seed: number): () => number {
  let state = seed | 0;
  return () => {
    state = (state + 0x6d2b79f5) | 0;
    let mixed = Math.imul(state ^ (state >>> 15), 1 | state);
    mixed = (mixed + Math.imul(mixed ^ (mixed >>> 7), 61 | mixed)) ^ mixed;
    return ((mixed ^ (mixed >>> 14)) >>> 0) / 2 ** 32;
  };
}
