import { type HemDocument, shellOf, shellsOf, topologyOf } from '../../document/document.ts';
import { meshOfShells } from '../../document/meshOfShells.ts';
import { chosenShells, shellsLabel } from '../../document/shellChoice.ts';
import { HemError } from '../../errors.ts';
import { type Connectivity, connectivityOf } from '../../mesh/connectivity.ts';
import { record, whichShells } from '../../params.ts';
import { plural } from '../../plural.ts';
import { heedStop } from '../../progress.ts';
import { edgeLength, shortestPath } from '../../select/shortestPath.ts';
import { lengthwise } from '../../surface/lengthwise.ts';
import { operation } from '../operation.ts';
import { withGrain } from './withGrain.ts';

/** The material of shells runs the way they are long: along limbs, pipes and planks. */
export const grainAlongShells = operation({
  name: 'grain-along-shells',
  stage: 'arrange',
  params: record({ shells: whichShells }),
  label: ({ shells }, document) => `Grain along ${shellsLabel(document, shells)}`,
  doing: 'Looking which way shells are long',
  run(document, { shells }, { signal, report }) {
    const chosen = chosenShells(document, shells);
    const wayIn = waysIn(document);
    const edges: number[] = [];
    const along: number[] = [];
    chosen.forEach((s, i) => {
      heedStop(signal);
      const way = wayIn(s);
      if (way.length > 0) along.push(s);
      edges.push(...way);
      report({ fraction: (i + 1) / chosen.length });
    });
    const left = chosen.length - along.length;
    if (along.length === 0)
      throw new HemError('no-length', `${describeLeft(left)} Choose edges along which it is to run.`);
    const { changes, notes } = withGrain(document, edges, along);
    return { changes, notes: [...(left > 0 ? [describeLeft(left)] : []), ...notes] };
  },
});

const describeLeft = (shells: number): string =>
  `${plural(shells, 'shell')} ${shells === 1 ? 'is about as wide as it is' : 'are about as wide as they are'} long: no grain was set there.`;

/** Finds edges of a shell that lead from one of its ends to the other. */
function waysIn(document: HemDocument): (shell: number) => number[] {
  const { connectivity } = topologyOf(document.model);
  const { cornerVertex } = document.model.mesh;
  const { cornerWedge } = shellsOf(document);
  const mesh = meshOfShells(document);
  const open = connectivityOf(mesh);
  return (s) => {
    const { positions, triangles, vertexCorner } = shellOf(document, s);
    const ends = lengthwise(
      positions,
      triangles,
      firstOfEach(vertexCorner, (c) => cornerVertex[c]),
      (v) => leadsInside(open, cornerWedge[vertexCorner[v]]),
    );
    if (!ends) return [];
    const [from, to] = ends.map((v) => cornerWedge[vertexCorner[v]]);
    const cost = (e: number): number =>
      edgeLength(mesh, open, e) * (open.isInterior[e] ? 1 : atBorder(document, open, e));
    return shortestPath(open, from, to, cost)
      .edgesTo(to)
      .map((e) => connectivity.cornerEdge[open.edgeCorners[open.edgeCornerStart[e]]]);
  };
}

/** Whether an edge at a vertex of a mesh lies between two of its faces. */
const leadsInside = ({ vertexEdgeStart, vertexEdges, isInterior }: Connectivity, vertex: number): boolean =>
  vertexEdges.subarray(vertexEdgeStart[vertex], vertexEdgeStart[vertex + 1]).some((e) => isInterior[e] === 1);

/** Borders are gone along where nothing inside leads there; an edge where another shell begins would be of both. */
const [BORDER, OTHER_SHELL] = [20, Infinity];

function atBorder(document: HemDocument, open: Connectivity, edge: number): number {
  const { connectivity } = topologyOf(document.model);
  const { edgeCorners, edgeCornerStart, cornerFace, cornerEdge } = connectivity;
  const e = cornerEdge[open.edgeCorners[open.edgeCornerStart[edge]]];
  const { faceShell } = shellsOf(document);
  const shells = new Set(
    Array.from(
      edgeCorners.subarray(edgeCornerStart[e], edgeCornerStart[e + 1]),
      (c) => faceShell[cornerFace[c]],
    ),
  );
  return shells.size === 1 ? BORDER : OTHER_SHELL;
}

/** For each item, the first that has the same key. */
function firstOfEach(items: Uint32Array, keyOf: (item: number) => number): Uint32Array {
  const first = new Map<number, number>();
  return items.map((item, i) => {
    const key = keyOf(item);
    const known = first.get(key);
    if (known === undefined) first.set(key, i);
    return known ?? i;
  });
}
