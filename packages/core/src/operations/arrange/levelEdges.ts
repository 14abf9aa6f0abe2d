import { current, type HemDocument, shellsOf, topologyOf } from '../../document/document.ts';
import { nameOfShell } from '../../document/shellChoice.ts';
import { HemError } from '../../errors.ts';
import { about, choice, indices, record } from '../../params.ts';
import { plural } from '../../plural.ts';
import { knownEdges } from '../cut/seamChange.ts';
import { operation } from '../operation.ts';
import { middleOf, placedShells, placeShells, turnAbout } from './placeShells.ts';

/** Turns shells about their middles by the least angle at which chosen edges of theirs lie level, or upright; of several edges their best line. */
export const levelEdges = operation({
  name: 'level-edges',
  stage: 'arrange',
  params: record({
    edges: about('edges of the shells that are turned, by number', indices),
    to: about('how the edges are to lie', choice('level', 'upright')),
  }),
  label: ({ edges, to }) => `Lay ${plural(edges.length, 'edge')} ${to}`,
  doing: 'Turning',
  run(document, { edges, to }) {
    knownEdges(document, edges);
    const directions = directionsOf(document, edges);
    const faces = [...directions.keys()].map((s) => nameOfShell(document, s));
    if (faces.length === 0)
      throw new HemError(
        'not-unfolded',
        'These edges lie nowhere on the Board: unfold their shells first.',
        edges,
      );
    const placed = placedShells(document, faces);
    return placeShells(document, placed, ({ s, box }) => {
      const wanted = to === 'level' ? 0 : Math.PI / 2;
      const turn = wanted - (directions.get(s) ?? wanted);
      // A line has no head: half a turn more or less is the same.
      return turnAbout(middleOf(box), turn - Math.PI * Math.round(turn / Math.PI));
    });
  },
});

/** The angle of the best line along the chosen edges of each shell that has some, radians: the axis of their summed squared directions. */
function directionsOf(document: HemDocument, edges: readonly number[]): Map<number, number> {
  const { edgeCorners, edgeCornerStart, cornerFace, nextCorner } = topologyOf(document.model).connectivity;
  const { faceShell } = shellsOf(document);
  const { uv } = current(document);
  const sums = new Map<number, [number, number]>();
  for (const e of edges)
    for (let k = edgeCornerStart[e]; k < edgeCornerStart[e + 1]; k++) {
      const c = edgeCorners[k];
      const s = faceShell[cornerFace[c]];
      const next = nextCorner[c];
      const [du, dv] = [uv[2 * next] - uv[2 * c], uv[2 * next + 1] - uv[2 * c + 1]];
      if (Number.isNaN(du + dv)) continue;
      // Doubled angles: opposite directions are one line. Longer edges count more.
      const sum = sums.get(s) ?? [0, 0];
      const length = Math.hypot(du, dv) || 1;
      sum[0] += (du * du - dv * dv) / length;
      sum[1] += (2 * du * dv) / length;
      sums.set(s, sum);
    }
  return new Map([...sums].map(([s, [x, y]]) => [s, Math.atan2(y, x) / 2]));
}
