/** A table of figures, printed as Markdown. */
export interface Table {
  readonly title: string;
  readonly columns: readonly string[];
  readonly rows: readonly (readonly string[])[];
}

export const printed = ({ title, columns, rows }: Table): string =>
  [`### ${title}`, '', columns, columns.map(() => '---'), ...rows, '']
    .map((line) => (typeof line === 'string' ? line : `| ${line.join(' | ')} |`))
    .join('\n');

/** Median of an odd number of runs, seconds. */
export function time(runs: number, work: () => void): number {
  const seconds = Array.from({ length: runs }, () => {
    const start = performance.now();
    work();
    return (performance.now() - start) / 1000;
  });
  return seconds.sort((a, b) => a - b)[runs >> 1];
}

/** The exponent p of seconds ∼ sizeᵖ between two sizes. */
export const growth = (
  small: { size: number; seconds: number },
  large: { size: number; seconds: number },
): number => Math.log(large.seconds / small.seconds) / Math.log(large.size / small.size);

export const count = (n: number): string => n.toLocaleString('en-GB');
export const seconds = (s: number): string => (s < 0.1 ? s.toFixed(4) : s.toFixed(2));
export const ratio = (ours: number, theirs: number): string => `${(ours / theirs).toFixed(2)} ×`;
