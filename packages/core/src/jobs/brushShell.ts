import { heedStop } from '../progress.ts';
import { type Brush, brushedShell, type Dab, dab } from '../relax/brush.ts';
import type { Shell } from '../surface/shell.ts';
import type { Job } from './job.ts';

export interface BrushTask {
  readonly shell: Shell;
  readonly uv: Float64Array;
  readonly held: Uint8Array;
  readonly brush: Brush;
  /** Six numbers each: see `Dab`. */
  readonly dabs: readonly number[];
}

/** The flat after a stroke. */
export const brushShell: Job<'brush', BrushTask, Float64Array> = {
  name: 'brush',
  run({ shell, uv, held, brush, dabs }, { signal }) {
    const laid = uv.slice();
    const brushed = brushedShell(shell, uv, held);
    for (let i = 0; i < dabs.length; i += 6) {
      heedStop(signal);
      dab(brushed, laid, brush, touchAt(dabs, i));
    }
    return laid;
  },
};

export function touchAt(dabs: readonly number[], i: number): Dab {
  const [u, v, du, dv, radius, strength] = dabs.slice(i, i + 6);
  return { u, v, du, dv, radius, strength };
}
