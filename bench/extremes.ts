import { openDocument } from '@blunt-hem/core/document/document';
import { readModel } from '@blunt-hem/core/formats/readModel';
import { count, growth, ratio, type Table } from './table.ts';

const lines = (n: number, line: (i: number) => string): string =>
  Array.from({ length: n }, (_, i) => line(i)).join('\n');
const round = (n: number, i: number) =>
  `${Math.cos((2 * Math.PI * i) / n)} ${Math.sin((2 * Math.PI * i) / n)} 0`;

/** Files of few bytes in which one thing has very many of another. */
const EXTREMES: Readonly<Record<string, (n: number) => string>> = {
  'one face, its three points over and over': (n) =>
    `v 0 0 0\nv 1 0 0\nv 0 1 0\nf ${Array.from({ length: n }, (_, i) => 1 + (i % 3)).join(' ')}\n`,
  'one round face of so many corners': (n) =>
    `${lines(n, (i) => `v ${round(n, i)}`)}\nf ${Array.from({ length: n }, (_, i) => i + 1).join(' ')}\n`,
  'one face like a saw': (n) =>
    `${lines(n, (i) => `v ${i >> 1} ${i & 1 ? 1 : 0.001 * i} 0`)}\nv ${n} -5 0\nv 0 -5 0\nf ${Array.from({ length: n + 2 }, (_, i) => i + 1).join(' ')}\n`,
  'a fan round one point': (n) =>
    `v 0 0 1\n${lines(n, (i) => `v ${round(n, i)}`)}\n${lines(n, (i) => `f 1 ${2 + i} ${2 + ((i + 1) % n)}`)}\n`,
  'as many objects as faces': (n) =>
    `${lines(n, (i) => `o part${i}\nv ${i} 0 0\nv ${i + 1} 0 0\nv ${i} 1 0\nf -3 -2 -1`)}\n`,
};

/** How reading and making a document grow with what a file has very many of. */
export async function extremes(large: boolean): Promise<Table> {
  const rows: string[][] = [];
  for (const [name, make] of Object.entries(EXTREMES)) {
    const timed: { size: number; seconds: number }[] = [];
    for (const size of [5_000, 50_000, ...(large ? [200_000] : [])]) {
      const bytes = new TextEncoder().encode(make(size));
      const start = performance.now();
      openDocument(await readModel(bytes, 'x.obj'));
      timed.push({ size, seconds: (performance.now() - start) / 1000 });
    }
    const last = timed[timed.length - 1];
    rows.push([
      name,
      ...timed.map(({ seconds }) => ratio(seconds, timed[0].seconds)),
      ...(large ? [] : ['–']),
      `${last.seconds.toFixed(2)} s at ${count(last.size)}`,
      growth(timed[0], last).toFixed(2),
    ]);
  }
  return {
    title: 'Files with very many of one thing',
    columns: ['file', '5 000', '50 000', '200 000', 'seconds', 'exponent'],
    rows,
  };
}
