import { runsIn } from '../../document/constraints.ts';
import { current, type HemDocument, shellOf, shellsOf, topologyOf } from '../../document/document.ts';
import { HemError } from '../../errors.ts';
import { about, choice, indices, otherwise, record } from '../../params.ts';
import { plural } from '../../plural.ts';
import type { Run } from '../../select/orderedRun.ts';
import { shellsAtEdges } from '../../surface/shells.ts';
import { knownEdges } from '../cut/seamChange.ts';
import { operation } from '../operation.ts';
import { inside, movedPoints, type PointMove } from './movedPoints.ts';

/** Lays runs of edges straight on the Board: along the line through their ends, level or upright, at true lengths or in even steps. */
export const straightenRow = operation({
  name: 'straighten-row',
  stage: 'arrange',
  params: record({
    edges: about('edges of one or several rows, by number', indices),
    along: about(
      'the line: from end to end, or level or upright through the middle of the row, as long as it is from end to end',
      otherwise(choice('ends', 'level', 'upright'), 'ends'),
    ),
    steps: about(
      'how points are told along it: as the lengths on the model are to one another, or evenly',
      otherwise(choice('lengths', 'even'), 'lengths'),
    ),
    inside,
  }),
  label: ({ edges, along }) =>
    `Straighten ${plural(edges.length, 'edge')}${along === 'ends' ? '' : `, ${along}`}`,
  doing: 'Straightening',
  run(document, { edges, along, steps, inside: how }, context) {
    const { connectivity } = topologyOf(document.model);
    const marks = new Uint8Array(document.seams.length);
    for (const e of knownEdges(document, edges)) marks[e] = 1;
    const moves = shellsAtEdges(connectivity, shellsOf(document), edges).flatMap((s) =>
      runsIn(document, s, marks).flatMap((run) => straightened(document, s, run, along, steps)),
    );
    if (moves.length === 0)
      throw new HemError(
        'no-row',
        'There is no row to straighten: it takes edges one after the other that lie flat and do not close.',
        edges,
      );
    return movedPoints(document, moves, how, context);
  },
});

function straightened(
  document: HemDocument,
  s: number,
  { vertices, closed }: Run,
  along: 'ends' | 'level' | 'upright',
  steps: 'lengths' | 'even',
): PointMove[] {
  if (closed || vertices.length < 2) return [];
  const { positions, vertexCorner } = shellOf(document, s);
  const { uv } = current(document);
  const { mesh } = document.model;
  const { cornerFace } = topologyOf(document.model).connectivity;
  const at = (v: number): readonly [number, number] => [uv[2 * vertexCorner[v]], uv[2 * vertexCorner[v] + 1]];
  const [first, last] = [at(vertices[0]), at(vertices[vertices.length - 1])];
  if (Number.isNaN(first[0] + last[0])) return [];
  const parts = [0];
  for (let i = 1; i < vertices.length; i++) {
    const [a, b] = [3 * vertices[i - 1], 3 * vertices[i]];
    const length = Math.hypot(...[0, 1, 2].map((k) => positions[b + k] - positions[a + k]));
    parts.push(parts[i - 1] + (steps === 'even' ? 1 : length));
  }
  const all = parts[parts.length - 1] || 1;
  const [from, to] = endsOf(first, last, along);
  return vertices.map((v, i) => {
    const t = parts[i] / all;
    const corner = vertexCorner[v];
    return {
      vertex: mesh.cornerVertex[corner],
      face: cornerFace[corner],
      // Both ends to the last bit.
      uv: t === 0 ? from : t === 1 ? to : [from[0] + t * (to[0] - from[0]), from[1] + t * (to[1] - from[1])],
    };
  });
}

type Point = readonly [number, number];

function endsOf(first: Point, last: Point, along: 'ends' | 'level' | 'upright'): readonly [Point, Point] {
  if (along === 'ends') return [first, last];
  const [u, v] = [(first[0] + last[0]) / 2, (first[1] + last[1]) / 2];
  const k = along === 'level' ? 0 : 1;
  const half = (Math.hypot(last[0] - first[0], last[1] - first[1]) / 2) * (last[k] < first[k] ? -1 : 1);
  return along === 'level'
    ? [
        [u - half, v],
        [u + half, v],
      ]
    : [
        [u, v - half],
        [u, v + half],
      ];
}
