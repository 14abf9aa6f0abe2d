import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { deserialize, serialize } from 'node:v8';
import { byteSize } from '@blunt-hem/core/document/delta';
import { openDocument } from '@blunt-hem/core/document/document';
import { emptyHistory } from '@blunt-hem/core/document/history';
import { readObj } from '@blunt-hem/core/formats/readObj';
import { localJobs } from '@blunt-hem/core/jobs/index';
import type { Persistence } from '@blunt-hem/core/session/persistence';
import { openSession } from '@blunt-hem/core/session/session';
import { hillsObj } from './app/models.ts';
import { count, seconds, type Table } from './table.ts';

/** What the app's persistence lets a session hold. */
const MEMORY = 256 * 2 ** 20;

/** Memory of a session after many acts that each give every vertex another place, as a relax does; the acts are kept in files. */
export async function history(): Promise<Table> {
  const folder = mkdtempSync(join(tmpdir(), 'hem-history-'));
  const file = (at: number) => join(folder, `${at}.patch`);
  let kept = 0;
  const persistence: Persistence = {
    memory: MEMORY,
    async add(acts, at) {
      for (const [i, { delta }] of acts.entries()) {
        kept += byteSize(delta.changes);
        writeFileSync(file(at + i), serialize(delta));
      }
    },
    async move() {},
    async keepTrial() {},
    async dropTrial() {},
    delta: async (at) => deserialize(readFileSync(file(at))),
  };
  const model = readObj(new TextEncoder().encode(hillsObj(100_000)), 'hills.obj');
  const session = openSession({
    document: openDocument(model),
    history: emptyHistory,
    persistence,
    jobs: localJobs,
  });
  await session.perform('unfold', {});
  const megabytes = () => {
    globalThis.gc?.();
    return process.memoryUsage().rss / 2 ** 20;
  };
  const before = megabytes();
  const rows: string[][] = [];
  for (let i = 1; i <= 400; i++) {
    await session.perform('transform-shells', { shells: [0], matrix: [1, 0, 0, 1, i % 2 ? 0.01 : -0.01, 0] });
    if (i !== 100 && i !== 400) continue;
    const start = performance.now();
    for (let k = 0; k < 10; k++) await session.undo();
    const near = (performance.now() - start) / 10_000;
    for (let k = 0; k < 10; k++) await session.redo();
    rows.push([
      count(i),
      count(Math.round(kept / 2 ** 20)),
      count(Math.round(megabytes() - before)),
      seconds(near),
    ]);
  }
  const start = performance.now();
  while (await session.undo());
  const all = (performance.now() - start) / 401_000;
  rows.push(['all taken back', '', count(Math.round(megabytes() - before)), seconds(all)]);
  rmSync(folder, { recursive: true });
  return {
    title: 'Memory of undo, 100 000 triangles, acts as large as a relax',
    columns: ['acts', 'kept, MB', 'grown since the first, MB', 'one undo, s'],
    rows,
  };
}
