import { type HemDocument, plainDocument, topologyOf } from '../document/document.ts';
import type { Jobs } from '../jobs/index.ts';
import type { Mesh } from '../mesh/mesh.ts';
import { about, choice, otherwise } from '../params.ts';
import type { Context } from '../progress.ts';
import { edgeVisibility, USUAL_VIEW, VIEWS, type View } from '../surface/visibility.ts';
import { wholeTree } from './trees.ts';

/** How much is seen of a model. */
export interface Visibility {
  /** 0 to 1, per vertex and per edge. */
  readonly vertices: Float32Array;
  readonly edges: Float32Array;
}

/** From where a model is looked at, as a parameter. */
export const lookedAt = about(
  'from where the model is going to be looked at',
  otherwise(choice(...VIEWS), USUAL_VIEW),
);

const known = new WeakMap<Mesh, Map<string, Promise<Visibility>>>();

/**
 * Worked out once for each way a model is looked at.
 *
 * @throws StoppedError
 */
export function visibilityOf(
  document: HemDocument,
  view: View,
  context: Context & { readonly jobs: Jobs },
): Promise<Visibility> {
  const { mesh, connectivity } = topologyOf(document.model);
  let byView = known.get(mesh);
  if (!byView) {
    byView = new Map();
    known.set(mesh, byView);
  }
  const key = `${view}, ${document.upAxis}, ${document.front}`;
  let found = byView.get(key);
  if (!found) {
    const work = async (): Promise<Visibility> => {
      const { tree } = await wholeTree(document, context.jobs);
      const task = { document: plainDocument(document), tree, view };
      const vertices = await context.jobs.run('visibility', task, context);
      return { vertices, edges: edgeVisibility(connectivity, vertices) };
    };
    found = work();
    const own = byView;
    found.catch(() => own.delete(key));
    byView.set(key, found);
  }
  return found;
}
