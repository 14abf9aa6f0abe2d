import { plainDocument } from '../../document/document.ts';
import { record, whichShells } from '../../params.ts';
import { exposuresOf } from '../../questions/exposures.ts';
import { operation } from '../operation.ts';
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
    const edges = await context.jobs.run(
      'open-pieces',
      { document: plainDocument(document), shells, exposure },
      context,
    );
    return changeSeams(document, edges, 1);
  },
});
