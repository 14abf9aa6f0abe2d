import {
  current,
  type HemDocument,
  shellOf,
  shellsOf,
  shellUv,
  topologyOf,
} from '@blunt-hem/core/document/document';
import { densityOf } from '@blunt-hem/core/document/layout';
import type { Jobs } from '@blunt-hem/core/jobs/index';
import type { Measured } from '@blunt-hem/core/jobs/measureShells';
import { unattended } from '@blunt-hem/core/progress';
import { borders } from '@blunt-hem/core/surface/borders';
import type { Shell } from '@blunt-hem/core/surface/shell';
import { shellsAtEdges } from '@blunt-hem/core/surface/shells';
import { bestTurn, transformUv } from '@blunt-hem/core/surface/similarity';
import type { Ghost } from './protocol.ts';

/** The shells at seams that an act would change, as outlines where they would lie, with their stretch; undefined when there are none. */
export async function ghostOf(from: HemDocument, to: HemDocument, jobs: Jobs): Promise<Ghost | undefined> {
  const shells = shellsOf(to);
  const grown = (densityOf(from) ?? 1) / (densityOf(to) ?? 1);
  const edges = [...to.seams.keys()].filter((e) => to.seams[e] !== from.seams[e]);
  const tasks = shellsAtEdges(topologyOf(to.model).connectivity, shells, edges).flatMap((s) => {
    const shell = shellOf(to, s);
    const uv = shellUv(to, shell);
    return uv ? [{ shell, uv: to.placed ? uv : atOldPlace(from, shell, uv, grown) }] : [];
  });
  if (tasks.length === 0) return undefined;
  const lines: number[] = [];
  for (const { shell, uv } of tasks) {
    for (const loop of borders(shell.triangles, uv.length / 2).loops) {
      loop.forEach((v, i) => {
        const w = loop[(i + 1) % loop.length];
        lines.push(uv[2 * v], uv[2 * v + 1], uv[2 * w], uv[2 * w + 1]);
      });
    }
  }
  const old = shellsAtEdges(topologyOf(from.model).connectivity, shellsOf(from), edges).map((s) =>
    shellOf(from, s),
  );
  const oldTasks = old.flatMap((shell) => {
    const uv = shellUv(from, shell);
    return uv ? [{ shell, uv }] : [];
  });
  const l2Of = (measured: readonly Measured[]): number => {
    let [area, squares] = [0, 0];
    for (const { stretch } of measured) {
      area += stretch?.area ?? 0;
      squares += (stretch?.l2 ?? 0) ** 2 * (stretch?.area ?? 0);
    }
    return Math.sqrt(squares / (area || 1));
  };
  return {
    lines: Float32Array.from(lines),
    shells: tasks.length,
    l2: l2Of(await jobs.run('measure', tasks, unattended)),
    before:
      old.length === oldTasks.length ? l2Of(await jobs.run('measure', oldTasks, unattended)) : undefined,
  };
}

/** Where a shell is now, as near as can be: where it would be laid out afresh says nothing while the others are where they are. */
function atOldPlace(
  document: HemDocument,
  { vertexCorner }: Shell,
  uv: Float64Array,
  scale: number,
): Float64Array {
  const old = current(document).uv;
  const before = Float64Array.from(uv, (_, i) => old[2 * vertexCorner[i >> 1] + (i & 1)]);
  return before.every(Number.isNaN) ? uv : transformUv(uv, bestTurn(uv, before, scale));
}
