/** Boxes by the squares of a grid that they reach into. */
export interface Buckets {
  /** Puts a box into the squares that it reaches into now, out of those before. */
  put(i: number, left: number, low: number, right: number, high: number): void;
  /** Calls with each box of the squares that a region reaches into, once; true ends it. */
  visit(left: number, low: number, right: number, high: number, found: (i: number) => boolean): void;
}

/**
 * @param frame  left, low, right and high; what lies beyond it is in the squares at its edge
 * @param side  of a square
 */
export function bucketsIn(
  count: number,
  frame: readonly [left: number, low: number, right: number, high: number],
  side: number,
): Buckets {
  const columns = Math.max(1, Math.ceil((frame[2] - frame[0]) / side));
  const rows = Math.max(1, Math.ceil((frame[3] - frame[1]) / side));
  const squares: number[][] = Array.from({ length: columns * rows }, () => []);
  /** First and last column and row of each box; none before it is put. */
  const ranges = new Int32Array(4 * count).fill(-1);
  const seen = new Uint32Array(count);
  let visits = 0;
  const columnAt = (u: number): number =>
    Math.min(columns - 1, Math.max(0, Math.floor((u - frame[0]) / side)));
  const rowAt = (v: number): number => Math.min(rows - 1, Math.max(0, Math.floor((v - frame[1]) / side)));

  function put(i: number, left: number, low: number, right: number, high: number): void {
    const [c0, c1, r0, r1] = [columnAt(left), columnAt(right), rowAt(low), rowAt(high)];
    const at = 4 * i;
    if (ranges[at] === c0 && ranges[at + 1] === c1 && ranges[at + 2] === r0 && ranges[at + 3] === r1) return;
    if (ranges[at] >= 0)
      for (let r = ranges[at + 2]; r <= ranges[at + 3]; r++)
        for (let c = ranges[at]; c <= ranges[at + 1]; c++) {
          const square = squares[r * columns + c];
          square[square.indexOf(i)] = square[square.length - 1];
          square.pop();
        }
    for (let r = r0; r <= r1; r++) for (let c = c0; c <= c1; c++) squares[r * columns + c].push(i);
    ranges[at] = c0;
    ranges[at + 1] = c1;
    ranges[at + 2] = r0;
    ranges[at + 3] = r1;
  }

  function visit(
    left: number,
    low: number,
    right: number,
    high: number,
    found: (i: number) => boolean,
  ): void {
    visits++;
    const [c0, c1, r0, r1] = [columnAt(left), columnAt(right), rowAt(low), rowAt(high)];
    for (let r = r0; r <= r1; r++)
      for (let c = c0; c <= c1; c++) {
        const square = squares[r * columns + c];
        for (let k = 0; k < square.length; k++) {
          const i = square[k];
          if (seen[i] === visits) continue;
          seen[i] = visits;
          if (found(i)) return;
        }
      }
  }

  return { put, visit };
}
