/** “1 edge”, “1,204 edges”: a count with what is counted. */
export const plural = (count: number, one: string, many = `${one}s`): string =>
  `${count.toLocaleString('en-GB')} ${count === 1 ? one : many}`;
