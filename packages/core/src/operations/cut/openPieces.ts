import { plainDocument } from '../../document/document.ts';
import { record, whichShells } from '../../params.ts';
import { exposuresOf } from '../../questions/exposures.ts';
import { operation, plural } from '../operation.ts';
import { chosenShells, shellsLabel } from '../shellChoice.ts';
import { reflatten } from './reflatten.ts';
import { changeSeams } from './seamChange.ts';

/** Pieces that cannot lie flat as they are get the cuts that open them, where they hide; the others are left alone. */
export const openPieces = operation({
  name: 'open-pieces',
  stage: 'cut',
  params: record({ shells: whichShells }),
  label: ({ shells }, document) => `Cut open ${shellsLabel(document, shells)}`,
  doing: 'Cutting pieces open',
  follow: reflatten,
  async run(document, { shells: which }, context) {
    const shells = chosenShells(document, which);
    const exposure = (await exposuresOf(document, 'all round', context)).edges;
    const { edges, smallHandles } = await context.jobs.run(
      'open-pieces',
      { document: plainDocument(document), shells, exposure },
      context,
    );
    const patch = changeSeams(document, edges, 1);
    if (smallHandles === 0) return patch;
    const told = `${plural(smallHandles, 'small tunnel')} opened by a ring each: see Health.`;
    return { ...patch, notes: [...patch.notes, told] };
  },
});
