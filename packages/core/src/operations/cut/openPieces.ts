import { proposedEdges } from '../../derived/proposedEdges.ts';
import { visibilityOf } from '../../derived/visibility.ts';
import { applyDelta } from '../../document/delta.ts';
import { type HemDocument, plainDocument, shellOf, shellsOf } from '../../document/document.ts';
import { chosenShells, shellsLabel } from '../../document/shellChoice.ts';
import { about, flag, otherwise, record, whichShells } from '../../params.ts';
import { plural } from '../../plural.ts';
import { HIDDEN, PRESETS } from '../../propose/presets.ts';
import { facesOfShell } from '../../surface/shells.ts';
import { shellTopology } from '../../surface/shellTopology.ts';
import { USUAL_VIEW } from '../../surface/visibility.ts';
import { type OperationContext, operation } from '../operation.ts';
import { reflattenWith } from './reflatten.ts';
import { changeSeams } from './seamChange.ts';

/** Pieces that cannot lie flat as they are get the seams that a rough proposal has for them, hidden and symmetric; the others are left alone. */
export const openPieces = operation({
  name: 'open-pieces',
  stage: 'cut',
  params: record({
    shells: whichShells,
    least: about(
      'whether to do only what opens them, without a look at how they would stretch',
      otherwise(flag(), false),
    ),
  }),
  label: ({ shells }, document) => `Cut open ${shellsLabel(document, shells)}`,
  doing: 'Cutting pieces open',
  followUps: reflattenWith(() => true),
  async run(document, { shells: which, least }, context) {
    const chosen = chosenShells(document, which);
    const isStuck = (on: HemDocument, s: number) => !shellTopology(shellOf(on, s)).canUnfold;
    const closed = chosen.filter((s) => isStuck(document, s));
    const visibility = (await visibilityOf(document, USUAL_VIEW, context)).edges;
    const proposed = least || closed.length === 0 ? [] : await roughEdges(document, closed, context);
    const after = applyDelta(document, changeSeams(document, proposed, 1));
    // What is not manifold, or was stopped half-way, and what has two borders is opened by as little as will do.
    const isOpened = new Set(least ? [] : closed);
    const { faceShell } = shellsOf(after);
    const shells = chosen.flatMap((s) => {
      const pieces = [...new Set(Array.from(facesOfShell(shellsOf(document), s), (f) => faceShell[f]))];
      return isOpened.has(s) ? pieces.filter((piece) => isStuck(after, piece)) : pieces;
    });
    const { edges, smallHandles } = await context.jobs.run(
      'open-pieces',
      { document: plainDocument(after), shells, visibility },
      context,
    );
    const patch = changeSeams(document, [...proposed, ...edges], 1);
    if (smallHandles === 0) return patch;
    const told = `${plural(smallHandles, 'small tunnel')} opened by a ring each: see Health.`;
    return { ...patch, notes: [...patch.notes, told] };
  },
});

/** The seams of a rough proposal for some shells. */
async function roughEdges(
  document: HemDocument,
  shells: readonly number[],
  context: OperationContext,
): Promise<readonly number[]> {
  const options = { ...PRESETS.rough, hidden: HIDDEN };
  const wanted = { view: USUAL_VIEW, symmetric: 'auto', options } as const;
  return (await proposedEdges(document, shells, wanted, context)).proposed;
}
