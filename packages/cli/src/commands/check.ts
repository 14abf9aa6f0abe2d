import { basename } from 'node:path';
import { openDocument, topologyOf } from '@blunt-hem/core/document/document';
import { emptyHistory } from '@blunt-hem/core/document/history';
import type { Check } from '@blunt-hem/core/health/check';
import { checkOf } from '@blunt-hem/core/health/examine';
import { localJobs } from '@blunt-hem/core/jobs/index';
import { memoryPersistence } from '@blunt-hem/core/session/persistence';
import { openSession } from '@blunt-hem/core/session/session';
import { opened } from '../files.ts';

/** What the health check finds, with where: faces and vertices by number, edges by their two vertices. */
export async function run(input: string, { tolerance }: { tolerance: number }): Promise<object> {
  const document = openDocument(await opened(input));
  const { edgeVertices } = topologyOf(document.model).connectivity;
  const session = openSession({
    document,
    history: emptyHistory,
    persistence: memoryPersistence(),
    jobs: localJobs,
  });
  const found = await session.ask('examination', { tolerance });
  return {
    file: basename(input),
    figures: found?.figures,
    findings: found?.findings.map((finding) => {
      const { kind, severity, effect, repair } = checkOf(finding.kind) as Check;
      return {
        kind,
        severity,
        count: finding.count,
        effect,
        repair: repair ? { does: repair.label, safe: repair.safe } : null,
        faces: [...finding.faces],
        edges: Array.from(finding.edges, (e) => [...edgeVertices.subarray(2 * e, 2 * e + 2)]),
        vertices: [...finding.vertices],
      };
    }),
  };
}
