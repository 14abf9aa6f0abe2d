import { markChange } from '../../document/delta.ts';
import { type HemDocument, shellOf, shellsOf, shellUv, topologyOf } from '../../document/document.ts';
import { knownFaces } from '../../document/known.ts';
import { densityOf } from '../../document/layout.ts';
import { chosenShells, shellsLabel } from '../../document/shellChoice.ts';
import { HemError } from '../../errors.ts';
import { about, choice, list, otherwise, record, whichShells } from '../../params.ts';
import { plural } from '../../plural.ts';
import type { Shell } from '../../surface/shell.ts';
import { facesOfShell } from '../../surface/shells.ts';
import { bestQuarterTurn, bestTurn, transformUv } from '../../surface/similarity.ts';
import { operation } from '../operation.ts';
import { solveAll } from '../unfold/batches.ts';
import { findInShells, placeInFace } from '../unfold/handles.ts';
import { nearOldPlace, onBoard } from './boardLayout.ts';
import { movedPoints, type PointMove } from './movedPoints.ts';
import { squareToBoard } from './squareToBoard.ts';

const params = record({
  shells: whichShells,
  shape: about('what the longest border of each becomes', choice('rectangle', 'circle')),
  corners: about(
    'the four corners of the rectangle of one shell, each by a vertex and a face at it; found where the border turns most when there are none',
    otherwise(list(placeInFace), []),
  ),
  inside: about(
    'whether the inside is laid anew within the border, or stays where it is',
    otherwise(choice('follows', 'stays'), 'follows'),
  ),
});

/** Lays the longest borders of shells on rectangles or circles, at the true lengths of their edges. */
export const layBorder = operation({
  name: 'lay-border',
  stage: 'arrange',
  params,
  label: ({ shells, shape }, document) => `Lay the border of ${shellsLabel(document, shells)} on a ${shape}`,
  doing: 'Laying borders',
  async run(document, { shells, shape, corners, inside }, context) {
    if (corners.length > 0 && corners.length !== 4)
      throw new HemError('four-corners', `A rectangle has four corners: ${corners.length} were chosen.`);
    const cornersOf = cornersByShell(document, corners);
    const tasks = chosenShells(document, shells).map((s) => ({ s, shell: shellOf(document, s) }));
    const results = await solveAll(
      'lay-border',
      tasks,
      (batch) =>
        batch.map(({ s, shell }) => ({
          shell,
          shape,
          corners: cornersOf.get(s),
          follows: inside === 'follows',
        })),
      context,
    );
    const laid = new Map<number, Float64Array>();
    const refused: { readonly problem: string; readonly faces: readonly number[] }[] = [];
    for (const [{ s }, result] of results)
      if ('uv' in result) laid.set(s, result.uv);
      else refused.push(result);
    if (laid.size === 0) throw new HemError('no-such-border', refused[0].problem, [...refused[0].faces]);
    const left =
      refused.length > 0
        ? [
            `${plural(refused.length, 'shell')} left as ${refused.length === 1 ? 'it is' : 'they are'}. ${refused[0].problem}`,
          ]
        : [];
    if (inside === 'stays') {
      const moves = [...laid].flatMap(([s, uv]) => borderMoves(document, shellOf(document, s), uv, shape));
      if (moves.length === 0)
        throw new HemError('nothing-unfolded', 'These shells lie nowhere on the Board: unfold them first.');
      const { changes, notes } = await movedPoints(document, moves, 'stays', context);
      return { changes, notes: [...left, ...notes] };
    }
    const density = densityOf(document) ?? 1;
    const toBoard = shape === 'circle' ? nearOldPlace : squareToBoard;
    const uvOf = new Map(
      [...laid].map(([s, uv]) => [s, toBoard(document, shellOf(document, s), uv, density)] as const),
    );
    const { change, notes } = onBoard(document, uvOf);
    const faces = [...uvOf.keys()].flatMap((s) => [...facesOfShell(shellsOf(document), s)]);
    return {
      changes: [change, markChange(document, 'stale', faces, 0), markChange(document, 'relaxed', faces, 0)],
      notes: [...left, ...notes],
    };
  },
});

/** Shell vertices that are to be corners, by shell. */
function cornersByShell(
  document: HemDocument,
  corners: readonly { readonly vertex: number; readonly face: number }[],
): ReadonlyMap<number, readonly number[]> {
  knownFaces(
    document.model.mesh,
    corners.map(({ face }) => face),
  );
  const found = new Map<number, number[]>();
  for (const { vertex, face } of corners) {
    const s = shellsOf(document).faceShell[face];
    const at = findInShells(document, new Map([[s, shellOf(document, s)]]), [vertex], face);
    found.set(s, [...(found.get(s) ?? []), at.vertices[0]]);
  }
  if (found.size > 1)
    throw new HemError(
      'two-shells',
      'The four corners must be of one shell.',
      corners.map(({ face }) => face),
    );
  return found;
}

/** Where the points of a border come to lie while the inside stays: as near as the new border can be turned and moved to the old. */
function borderMoves(
  document: HemDocument,
  shell: Shell,
  border: Float64Array,
  shape: 'rectangle' | 'circle',
): PointMove[] {
  const before = shellUv(document, shell);
  if (!before) return [];
  const vertices = [...shell.vertexCorner.keys()].filter((v) => !Number.isNaN(border[2 * v]));
  const pick = (uv: Float64Array) => Float64Array.from(vertices.flatMap((v) => [uv[2 * v], uv[2 * v + 1]]));
  const [from, to] = [pick(border), pick(before)];
  const fit = shape === 'circle' ? bestTurn : bestQuarterTurn;
  const placed = transformUv(from, fit(from, to, densityOf(document) ?? 1));
  const { cornerFace } = topologyOf(document.model).connectivity;
  return vertices.map((v, i) => ({
    vertex: document.model.mesh.cornerVertex[shell.vertexCorner[v]],
    face: cornerFace[shell.vertexCorner[v]],
    uv: [placed[2 * i], placed[2 * i + 1]],
  }));
}
