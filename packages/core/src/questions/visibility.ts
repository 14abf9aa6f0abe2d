import { lookedAt, visibilityOf } from '../derived/visibility.ts';
import { changesModel } from '../document/delta.ts';
import { topologyOf } from '../document/document.ts';
import { record } from '../params.ts';
import { question } from './question.ts';

/** How much is seen of every vertex, 0 hidden to 1 seen best of all; and the same for every corner of every triangle. */
export const visibility = question({
  name: 'visibility',
  params: record({ view: lookedAt }),
  background: true,
  lapses: (patch) => changesModel(patch) || patch.changes.some(({ kind }) => kind === 'value'),
  async answer(
    document,
    { view },
    context,
  ): Promise<{ readonly vertices: Float32Array; readonly corners: Float32Array }> {
    const { vertices } = await visibilityOf(document, view, context);
    const { mesh, triangulation } = topologyOf(document.model);
    const corners = Float32Array.from(triangulation.triangleCorners, (c) => vertices[mesh.cornerVertex[c]]);
    return { vertices: vertices.slice(), corners };
  },
});
