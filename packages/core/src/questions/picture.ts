import { type HemDocument, plainDocument, topologyOf } from '../document/document.ts';
import { about, list, optional, record, whole } from '../params.ts';
import { question } from './question.ts';

/** A small picture of the model, RGBA; with edges or faces, of where they are. */
export const picture = question({
  name: 'picture',
  params: record({
    width: about('of the picture', whole(1, 4096), 'pixels'),
    height: about('of the picture', whole(1, 4096), 'pixels'),
    faces: about('faces that are marked, by number', optional(list(whole()))),
    edges: about('edges that are marked, by number', optional(list(whole()))),
  }),
  several: true,
  background: true,
  answer(document, { width, height, faces, edges }, context) {
    const marked = faces || edges ? markedFaces(document, faces ?? [], edges ?? []) : undefined;
    return context.jobs.run('picture', { document: plainDocument(document), width, height, marked }, context);
  },
});

/** Faces, and those at edges. */
function markedFaces({ model, hidden }: HemDocument, faces: readonly number[], edges: readonly number[]) {
  const { edgeCorners, edgeCornerStart, cornerFace } = topologyOf(model).connectivity;
  const marked = new Uint8Array(hidden.length);
  for (const f of faces) marked[f] = 1;
  for (const e of edges)
    for (let i = edgeCornerStart[e]; i < edgeCornerStart[e + 1]; i++) marked[cornerFace[edgeCorners[i]]] = 1;
  return marked;
}
