import { type FlatBuffers, type ModelBuffers, NO_UV, NOWHERE } from '../../worker/protocol.ts';

/** An edge that lies in two places of the flat: the middles of both sides, u and v. */
export interface Partners {
  readonly edge: number;
  readonly sides: readonly [readonly [u: number, v: number], readonly [u: number, v: number]];
}

/** Of some edges those whose two sides lie apart, with both. */
export function partnersOf(
  { edgeEnds }: Pick<ModelBuffers, 'edgeEnds'>,
  { uv, seams }: Pick<FlatBuffers, 'uv' | 'seams'>,
  edges: ReadonlySet<number>,
): Partners[] {
  if (edges.size === 0) return [];
  return [...seams.filter((e) => edges.has(e))].flatMap((edge) => {
    const [one, other] = [0, 2].map((side) =>
      middleOf(edgeEnds[4 * edge + side], edgeEnds[4 * edge + side + 1], uv),
    );
    return one && other && (one[0] !== other[0] || one[1] !== other[1])
      ? [{ edge, sides: [one, other] }]
      : [];
  });
}

function middleOf(a: number, b: number, uv: Float32Array): readonly [number, number] | undefined {
  if (a === NOWHERE || uv[2 * a] === NO_UV || uv[2 * b] === NO_UV) return undefined;
  return [(uv[2 * a] + uv[2 * b]) / 2, (uv[2 * a + 1] + uv[2 * b + 1]) / 2];
}
