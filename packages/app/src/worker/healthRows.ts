import { topologyOf } from '@blunt-hem/core/document/document';
import { describeCount, type Finding } from '@blunt-hem/core/health/check';
import { checkOf } from '@blunt-hem/core/health/examine';
import type { Examination } from '@blunt-hem/core/jobs/examineModel';
import type { Connectivity } from '@blunt-hem/core/mesh/connectivity';
import type { Model } from '@blunt-hem/core/mesh/model';
import type { FindingRow, HealthReport } from './protocol.ts';

/** An examination in words, with edges to show where faces do not. */
export function healthReport({ findings, figures }: Examination, model: Model): HealthReport {
  const { connectivity } = topologyOf(model);
  const rows = findings.map((finding) => rowOf(finding.kind, finding, connectivity));
  const gravity = (row: FindingRow) => (row.severity === 'spoils' ? 0 : 1);
  // The gravest first; among these as their repairs make sense.
  return { findings: rows.sort((a, b) => gravity(a) - gravity(b)), figures };
}

function rowOf(kind: string, finding: Finding, connectivity: Connectivity): FindingRow {
  const check = checkOf(kind);
  if (!check) throw new Error(`There is no check “${kind}”.`);
  const { severity, effect, repair } = check;
  return {
    kind,
    severity,
    effect,
    title: describeCount(check, finding.count),
    count: finding.count,
    faces: finding.faces,
    edges: withEdgesAt(finding, connectivity),
    repair: repair && { label: repair.label, safe: repair.safe, ofFaces: repair.ofFaces === true },
  };
}

/** Points are shown by the edges that meet there. */
function withEdgesAt({ edges, vertices, faces }: Finding, connectivity: Connectivity): Uint32Array {
  if (edges.length > 0 || faces.length > 0) return edges;
  const all = new Set<number>();
  for (const v of vertices) {
    for (let i = connectivity.vertexEdgeStart[v]; i < connectivity.vertexEdgeStart[v + 1]; i++)
      all.add(connectivity.vertexEdges[i]);
  }
  return Uint32Array.from(all);
}
