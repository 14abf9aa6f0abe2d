import { type HemDocument, shellsOf } from '../../document/document.ts';
import { HemError } from '../../errors.ts';
import type { Mesh } from '../../mesh/mesh.ts';
import { list, optional, record, type Taken, tuple, whole } from '../../params.ts';
import type { Shell } from '../../surface/shell.ts';

/** On a seam, a face tells which side is meant. */
const face = optional(whole());

/** A vertex of the model that an artist holds on to. */
export const heldVertex = record({ vertex: whole(), face });

/** A vertex that must lie at a place of the tile. */
export const pin = record({ vertex: whole(), face, uv: tuple(2) });
export type Pin = Taken<typeof pin>;

/** Vertices along a chain of edges that must lie straight at true length. */
export const stay = record({ vertices: list(whole(), { min: 2, unique: true }), face });
export type StayChain = Taken<typeof stay>;

/** A place of the flat: a vertex on the side of a face. */
export const placeInFace = record({ vertex: whole(), face: whole() });

/**
 * The corner of a face at a vertex.
 *
 * @throws HemError when the face has none there
 */
export function cornerOf({ faceStart, cornerVertex }: Mesh, vertex: number, face: number): number {
  for (let c = faceStart[face]; c < faceStart[face + 1]; c++) if (cornerVertex[c] === vertex) return c;
  throw new HemError('no-such-point', `Face ${face} has no corner at vertex ${vertex}.`, [face]);
}

/** Which shell a pin or stay is in, and its vertices there. */
export interface Found {
  readonly shell: number;
  readonly vertices: Uint32Array;
}

/**
 * Finds vertices of the model, all in one shell.
 *
 * @param shells  those that may be meant
 * @throws HemError when they are in none, or a seam makes it unclear which is meant
 */
export function findInShells(
  document: HemDocument,
  shells: ReadonlyMap<number, Shell>,
  vertices: readonly number[],
  face?: number,
): Found {
  const { mesh } = document.model;
  const map = shellsOf(document);
  if (face !== undefined && face >= map.faceShell.length) {
    throw new HemError('no-such-face', `There is no face ${face}: the model has ${map.faceShell.length}.`);
  }
  const wanted = new Set(vertices);
  const candidates: Found[] = [];
  let unclear = false;
  for (const [s, shell] of shells) {
    if (face !== undefined && map.faceShell[face] !== s) continue;
    const places = new Map<number, number[]>();
    shell.vertexCorner.forEach((c, v) => {
      const vertex = mesh.cornerVertex[c];
      if (wanted.has(vertex)) places.set(vertex, [...(places.get(vertex) ?? []), v]);
    });
    if (places.size < wanted.size) continue;
    // On the side of the named face, where the seam has two.
    const beside = (v: number): boolean => {
      if (face === undefined) return true;
      for (let c = mesh.faceStart[face]; c < mesh.faceStart[face + 1]; c++) {
        if (map.cornerWedge[c] - map.wedgeStart[s] === v) return true;
      }
      return false;
    };
    const chosen = vertices.map((vertex) => {
      const all = places.get(vertex) as number[];
      return all.length === 1 ? all : all.filter(beside);
    });
    if (chosen.some((list) => list.length !== 1)) unclear = true;
    else candidates.push({ shell: s, vertices: Uint32Array.from(chosen, ([v]) => v) });
  }
  if (candidates.length === 1) return candidates[0];
  const named = vertices.length === 1 ? `Vertex ${vertices[0]} lies` : 'These vertices lie';
  throw candidates.length > 1 || unclear
    ? new HemError('unclear-side', `${named} on a seam: name a face to say which side is meant.`, vertices)
    : new HemError('not-in-shell', `${named} in none of these shells, or not in one alone.`, vertices);
}
