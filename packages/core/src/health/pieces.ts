import { loosePieces } from '../mesh/model.ts';
import type { Patient } from './check.ts';

export interface Piece {
  readonly faces: readonly number[];
  /** Whether every edge of it is joined. */
  readonly closed: boolean;
}

/** The pieces of a model that share no edge, in the order of their first face. */
export function piecesOf({ mesh, connectivity }: Patient): Piece[] {
  const { label, count } = loosePieces(mesh, connectivity);
  const open = new Uint8Array(count);
  for (let e = 0; e < connectivity.isInterior.length; e++) {
    if (connectivity.isInterior[e]) continue;
    for (let i = connectivity.edgeCornerStart[e]; i < connectivity.edgeCornerStart[e + 1]; i++)
      open[label[connectivity.cornerFace[connectivity.edgeCorners[i]]]] = 1;
  }
  const faces: number[][] = Array.from({ length: count }, () => []);
  label.forEach((piece, f) => {
    faces[piece].push(f);
  });
  return faces.map((list, piece) => ({ faces: list, closed: open[piece] === 0 }));
}
