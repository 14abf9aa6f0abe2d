import { topologyOf } from '../../document/document.ts';
import { about, flag, indices, otherwise, record } from '../../params.ts';
import { plural } from '../../plural.ts';
import { operation } from '../operation.ts';
import { reflattenWith } from './reflatten.ts';
import { changeSeams, knownEdges } from './seamChange.ts';

/** Selected edges become seams. Edges where the mesh ends anyway are left out. */
export const cut = operation({
  name: 'cut',
  stage: 'cut',
  params: record({
    edges: about('edges that become seams, by number', indices),
    relax: about(
      'whether all shells that it touches are relaxed afterwards, and not only those that were',
      otherwise(flag(), false),
    ),
  }),
  label: ({ edges }) => `Cut ${plural(edges.length, 'edge')}`,
  doing: 'Cutting',
  followUps: reflattenWith(({ relax }: { readonly relax: boolean }) => relax),
  run(document, { edges }) {
    const { isInterior } = topologyOf(document.model).connectivity;
    return changeSeams(
      document,
      knownEdges(document, edges).filter((e) => isInterior[e]),
      1,
    );
  },
});
