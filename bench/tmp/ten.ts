import { packFirst } from '@blunt-hem/core/pack/fitShells';
import { packBetter } from '@blunt-hem/core/pack/packBetter';
import { unattended, within } from '@blunt-hem/core/progress';
import { FIRST_TILE, gapOf } from '@blunt-hem/core/surface/tiles';
import { shapeOf } from '@blunt-hem/core/pack/shape';
import { packClasses, thousands } from '../packClasses.ts';
const options = { frame: [0, 0, 1, 1] as const, gap: gapOf(FIRST_TILE), texel: 1 / FIRST_TILE.height };
const Q = [0, Math.PI / 2, Math.PI, 1.5 * Math.PI];
const [which, secs, turning = 'quarter'] = process.argv.slice(2);
const all: Record<string, () => any[]> = { ...packClasses, thousands };
for (const name of which.split(',')) {
  const shells = all[name]().map((s) => ({ ...s, turning: turning === 'free' ? 'free' : Q }));
  const area = shells.reduce((sum, s) => sum + shapeOf(s).area, 0);
  const t0 = performance.now();
  const first = packFirst(shells, options, unattended)!;
  const t1 = performance.now();
  const marks = [10, 60, 600].filter((t) => t <= Number(secs));
  const best: Record<string, number> = {};
  let last = first[0].scale;
  packBetter(shells, first, { ...options, seed: 1, rounds: Infinity }, { signal: within({ aborted: false }, Number(secs)), report: ({ places }: any) => {
    if (!places) return; last = Math.max(last, places[3]); const s = (performance.now() - t1) / 1000; for (const m of marks) if (s <= m) best[m] = last; } });
  console.log(name, 'first', (t1 - t0).toFixed(0), 'ms', (100 * area * first[0].scale ** 2).toFixed(1), marks.map((m) => `${m}: ${(100 * area * (best[m] ?? first[0].scale) ** 2).toFixed(1)}`).join(' '), 'rss', (process.resourceUsage().maxRSS / 1024).toFixed(0), 'MB');
}
