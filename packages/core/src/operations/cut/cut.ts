import { topologyOf } from '../../document/document.ts';
import { indices, record } from '../../params.ts';
import { operation, plural } from '../operation.ts';
import { reflatten } from './reflatten.ts';
import { changeSeams, knownEdges } from './seamChange.ts';

/** Selected edges become seams. Edges where the mesh ends anyway are left out. */
export const cut = operation({
  name: 'cut',
  stage: 'cut',
  params: record({ edges: indices }),
  label: ({ edges }) => `Cut ${plural(edges.length, 'edge')}`,
  doing: 'Cutting',
  follow: reflatten,
  run(document, { edges }) {
    const { joined } = topologyOf(document.model).links;
    return changeSeams(
      document,
      knownEdges(document, edges).filter((e) => joined[e]),
      1,
    );
  },
});
