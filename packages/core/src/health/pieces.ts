import { loosePieces } from '../mesh/model.ts';
import type { Patient } from './check.ts';

export interface Piece {
  readonly faces: readonly number[];
  /** Whether every edge of it is joined. */
  readonly closed: boolean;
}

/** The pieces of a model that share no edge, in the order of their first face. */
export function piecesOf({ mesh, links }: Patient): Piece[] {
  const { label, count } = loosePieces(mesh, links);
  const open = new Uint8Array(count);
  for (let e = 0; e < links.joined.length; e++) {
    if (links.joined[e]) continue;
    for (let i = links.edgeCornerStart[e]; i < links.edgeCornerStart[e + 1]; i++)
      open[label[links.cornerFace[links.edgeCorners[i]]]] = 1;
  }
  const faces: number[][] = Array.from({ length: count }, () => []);
  label.forEach((piece, f) => {
    faces[piece].push(f);
  });
  return faces.map((list, piece) => ({ faces: list, closed: open[piece] === 0 }));
}
