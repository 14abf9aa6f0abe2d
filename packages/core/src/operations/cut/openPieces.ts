import { plainDocument } from '../../document/document.ts';
import { record, whichShells } from '../../params.ts';
import { operation } from '../operation.ts';
import { chosenShells, shellsLabel } from '../shellChoice.ts';
import { reflatten } from './reflatten.ts';
import { changeSeams } from './seamChange.ts';

/** Pieces that cannot lie flat as they are get the cuts that open them; the others are left alone. */
export const openPieces = operation({
  name: 'open-pieces',
  stage: 'cut',
  params: record({ shells: whichShells }),
  label: ({ shells }, document) => `Cut open ${shellsLabel(document, shells)}`,
  doing: 'Cutting pieces open',
  follow: reflatten,
  async run(document, { shells: which }, context) {
    const shells = chosenShells(document, which);
    const edges = await context.jobs.run(
      'open-pieces',
      { document: plainDocument(document), shells },
      context,
    );
    return changeSeams(document, edges, 1);
  },
});
