import { topologyOf } from '../document/document.ts';
import { record, whole } from '../params.ts';
import { edgeLoop as loopOf } from '../select/edgeLoop.ts';
import { question } from './question.ts';

/** The loop an edge belongs to. */
export const edgeLoop = question({
  name: 'edge-loop',
  params: record({ edge: whole() }),
  several: true,
  answer(document, { edge }) {
    const { mesh, links } = topologyOf(document.model);
    return edge < links.joined.length ? loopOf(mesh, links, edge) : [];
  },
});
