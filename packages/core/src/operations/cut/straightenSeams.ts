import { visibilityOf } from '../../derived/visibility.ts';
import { applyDelta, type Delta } from '../../document/delta.ts';
import { type HemDocument, topologyOf } from '../../document/document.ts';
import type { Jobs } from '../../jobs/index.ts';
import { faceNormals } from '../../mesh/normals.ts';
import { about, indices, record } from '../../params.ts';
import { plural } from '../../plural.ts';
import type { Context } from '../../progress.ts';
import { HIDDEN } from '../../propose/presets.ts';
import { edgeCosts } from '../../seams/edgeCosts.ts';
import { type StraightenedSeam, straightenSeam } from '../../seams/straightenSeam.ts';
import { USUAL_VIEW } from '../../surface/visibility.ts';
import { operation } from '../operation.ts';
import { reflatten } from './reflatten.ts';
import { changeSeams, knownEdges } from './seamChange.ts';

/** Runs of seams are moved to the straightest way near them that hides as well, between the same ends and forks. */
export const straightenSeams = operation({
  name: 'straighten-seams',
  stage: 'cut',
  /** Of each run that is meant, one edge at least. */
  params: record({ edges: about('seams that are made straight, by number', indices) }),
  label: ({ edges }) => `Straighten the seam of ${plural(edges.length, 'edge')}`,
  doing: 'Straightening a seam',
  followUps: reflatten,
  async run(document, { edges }, context): Promise<Delta> {
    const found = await straightened(document, edges, context);
    if (found.cut.length === 0)
      return {
        changes: [],
        notes: ['Nothing was changed: this seam is as straight as its edges let it be.'],
      };
    const sewing = changeSeams(document, found.sewn, 0);
    const cutting = changeSeams(applyDelta(document, sewing), found.cut, 1);
    return { changes: [...sewing.changes, ...cutting.changes], notes: [gainOf(found)] };
  },
});

/** Where seams would run. */
export async function straightened(
  document: HemDocument,
  edges: readonly number[],
  context: Context & { readonly jobs: Jobs },
): Promise<StraightenedSeam> {
  const { mesh, connectivity } = topologyOf(document.model);
  const visibility = (await visibilityOf(document, USUAL_VIEW, context)).edges;
  const costs = edgeCosts(mesh, connectivity, faceNormals(mesh), { hidden: HIDDEN, visibility });
  return straightenSeam(
    { mesh, connectivity, seams: document.seams },
    knownEdges(document, edges),
    (e) => costs[e],
  );
}

/** “Turns 31 % less; 2 % shorter.” */
export function gainOf({ before, after }: StraightenedSeam): string {
  const percent = (part: number) => Math.round(100 * Math.abs(part - 1));
  const longer = after.length / (before.length || 1);
  return `Turns ${percent(after.turning / (before.turning || 1))} % less, ${percent(longer)} % ${longer > 1 ? 'longer' : 'shorter'}.`;
}
