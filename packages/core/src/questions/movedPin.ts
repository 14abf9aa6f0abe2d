import { pinsOf, staysOf } from '../document/constraints.ts';
import { type HemDocument, shellOf, shellsOf, shellUv } from '../document/document.ts';
import { knownFaces } from '../document/known.ts';
import { type ShellPicture, shellPicture } from '../document/shellPicture.ts';
import { HemError } from '../errors.ts';
import { cornerOf } from '../operations/unfold/handles.ts';
import { about, record, tuple, whole } from '../params.ts';
import type { Context } from '../progress.ts';
import { restTriangles } from '../surface/restTriangles.ts';
import type { Shell } from '../surface/shell.ts';
import { pinnedConformal } from '../unfold/lscm.ts';
import { nearPins } from '../unfold/meetPins.ts';
import { question } from './question.ts';

/** A shell that is made ready for any place of one of its pins: a hand drags one at a time, and asks again and again. */
interface ReadyShell {
  readonly corner: number;
  readonly shell: number;
  /** UV of every shell vertex as the pin lies where it is asked to. */
  at(place: readonly [number, number]): Float64Array;
  release(): void;
}

/**
 * How a shell would lie if one place of it were pinned elsewhere, its other pins and stays where they are now: the conformal map
 * that it would be or, once the shell was relaxed, the flat as it lies pulled along. Only the last step is worked out anew while the same
 * place is asked for. It may fold; what comes of it in the end does not.
 */
export const movedPin = question({
  name: 'moved-pin',
  params: record({
    vertex: about('the vertex of the model', whole()),
    face: about('a face at it, on the side of the seams that is meant', whole()),
    uv: about('where it comes to lie', tuple(2), 'heights of a tile'),
  }),
  byHand: true,
  answer(document, { vertex, face, uv }, context): ShellPicture {
    knownFaces(document.model.mesh, [face]);
    const corner = cornerOf(document.model.mesh, vertex, face);
    const last = context.cache?.get('moved-pin', document) as ReadyShell | undefined;
    const ready = last?.corner === corner ? last : makeReady(document, corner, face, context.signal);
    const uvs = ready.at([uv[0], uv[1]]);
    if (context.cache) context.cache.put('moved-pin', { document, value: ready, release: ready.release });
    else ready.release();
    return shellPicture(document, new Map([[ready.shell, uvs]]));
  },
});

function makeReady(
  document: HemDocument,
  corner: number,
  face: number,
  signal: { readonly aborted: boolean },
): ReadyShell {
  const { faceShell, cornerWedge, wedgeStart } = shellsOf(document);
  const s = faceShell[face];
  const shell = shellOf(document, s);
  const now = shellUv(document, shell);
  if (!now)
    throw new HemError('nothing-unfolded', 'Only what lies flat can be pinned: unfold it first.', [face]);
  const moved = cornerWedge[corner] - wedgeStart[s];
  const still = new Set([
    ...pinsOf(document, shell),
    ...staysOf(document, s).flatMap(({ vertices }) => vertices),
  ]);
  still.delete(moved);
  const vertices = [...still, moved];
  const relaxed = document.relaxed[face] === 1;
  return {
    corner,
    shell: s,
    ...(relaxed
      ? followed(shell, now, vertices, signal)
      : vertices.length > 1
        ? solvedAnew(shell, now, vertices, signal)
        : { at: (place) => nearPins(now, { vertices, uv: place }), release: () => undefined }),
  };
}

/** The conformal map of the surface: what the unfold is going to be. The last of the vertices is the one that moves. */
function solvedAnew(
  shell: Shell,
  now: Float64Array,
  vertices: readonly number[],
  signal: Context['signal'],
): Pick<ReadyShell, 'at' | 'release'> {
  const rest = restTriangles(shell.positions, shell.triangles);
  const solver = pinnedConformal(shell, rest, vertices, signal);
  const places = vertices.flatMap((v) => [now[2 * v], now[2 * v + 1]]);
  return {
    at: (place) => solver.solve([...places.slice(0, -2), ...place]),
    release: () => solver.release(),
  };
}

/** How far what is pulled takes the flat along, as a part of the root of its area. */
const REACH = 0.25;

/** The flat as it lies, pulled along: displaced as conformally as can be near the place that moves, and hardly far from it. */
function followed(
  shell: Shell,
  now: Float64Array,
  vertices: readonly number[],
  signal: Context['signal'],
): Pick<ReadyShell, 'at' | 'release'> {
  const flat = Float64Array.from({ length: shell.positions.length }, (_, i) =>
    i % 3 < 2 ? now[2 * Math.floor(i / 3) + (i % 3)] : 0,
  );
  const rest = restTriangles(flat, shell.triangles);
  const inertia = 1 / (REACH ** 2 * (rest.totalArea || 1));
  const solver = pinnedConformal(shell, rest, vertices, signal, inertia);
  const moved = vertices[vertices.length - 1];
  const none = new Array<number>(2 * vertices.length - 2).fill(0);
  return {
    at([u, v]) {
      const displaced = solver.solve([...none, u - now[2 * moved], v - now[2 * moved + 1]]);
      return displaced.map((d, i) => now[i] + d);
    },
    release: () => solver.release(),
  };
}
