import { lookedAt, visibilityOf } from '../derived/visibility.ts';
import { topologyOf } from '../document/document.ts';
import { describeFinding, type LayoutFinding } from '../inspect/inspection.ts';
import { seamsThatShow } from '../inspect/seamsThatShow.ts';
import { record } from '../params.ts';
import { edgeLength } from '../select/shortestPath.ts';
import { question } from './question.ts';

/** Seams that run where much is seen of the model; nothing where hardly any do. */
export const seamsShown = question({
  name: 'seams-shown',
  params: record({ view: lookedAt }),
  background: true,
  async answer(document, { view }, context): Promise<LayoutFinding | undefined> {
    const { mesh, connectivity } = topologyOf(document.model);
    const { edges } = await visibilityOf(document, view, context);
    const seams = [...document.seams.keys()].filter((e) => document.seams[e] && connectivity.isInterior[e]);
    const found = seamsThatShow(seams, edges, (e) => edgeLength(mesh, connectivity, e));
    return found && describeFinding(found.inspection, found);
  },
});
