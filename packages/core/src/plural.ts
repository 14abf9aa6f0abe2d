/** Made once: making it is what takes long. */
const format = new Intl.NumberFormat('en-GB');

/** “10,000” */
export const inDigits = (count: number): string => format.format(count);

/** “1 edge”, “1,204 edges”: a count with what is counted. */
export const plural = (count: number, one: string, many = `${one}s`): string =>
  `${inDigits(count)} ${count === 1 ? one : many}`;
