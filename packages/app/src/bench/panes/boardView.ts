/** Where the Board looks: the middle, and pixels per unit of u and v. */
export interface BoardView {
  u: number;
  v: number;
  scale: number;
}

/** Pixels per unit, at least and at most. */
const [FARTHEST, NEAREST] = [4, 200_000];

/** What of the flat a pane of this many pixels shows. */
export const boardEdges = ({ u, v, scale }: BoardView, width: number, height: number) => ({
  left: u - width / (2 * scale),
  right: u + width / (2 * scale),
  top: v + height / (2 * scale),
  bottom: v - height / (2 * scale),
});

/** The view of a box in a pane of this many pixels. */
export function viewOf(
  [u0, v0, u1, v1]: readonly number[],
  pane: { readonly width: number; readonly height: number },
): BoardView {
  const [width, height] = [Math.max(u1 - u0, 1e-6), Math.max(v1 - v0, 1e-6)];
  const scale = 0.9 * Math.min(pane.width / width, pane.height / height);
  return { u: (u0 + u1) / 2, v: (v0 + v1) / 2, scale };
}

/** Zooms about a place of the flat. */
export function zoomView(board: BoardView, u: number, v: number, factor: number): void {
  const scale = Math.max(FARTHEST, Math.min(NEAREST, board.scale * factor));
  const real = scale / board.scale;
  board.u = u + (board.u - u) / real;
  board.v = v + (board.v - v) / real;
  board.scale = scale;
}
