/**
 * What of a cut is to be mirrored, so that with its image it is one cut and does not cross itself: all of it where it lies on one side, else what
 * lies on the side where it has most, and what lies in the middle.
 *
 * @param sideOf  above 0, below 0, or 0 in the middle, of every edge
 */
export function ofOneSide(edges: readonly number[], sideOf: (edge: number) => number): readonly number[] {
  let balance = 0;
  for (const e of edges) balance += Math.sign(sideOf(e));
  const other = balance < 0 ? 1 : -1;
  return edges.filter((e) => Math.sign(sideOf(e)) !== other);
}
