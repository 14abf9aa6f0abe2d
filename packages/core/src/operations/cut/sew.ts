import { about, indices, record } from '../../params.ts';
import { plural } from '../../plural.ts';
import { operation } from '../operation.ts';
import { reflatten } from './reflatten.ts';
import { changeSeams, knownEdges } from './seamChange.ts';

/** Selected seams are no seams any more; shells on either side become one. */
export const sew = operation({
  name: 'sew',
  stage: 'cut',
  params: record({ edges: about('seams that are joined, by number', indices) }),
  label: ({ edges }) => `Sew ${plural(edges.length, 'edge')}`,
  doing: 'Sewing',
  followUps: reflatten,
  run: (document, { edges }) => changeSeams(document, knownEdges(document, edges), 0),
});
