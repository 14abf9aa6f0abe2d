import { measureStretch } from '@blunt-hem/core/measure/stretch';
import { unattended } from '@blunt-hem/core/progress';
import { unfoldShell } from '@blunt-hem/core/unfold/unfold';
import { cap } from './shapes.ts';
import { time } from './table.ts';

/** One shell of a million triangles: prints seconds, flips and the most memory the process had. */
const shell = cap(1_000_000);
let uv: Float64Array = new Float64Array();
const seconds = time(1, () => {
  uv = unfoldShell(shell, 'conformal', unattended).uv;
});
const { flipped, collapsed } = measureStretch(shell, uv);
const told = {
  triangles: shell.triangles.length / 3,
  seconds,
  flips: flipped + collapsed,
  gigabytes: process.resourceUsage().maxRSS / 1e6,
};
process.stdout.write(JSON.stringify(told));
