import { zipSync } from 'fflate';
import { openDocument } from '../packages/core/src/document/document.ts';
import { emptyHistory } from '../packages/core/src/document/history.ts';
import { FileError } from '../packages/core/src/errors.ts';
import { localJobs } from '../packages/core/src/jobs/index.ts';
import { modelFromMesh } from '../packages/core/src/mesh/model.ts';
import { readProject, writeProject } from '../packages/core/src/persistence/projectFile.ts';
import { memoryPersistence } from '../packages/core/src/session/persistence.ts';
import { openSession } from '../packages/core/src/session/session.ts';
import { sheet } from '../packages/core/src/testing/shapes.ts';
import type { Table } from './table.ts';

/** Mutated files for each size of model. */
const FILES = 1000;
const MEGA = 2 ** 20;

/** What project files cost to read that are damaged, and those that unpack to far more than they are: time, and memory beside the file. */
export async function damage(large: boolean): Promise<Table> {
  const rows: string[][] = [];
  for (const side of large ? [10, 32, 100, 316] : [10, 32, 100]) {
    const bytes = await worked(side);
    const files = side > 50 ? FILES / 10 : FILES;
    let [slowest, largest, refused, partly] = [0, 0, 0, 0];
    let seed = 7;
    const random = (below: number) => {
      seed = (Math.imul(seed, 1103515245) + 12345) & 0x7fffffff;
      return seed % below;
    };
    for (let i = 0; i < files; i++) {
      const copy = bytes.slice(0, i % 4 === 0 ? random(bytes.length) : undefined);
      for (let k = 0; k < 1 + (i % 6); k++) copy[random(copy.length || 1)] = random(256);
      const { time, memory, outcome } = await measured(copy);
      slowest = Math.max(slowest, time);
      largest = Math.max(largest, memory);
      if (outcome === 'refused') refused++;
      if (outcome === 'partly') partly++;
    }
    const whole = await measured(bytes);
    rows.push([
      `${2 * side * side} triangles, ${(bytes.length / 1e6).toFixed(2)} MB`,
      `${files}`,
      `${refused}`,
      `${partly}`,
      `${slowest.toFixed(0)} ms (whole: ${whole.time.toFixed(0)})`,
      `${(largest / MEGA).toFixed(1)} MB (whole: ${(whole.memory / MEGA).toFixed(1)})`,
    ]);
  }
  const bomb = zipSync({ 'project.json': new Uint8Array(2 ** 27) }, { level: 6 });
  const lying = bomb.slice();
  // Its header says it is a megabyte.
  new DataView(lying.buffer).setUint32(22, MEGA, true);
  for (const [name, file] of [
    ['128 MB of nothing', bomb],
    ['the same, said to be 1 MB', lying],
  ] as const) {
    const { time, memory, outcome } = await measured(file);
    rows.push([
      `${name}, ${(file.length / 1e6).toFixed(2)} MB`,
      '1',
      outcome === 'refused' ? '1' : '0',
      '0',
      `${time.toFixed(0)} ms`,
      `${(memory / MEGA).toFixed(1)} MB`,
    ]);
  }
  return {
    title: 'Reading damaged project files',
    columns: ['file', 'mutated', 'refused', 'in part', 'slowest', 'most memory'],
    rows,
  };
}

/** A file with some history in it. */
async function worked(side: number): Promise<Uint8Array> {
  const document = openDocument(
    modelFromMesh(
      'Sheet',
      sheet(side, side, (i, j) => [i, j, Math.sin(i / 5)]),
    ),
  );
  const session = openSession({
    document,
    history: emptyHistory,
    persistence: memoryPersistence(),
    jobs: localJobs,
  });
  await session.perform('unfold', { shells: 'all' });
  await session.perform('hide', { faces: [0, 1, 2] });
  await session.perform('delete-faces', { faces: [5] });
  await session.undo();
  return writeProject({ name: 'Sheet', ...(await session.whole()) });
}

async function measured(bytes: Uint8Array) {
  globalThis.gc?.();
  const before = process.memoryUsage();
  let most = 0;
  const look = () => {
    const { arrayBuffers, heapUsed } = process.memoryUsage();
    most = Math.max(most, arrayBuffers + heapUsed - before.arrayBuffers - before.heapUsed);
  };
  const start = performance.now();
  let outcome: 'whole' | 'partly' | 'refused';
  try {
    const { loss } = await readProject(bytes, 'x.hemproject', look);
    outcome = loss ? 'partly' : 'whole';
  } catch (error) {
    if (!(error instanceof FileError)) throw error;
    outcome = 'refused';
  }
  const time = performance.now() - start;
  look();
  return { time, memory: most, outcome };
}
