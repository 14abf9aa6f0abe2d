import type { Context } from '@blunt-hem/core/progress';
import { unattended } from '@blunt-hem/core/progress';
import { relax } from '@blunt-hem/core/relax/relax';
import { unfoldShell } from '@blunt-hem/core/unfold/unfold';
import { cap } from './shapes.ts';
import { count, type Table } from './table.ts';

/**
 * How long a solver goes without asking whether it should stop: Stop is answered no later than that. Long silences
 * are told with the time they began, part of the whole.
 */
export function stopping(large: boolean): Table {
  const shell = cap(large ? 500_000 : 100_000);
  const start = unfoldShell(shell, 'conformal', unattended).uv;
  const works: [string, (context: Context) => void][] = [
    ['conformal', (context) => unfoldShell(shell, 'conformal', context)],
    ['angle-based', (context) => unfoldShell(shell, 'angle-based', context)],
    ['relax, two steps', (context) => relax(shell, start, { steps: 2 }, context)],
  ];
  return {
    title: 'Longest time without asking for Stop',
    columns: ['work', 'triangles', 'ms', 'after', 'whole, s'],
    rows: works.map(([name, work]) => {
      const begun = performance.now();
      let [last, silence, at] = [begun, 0, 0];
      const heard = () => {
        const now = performance.now();
        if (now - last > silence) [silence, at] = [now - last, last - begun];
        last = now;
        return false;
      };
      const signal = {
        get aborted() {
          return heard();
        },
      };
      work({ signal, report() {} });
      heard();
      const whole = performance.now() - begun;
      return [
        name,
        count(shell.triangles.length / 3),
        silence.toFixed(0),
        `${((100 * at) / whole).toFixed(0)} %`,
        (whole / 1000).toFixed(1),
      ];
    }),
  };
}
