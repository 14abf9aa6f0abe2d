import Joi from 'joi';
import { shellOf, shellsOf, shellUv } from '../document/document.ts';
import { markChange, type Patch, uvChange } from '../document/patch.ts';
import { HemError } from '../errors.ts';
import { facesOfShell } from '../seams/shells.ts';
import { type Operation, plural } from './operation.ts';
import { type WhichShells, whichShells } from './schemas.ts';
import { chosenShells, shellsLabel } from './shellChoice.ts';

export interface RelaxParams {
  readonly shells: WhichShells;
  /** Stop after so long and keep the best so far. */
  readonly seconds?: number;
  readonly steps: number;
}

/** Evens out stretch inside shells; each stays where it is and as large as it is. */
export const relax: Operation<RelaxParams> = {
  name: 'relax',
  schema: Joi.object({
    shells: whichShells,
    seconds: Joi.number().positive(),
    steps: Joi.number().integer().min(1).max(10_000).default(100),
  }),
  label: ({ shells }) => `Relax ${shellsLabel(shells)}`,
  async run(document, { shells: which, seconds, steps }, context): Promise<Patch> {
    const end = context.now() + (seconds ?? Infinity);
    const signal = {
      get aborted() {
        return context.signal.aborted || context.now() > end;
      },
    };
    const work = chosenShells(document, which).flatMap((s) => {
      const shell = shellOf(document, s);
      const uv = shellUv(document, shell);
      return uv ? [{ s, shell, uv }] : [];
    });
    if (work.length === 0) throw new HemError('nothing-unfolded', 'Nothing to relax: unfold a shell first.');
    const uvOf = new Map<number, Float64Array>();
    const notes: string[] = [];
    let stopped = 0;
    for (const [i, { s, shell, uv }] of work.entries()) {
      if (signal.aborted) {
        stopped++;
        continue;
      }
      context.onShell?.(s);
      const result = await context.solvers.relax(
        shell,
        uv,
        { steps },
        { signal, report: (p) => context.report({ ...p, fraction: (i + (p.fraction ?? 0)) / work.length }) },
      );
      if (result.energyAfter < result.energyBefore) uvOf.set(s, result.uv);
      if (!result.converged && signal.aborted) stopped++;
    }
    if (stopped > 0) notes.push(`Stopped early on ${plural(stopped, 'shell')}; the best so far is kept.`);
    const faces = [...uvOf.keys()].flatMap((s) => [...facesOfShell(shellsOf(document), s)]);
    const changes =
      uvOf.size > 0 ? [uvChange(document, uvOf), markChange(document, 'relaxed', faces, 1)] : [];
    return { changes, notes };
  },
};
