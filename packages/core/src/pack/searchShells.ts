import type { ClearingOptions } from './clearing.ts';
import { cellsOf, finenessOf } from './fineness.ts';
import { type PackOptions, type PackShell, turningOf } from './packShell.ts';
import { type Piece, pieceOf } from './pieces.ts';
import { type Shape, shapeOf } from './shape.ts';

/** Options of the ways of packing that move shells about. */
export interface SearchOptions extends PackOptions {
  readonly seed: number;
  /** Rounds of moves; see `separate`. */
  readonly rounds: number;
}

/** Part of a texel by which the search lets pieces come too near, before exact distances are seen to. */
const SLACK = 0.1;

/** @param scale  about that at which shells will lie */
export function piecesOf(
  shells: readonly PackShell[],
  options: PackOptions,
  scale: number,
): { readonly shapes: readonly Shape[]; readonly pieces: readonly Piece[] } {
  const shapes = shells.map(shapeOf);
  const fineness = finenessOf(shapes, shells, options, scale, cellsOf(shells));
  return { shapes, pieces: shapes.map((shape, i) => pieceOf(shape, fineness[i])) };
}

export const clearingOptions = (
  shells: readonly PackShell[],
  shapes: readonly Shape[],
  { frame, gap, texel, stay, seed, rounds }: SearchOptions,
): ClearingOptions => ({
  frame,
  gap,
  turning: shells.map((shell, i) => turningOf(shell, shapes[i])),
  locked: shells.map(({ locked }) => locked === true),
  near: shells.map(({ near }) => near),
  stay,
  seed,
  rounds,
  slack: SLACK * texel,
});
