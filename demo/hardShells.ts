import { writeFileSync } from 'node:fs';
import { chromium } from 'playwright';
import { measureStretch } from '../packages/core/src/measure/stretch.ts';
import { unattended } from '../packages/core/src/progress.ts';
import { relax } from '../packages/core/src/relax/relax.ts';
import type { Shell } from '../packages/core/src/surface/shell.ts';
import { glove, head, spikyBall, tentacle } from '../packages/core/src/testing/sculpts.ts';
import { horn, tube } from '../packages/core/src/testing/shapes.ts';
import { unfoldShell } from '../packages/core/src/unfold/unfold.ts';

/** The plate of docs/: hard shells on the model, unfolded and relaxed. */

const SIZE = 300;

/** Triangles as lines, fitted into a square; those of a solid from the farthest, so that nearer ones cover them. */
function drawing(
  { triangles }: Shell,
  at: (v: number) => readonly [number, number, number],
  solid: boolean,
): string {
  const [low, high] = [
    [Infinity, Infinity],
    [-Infinity, -Infinity],
  ];
  for (const v of triangles)
    for (const k of [0, 1]) {
      low[k] = Math.min(low[k], at(v)[k]);
      high[k] = Math.max(high[k], at(v)[k]);
    }
  const scale = (SIZE - 20) / Math.max(high[0] - low[0], high[1] - low[1]);
  const place = (v: number) =>
    [0, 1]
      .map((k) => SIZE / 2 + (k ? -1 : 1) * scale * (at(v)[k] - (low[k] + high[k]) / 2))
      .map((x) => x.toFixed(1))
      .join(' ');
  const threes = Array.from({ length: triangles.length / 3 }, (_, t) => triangles.subarray(3 * t, 3 * t + 3));
  if (solid) threes.sort((a, b) => depth(a) - depth(b));
  function depth(three: Uint32Array) {
    return three.reduce((sum, v) => sum + at(v)[2], 0);
  }
  const fill = solid ? '#f4efe6' : 'none';
  return threes.map((three) => `<path d="M${Array.from(three, place).join('L')}Z" fill="${fill}"/>`).join('');
}

const flat = (uv: Float64Array) => (v: number) => [uv[2 * v], uv[2 * v + 1], 0] as const;
const rows = (
  [
    ['Horn, 60 × 12', horn(60, 12, 30)],
    ['Sleeve, open at both ends', tube(65, 16, 30)],
    ['Head, only the neck open', head(28)],
    ['Glove', glove(44)],
    ['Ball with eight spikes', spikyBall(46)],
    ['Tentacle', tentacle(40)],
  ] as const
).map(([name, shell]) => {
  const { positions } = shell;
  const model = (v: number) => {
    const [x, y, z] = positions.subarray(3 * v, 3 * v + 3);
    return [0.92 * x + 0.39 * z, y - 0.25 * (0.92 * z - 0.39 * x), 0.92 * z - 0.39 * x] as const;
  };
  const { uv } = unfoldShell(shell, 'conformal', unattended);
  const relaxed = relax(shell, uv, {}, unattended).uv;
  const told = (map: Float64Array) => {
    const { l2, angleMean } = measureStretch(shell, map);
    return `L2 ${l2.toFixed(2)}, angle ${angleMean.toFixed(0)}°`;
  };
  const cell = (title: string, body: string) =>
    `<figure><svg width="${SIZE}" height="${SIZE}" stroke="#4a4038" stroke-width="0.35" stroke-linejoin="round">${body}</svg><figcaption>${title}</figcaption></figure>`;
  return `<div>${cell(`${name}: ${shell.triangles.length / 3} triangles`, drawing(shell, model, true))}${cell(
    `unfolded: ${told(uv)}`,
    drawing(shell, flat(uv), false),
  )}${cell(`relaxed: ${told(relaxed)}`, drawing(shell, flat(relaxed), false))}</div>`;
});
const page = `<style>body{margin:8px;background:#fffdf9;font:13px sans-serif;color:#4a4038;display:grid;grid-template-columns:1fr 1fr;gap:8px}
div{display:flex}figure{margin:0}figcaption{text-align:center}</style>${rows.join('')}`;
const browser = await chromium.launch({ executablePath: '/usr/bin/chromium', args: ['--no-sandbox'] });
const tab = await browser.newPage({ viewport: { width: 6 * SIZE + 40, height: 3 * (SIZE + 30) } });
await tab.setContent(page);
writeFileSync('docs/hard-shells.jpg', await tab.screenshot({ type: 'jpeg', quality: 70 }));
await browser.close();
