import type { UvBox } from '../surface/uvBox.ts';

/** Boxes that differ by less than this, heights of a tile, are one: shells that are stacked on purpose. */
const STACKED = 1e-6;

/** Whether two shells are stacked exactly. */
export const isStacked = (one: UvBox, other: UvBox): boolean =>
  one.every((x, i) => Math.abs(x - other[i]) < STACKED);

/** Shells that are stacked exactly with any other, by number. */
export const shellsInStacks = (boxes: readonly (UvBox | undefined)[]): number[] => stacksOf(boxes).flat();

/** Shells that are stacked exactly, two or more a stack, by number. */
export function stacksOf(
  boxes: readonly (UvBox | undefined)[],
  shells: Iterable<number> = boxes.keys(),
): number[][] {
  // What agrees closely begins at about the same place.
  const sorted = [...shells].filter((s) => boxes[s]).sort((a, b) => leftOf(a) - leftOf(b) || a - b);
  const stacks: number[][] = [];
  const taken = new Set<number>();
  sorted.forEach((s, i) => {
    if (taken.has(s)) return;
    const stack = [s];
    for (let k = i + 1; k < sorted.length && leftOf(sorted[k]) - leftOf(s) < STACKED; k++) {
      const t = sorted[k];
      if (taken.has(t) || !isStacked(boxes[s] as UvBox, boxes[t] as UvBox)) continue;
      stack.push(t);
      taken.add(t);
    }
    if (stack.length > 1) stacks.push(stack.sort((a, b) => a - b));
  });
  return stacks;

  function leftOf(s: number): number {
    return (boxes[s] as UvBox)[0];
  }
}
