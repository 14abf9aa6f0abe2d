import { topologyOf } from '../document/document.ts';
import { about, flag, otherwise, record, whole } from '../params.ts';
import { heedStop } from '../progress.ts';
import { edgeLoop as loopOf } from '../select/edgeLoop.ts';
import { ringAround } from '../select/ringAround.ts';
import { straightOn } from '../select/straightOn.ts';
import { question } from './question.ts';

export interface EdgeLoop {
  readonly edges: readonly number[];
  readonly what: 'loop' | 'seam' | 'ring' | 'run' | 'edge';
}

/**
 * The loop an edge belongs to, or its seam; and where there is none, as on triangles, the tightest ring through it round whatever it lies on;
 * where there is neither, the straightest run through it.
 */
export const edgeLoop = question({
  name: 'edge-loop',
  params: record({
    edge: about('the edge from which it runs, by number', whole()),
    rings: about('whether what is no loop will do as well: a ring, or a run', otherwise(flag(), true)),
  }),
  several: true,
  byHand: true,
  answer({ model, seams }, { edge, rings: wanted }, { signal }): EdgeLoop {
    const { mesh, connectivity } = topologyOf(model);
    if (edge >= connectivity.isInterior.length) return { edges: [], what: 'edge' };
    const loop = loopOf(mesh, connectivity, edge, seams);
    if (loop.length > 1) return { edges: loop, what: seams[edge] ? 'seam' : 'loop' };
    if (!wanted) return { edges: loop, what: 'edge' };
    const ends = [...connectivity.edgeVertices.subarray(2 * edge, 2 * edge + 2)];
    const rings = ends.map((v) => {
      heedStop(signal);
      return ringAround(mesh, connectivity, v);
    });
    const [ring] = rings.filter((r) => r.length > 0).sort((a, b) => a.length - b.length);
    if (ring) return { edges: ring, what: 'ring' };
    const run = straightOn(mesh, connectivity, edge, seams);
    return run.length > 1 ? { edges: run, what: 'run' } : { edges: loop, what: 'edge' };
  },
});
