import Joi from 'joi';
import { shellOf, shellsOf } from '../document/document.ts';
import { markChange, type Patch, uvChange } from '../document/patch.ts';
import { facesOfShell } from '../seams/shells.ts';
import { verdictOf } from '../seams/verdict.ts';
import { CannotUnfoldError, METHODS, type Method } from '../unfold/unfold.ts';
import { type Operation, plural } from './operation.ts';
import { type WhichShells, whichShells } from './schemas.ts';
import { chosenShells, shellsLabel } from './shellChoice.ts';
import { type FlatMap, layOut } from './shellLayout.ts';

export interface UnfoldParams {
  readonly shells: WhichShells;
  readonly method: Method;
}

/**
 * Lays shells flat. A shell that had UVs comes out where it was, as it was turned, at the texture scale it had;
 * the first shells of a model are packed into the tile; later new ones find room beside the rest.
 */
export const unfold: Operation<UnfoldParams> = {
  name: 'unfold',
  schema: Joi.object({
    shells: whichShells,
    method: Joi.string()
      .valid(...METHODS)
      .default('conformal'),
  }),
  label: ({ shells, method }) => `Unfold ${shellsLabel(shells)}, ${method}`,
  async run(document, { shells: which, method }, context): Promise<Patch> {
    const chosen = chosenShells(document, which).map((s) => {
      const shell = shellOf(document, s);
      return { s, shell, verdict: verdictOf(shell) };
    });
    const willing = chosen.filter(({ verdict }) => verdict.canUnfold);
    const refused = chosen.filter(({ verdict }) => !verdict.canUnfold);
    if (refused.length > 0 && (Array.isArray(which) || willing.length === 0)) {
      throw new CannotUnfoldError(
        refused[0].verdict,
        refused.map(({ s }) => s),
      );
    }
    const solved = new Map<number, FlatMap>();
    let repaired = 0;
    for (const [i, { s, shell }] of willing.entries()) {
      context.onShell?.(s);
      context.report({ fraction: i / willing.length });
      const result = await context.solvers.unfold(shell, method, context);
      if (result.repaired) repaired++;
      solved.set(s, { shell, uv: result.uv });
    }
    const uvOf = layOut(document, solved, context);
    const faces = [...uvOf.keys()].flatMap((s) => [...facesOfShell(shellsOf(document), s)]);
    const notes: string[] = [];
    if (repaired > 0) {
      notes.push(`${plural(repaired, 'shell')} had flipped faces and took a longer way round them.`);
    }
    if (refused.length > 0) {
      notes.push(`${plural(refused.length, 'piece')} left as they are: ${refused[0].verdict.sentence}`);
    }
    const marks = (['stale', 'relaxed'] as const).map((field) => markChange(document, field, faces, 0));
    return { changes: [uvChange(document, uvOf), ...marks], notes };
  },
};
