import { cpus } from 'node:os';
import { openDocument } from '@blunt-hem/core/document/document';
import { readObj } from '@blunt-hem/core/formats/readObj';
import { writeObj } from '@blunt-hem/core/formats/writeObj';
import { measureStretch } from '@blunt-hem/core/measure/stretch';
import { modelFromMesh } from '@blunt-hem/core/mesh/model';
import { unattended } from '@blunt-hem/core/progress';
import { relax } from '@blunt-hem/core/relax/relax';
import { sheet, sphericalCap } from '@blunt-hem/core/testing/shapes';
import { unfoldShell } from '@blunt-hem/core/unfold/unfold';
import { OBJLoader } from 'three/addons/loaders/OBJLoader.js';

/**
 * How cost grows with size, in one run on one machine. Every row is a ratio: to the smallest size, with the
 * exponent p of time ∼ triangles^p since the size before, or to another library on the same input.
 * `npm run bench -- --large` adds 500 000 triangles.
 */
const large = process.argv.includes('--large');

interface Case {
  readonly triangles: number;
  readonly rings: number;
  readonly sectors: number;
}

const CASES: Case[] = [[16, 64], [50, 200], [112, 448], ...(large ? [[250, 1000]] : [])].map(
  ([rings, sectors]) => ({ rings, sectors, triangles: sectors * (2 * rings - 1) }),
);

/** Median of an odd number of runs, seconds. */
function time(runs: number, work: () => void): number {
  const seconds = Array.from({ length: runs }, () => {
    const start = performance.now();
    work();
    return (performance.now() - start) / 1000;
  });
  return seconds.sort((a, b) => a - b)[runs >> 1];
}

type Row = { work: string; triangles: number; seconds: number; ratio: string; note: string };
const rows: Row[] = [];

function grow(
  work: string,
  cases: readonly Case[],
  measure: (c: Case) => { seconds: number; note: string },
): void {
  let before: { triangles: number; seconds: number } | undefined;
  let first: number | undefined;
  for (const c of cases) {
    const { seconds, note } = measure(c);
    first ??= seconds;
    const power = before
      ? Math.log(seconds / before.seconds) / Math.log(c.triangles / before.triangles)
      : undefined;
    const ratio = `${(seconds / first).toFixed(1)} ×${power === undefined ? '' : `, p = ${power.toFixed(2)}`}`;
    rows.push({ work, triangles: c.triangles, seconds, ratio, note });
    before = { triangles: c.triangles, seconds };
  }
}

sphericalCap(16, 64, 2); // warm
unfoldShell(sphericalCap(16, 64, 2), 'conformal', unattended);

grow('conformal', CASES, ({ rings, sectors }) => {
  const cap = sphericalCap(rings, sectors, 2);
  let flipped = 0;
  const seconds = time(rings < 100 ? 3 : 1, () => {
    flipped = measureStretch(cap, unfoldShell(cap, 'conformal', unattended).uv).flipped;
  });
  return { seconds, note: `${flipped} flipped` };
});

grow('relax, converged', CASES.slice(0, 2), ({ rings, sectors }) => {
  const cap = sphericalCap(rings, sectors, 2);
  const start = unfoldShell(cap, 'conformal', unattended).uv;
  let note = '';
  const seconds = time(1, () => {
    const result = relax(cap, start, {}, unattended);
    note = `${result.steps} steps, energy ${result.energyBefore.toFixed(3)} → ${result.energyAfter.toFixed(3)}`;
  });
  return { seconds, note };
});

for (const { triangles } of CASES) {
  const side = Math.round(Math.sqrt(triangles / 2));
  const mesh = sheet(side, side, (i, j) => [j / side, i / side, Math.sin((9 * i) / side) * 0.1]);
  const model = modelFromMesh('sheet', mesh);
  const bytes = writeObj(model, new Float64Array(2 * mesh.cornerVertex.length).fill(NaN));
  const text = new TextDecoder().decode(bytes);
  const ours = time(3, () => readObj(bytes, 'sheet.obj'));
  const theirs = time(3, () => new OBJLoader().parse(text));
  rows.push({
    work: 'read OBJ',
    triangles,
    seconds: ours,
    ratio: `${(ours / theirs).toFixed(2)} × three’s OBJLoader`,
    note: `${(bytes.length / 1e6).toFixed(1)} MB`,
  });
  const opened = time(1, () => openDocument(model));
  rows.push({
    work: 'open (edges, triangles)',
    triangles,
    seconds: opened,
    ratio: `${(opened / ours).toFixed(2)} × reading`,
    note: '',
  });
}

const { model } = cpus()[0];
process.stdout.write(`${new Date().toISOString().slice(0, 10)}, ${model}, Node ${process.versions.node}\n\n`);
process.stdout.write('| work | triangles | ratio | seconds here | |\n|---|---|---|---|---|\n');
for (const { work, triangles, seconds, ratio, note } of rows) {
  process.stdout.write(
    `| ${work} | ${triangles.toLocaleString('en-GB')} | ${ratio} | ${seconds.toFixed(3)} | ${note} |\n`,
  );
}
