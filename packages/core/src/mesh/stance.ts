/** How a model stands: which of its axes points up, and which way it looks. */
export interface Stance {
  /** 0 for y and 1 for z. */
  readonly upAxis: number;
  /** Quarter turns to the left about what points up, from +z where y points up, from −y where z does: 0 to 3. */
  readonly front: number;
}

type Direction = readonly [number, number, number];

export const upOf = ({ upAxis }: Pick<Stance, 'upAxis'>): Direction => (upAxis === 1 ? [0, 0, 1] : [0, 1, 0]);

/** Towards whoever stands before the model. */
export function frontOf({ upAxis, front }: Stance): Direction {
  const turns: readonly Direction[] =
    upAxis === 1
      ? [
          [0, -1, 0],
          [1, 0, 0],
          [0, 1, 0],
          [-1, 0, 0],
        ]
      : [
          [0, 0, 1],
          [1, 0, 0],
          [0, 0, -1],
          [-1, 0, 0],
        ];
  return turns[front % 4];
}
