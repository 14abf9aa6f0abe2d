import { applyDelta, type Change, type Delta, markChange } from '../../document/delta.ts';
import { type HemDocument, shellOf, shellsOf, shellUv, topologyOf } from '../../document/document.ts';
import { turnedAlongGrain } from '../../document/grain.ts';
import { GRAIN, grainFrom } from '../../document/grainMark.ts';
import type { Connectivity } from '../../mesh/connectivity.ts';
import { facesOfShell, shellsAtEdges } from '../../surface/shells.ts';
import { onBoard } from './boardLayout.ts';

/**
 * The material runs along some edges from now on, and shells at them that lie flat are turned so.
 *
 * @param anew  shells of which other grain lines go
 * @param from  the vertex at which each of the edges begins; what points up on the model decides where there are none
 */
export function withGrain(
  document: HemDocument,
  edges: readonly number[],
  anew: readonly number[],
  from: readonly number[] = [],
): Delta {
  const { mesh, connectivity } = topologyOf(document.model);
  const shells = shellsOf(document);
  const changes: Change[] = [];
  let now = document;
  const mark = (at: readonly number[], value: number): void => {
    const change = markChange(now, 'grain', at, value);
    if (change.index.length === 0) return;
    changes.push(change);
    now = applyDelta(now, { changes: [change], notes: [] });
  };
  const kept = new Set(edges);
  const gone = new Set<number>();
  for (const s of anew)
    for (const f of facesOfShell(shells, s))
      for (let c = mesh.faceStart[f]; c < mesh.faceStart[f + 1]; c++)
        if (!kept.has(connectivity.cornerEdge[c])) gone.add(connectivity.cornerEdge[c]);
  mark([...gone], 0);
  if (from.length === 0) mark(edges, GRAIN.up);
  else
    for (const value of [GRAIN.onward, GRAIN.back])
      mark(
        edges.filter((e, i) => markFrom(connectivity, e, from[i]) === value),
        value,
      );
  if (changes.length === 0)
    return { changes, notes: ['Nothing was changed: the grain runs along these edges already.'] };
  const { change, notes } = onBoard(now, turnedAt(now, edges));
  return { changes: [...changes, change], notes };
}

const markFrom = ({ edgeVertices }: Connectivity, edge: number, from: number): number =>
  grainFrom(from, edgeVertices[2 * edge] + edgeVertices[2 * edge + 1] - from);

/** UVs of the shells at some edges, turned as the grain asks. */
export function turnedAt(document: HemDocument, edges: readonly number[]): Map<number, Float64Array> {
  const uvOf = new Map<number, Float64Array>();
  for (const s of shellsAtEdges(topologyOf(document.model).connectivity, shellsOf(document), edges)) {
    const shell = shellOf(document, s);
    const uv = shellUv(document, shell);
    if (uv) uvOf.set(s, turnedAlongGrain(document, s, shell, uv));
  }
  return uvOf;
}
