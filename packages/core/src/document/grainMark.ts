/**
 * Marks of an edge of a grain line: the way that points up on the model, or from its vertex of lower number to the other, or back.
 */
export const GRAIN = { up: 1, onward: 2, back: 3 } as const;

/** The mark of an edge that runs from a vertex to another. */
export const grainFrom = (from: number, to: number): number => (from < to ? GRAIN.onward : GRAIN.back);

/** What a mark says of its edge, told as if it were numbered from its other end. */
export const turnedGrain = (mark: number): number => (mark < GRAIN.onward ? mark : 5 - mark);

/** The mark of an edge from a vertex to another, for an edge that is to run like it. */
export const carriedGrain = (
  mark: number,
  [from, to]: readonly [number, number],
  [newFrom, newTo]: readonly [number, number],
): number => (from < to === newFrom < newTo ? mark : turnedGrain(mark));

/** 1 where an edge from a vertex to another is marked to run that way, -1 for the other way, 0 where the mark does not say. */
export function grainSense(mark: number, from: number, to: number): -1 | 0 | 1 {
  if (mark < GRAIN.onward) return 0;
  return mark === grainFrom(from, to) ? 1 : -1;
}
