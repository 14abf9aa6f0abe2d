/** What some work gives, or undefined where what it works on is damaged. */
export function attempt<T>(work: () => T): T | undefined {
  try {
    return work();
  } catch {
    return undefined;
  }
}
