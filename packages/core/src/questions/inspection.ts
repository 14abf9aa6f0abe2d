import { plainDocument } from '../document/document.ts';
import { type KnownOverlaps, knownOverlaps } from '../document/overlappingFaces.ts';
import type { LayoutReport } from '../jobs/inspectLayout.ts';
import type { Mesh } from '../mesh/mesh.ts';
import { record } from '../params.ts';
import { question } from './question.ts';

/** How shells lie together, and what is wrong with it. */
export const inspection = question({
  name: 'inspection',
  params: record({}),
  background: true,
  async answer(document, _, context): Promise<LayoutReport> {
    const task = { document: plainDocument(document), known: last.get(document.model.mesh) };
    const report = await context.jobs.run('inspect', task, context);
    // A copy: whoever asked may give the answer away.
    const overlaps = report.overlaps.slice();
    if (!report.atLeast) last.set(document.model.mesh, knownOverlaps(document, overlaps));
    return report;
  },
});

/** What was found last, and how the mesh lay flat then: only what has moved since is compared with the rest. */
const last = new WeakMap<Mesh, KnownOverlaps>();
