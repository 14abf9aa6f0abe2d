/** Halves a step until the energy falls by a fair part of what the slope promises (Armijo 1966). */
export function lineSearch<T extends { readonly value: number }>(
  first: number,
  slope: number,
  current: number,
  attempt: (length: number) => T,
): T | undefined {
  for (let length = first, tries = 0; tries < 40; tries++, length *= 0.5) {
    const found = attempt(length);
    if (found.value <= current + 1e-4 * length * slope && found.value < current) return found;
  }
  return undefined;
}
