import { topologyOf } from '../document/document.ts';
import { flag, otherwise, record, whole } from '../params.ts';
import { edgeLoop as loopOf } from '../select/edgeLoop.ts';
import { ringAround } from '../select/ringAround.ts';
import { straightOn } from '../select/straightOn.ts';
import { question } from './question.ts';

/**
 * The loop an edge belongs to, or its seam; and where there is none, as on triangles, the tightest ring through it round whatever it lies on;
 * where there is neither, the straightest run through it.
 */
export const edgeLoop = question({
  name: 'edge-loop',
  params: record({
    edge: whole(),
    /** Whether a ring is looked for, which takes longer the larger the mesh is. */
    rings: otherwise(flag(), true),
  }),
  several: true,
  answer(
    { model, seams },
    { edge, rings: wanted },
  ): { readonly edges: readonly number[]; readonly what: 'loop' | 'seam' | 'ring' | 'run' | 'edge' } {
    const { mesh, links } = topologyOf(model);
    if (edge >= links.joined.length) return { edges: [], what: 'edge' };
    const loop = loopOf(mesh, links, edge, seams);
    if (loop.length > 1) return { edges: loop, what: seams[edge] ? 'seam' : 'loop' };
    const rings = (wanted ? [0, 1] : []).map((end) =>
      ringAround(mesh, links, links.edgeVertices[2 * edge + end]),
    );
    const [ring] = rings.filter((r) => r.length > 0).sort((a, b) => a.length - b.length);
    if (ring) return { edges: ring, what: 'ring' };
    const run = wanted ? straightOn(mesh, links, edge, seams) : loop;
    return run.length > 1 ? { edges: run, what: 'run' } : { edges: loop, what: 'edge' };
  },
});
