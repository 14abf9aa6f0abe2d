import { topologyOf } from '@blunt-hem/core/document/document';
import { counted, type Finding } from '@blunt-hem/core/health/check';
import { checkOf } from '@blunt-hem/core/health/examine';
import type { Connectivity } from '@blunt-hem/core/mesh/connectivity';
import type { Model } from '@blunt-hem/core/mesh/model';
import * as Comlink from 'comlink';
import type { HealthApi } from './healthWorker.ts';
import type { FindingRow, HealthReport } from './protocol.ts';

/**
 * Has models examined in a worker of its own, one at a time: a newer examination ends the one that runs.
 *
 * @returns undefined from an examination that was ended
 */
export function healthDesk() {
  let running: { readonly end: () => void } | undefined;
  return {
    async examine(
      model: Model,
      tolerance: number,
      report: (fraction: number) => void,
    ): Promise<HealthReport | undefined> {
      running?.end();
      const worker = new Worker(new URL('./healthWorker.ts', import.meta.url), { type: 'module' });
      const ended = new Promise<undefined>((resolve) => {
        running = { end: () => resolve(undefined) };
        worker.addEventListener('error', () => resolve(undefined));
      });
      // What the file was is of no interest here, and would be copied.
      const plain: Model = { ...model, source: { format: 'none' } };
      const work = Comlink.wrap<HealthApi>(worker).examine(plain, { tolerance }, Comlink.proxy(report));
      const answer = await Promise.race([work, ended]).finally(() => worker.terminate());
      if (!answer) return undefined;
      const { links } = topologyOf(model);
      return { findings: answer.findings.map((f) => rowOf(f.kind, f, links)), figures: answer.figures };
    },
    end(): void {
      running?.end();
      running = undefined;
    },
  };
}

function rowOf(kind: string, finding: Finding, links: Connectivity): FindingRow {
  const check = checkOf(kind);
  if (!check) throw new Error(`There is no check “${kind}”.`);
  const { severity, effect, repair } = check;
  return {
    kind,
    severity,
    effect,
    title: counted(check, finding.count),
    count: finding.count,
    faces: finding.faces,
    edges: withEdgesAt(finding, links),
    repair: repair && { label: repair.label, safe: repair.safe, ofFaces: repair.ofFaces === true },
  };
}

/** Points are shown by the edges that meet there. */
function withEdgesAt({ edges, vertices, faces }: Finding, links: Connectivity): Uint32Array {
  if (edges.length > 0 || faces.length > 0) return edges;
  const all = new Set<number>();
  for (const v of vertices) {
    for (let i = links.vertexEdgeStart[v]; i < links.vertexEdgeStart[v + 1]; i++)
      all.add(links.vertexEdges[i]);
  }
  return Uint32Array.from(all);
}
