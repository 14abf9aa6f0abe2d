import { type FlatBuffers, type ModelBuffers, NO_UV, NOWHERE } from '../../worker/protocol.ts';

/** Where two borders meet: the same number on both. */
export interface Notch {
  readonly number: number;
  /** Middle of the edge on this side, tile units, and the way from its first end to its second. */
  readonly u: number;
  readonly v: number;
  readonly along: readonly [number, number];
  /** Length of the whole run on this side, tile units. */
  readonly run: number;
  /** The edge it stands on. */
  readonly edge: number;
}

/**
 * One notch in the middle of every run of seam between the same two shells, on both of its sides.
 *
 * @param uv  as drawn, of every triangle corner
 */
export function notchesOf(
  { edgeEnds, triangleFace }: Pick<ModelBuffers, 'edgeEnds' | 'triangleFace'>,
  { seams, seamBreaks, faceShell }: Pick<FlatBuffers, 'seams' | 'seamBreaks' | 'faceShell'>,
  uv: Float32Array,
): Notch[] {
  const shellAt = (end: number) => (end === NOWHERE ? -1 : faceShell[triangleFace[Math.floor(end / 3)]]);
  const sideOf = (e: number, side: 0 | 1) =>
    [edgeEnds[4 * e + 2 * side], edgeEnds[4 * e + 2 * side + 1]] as const;
  const isLaid = ([a, b]: readonly [number, number]) =>
    a !== NOWHERE && uv[2 * a] !== NO_UV && uv[2 * b] !== NO_UV;
  const length = (e: number, side: 0 | 1): number => {
    const [a, b] = sideOf(e, side);
    return Math.hypot(uv[2 * a] - uv[2 * b], uv[2 * a + 1] - uv[2 * b + 1]);
  };
  const notches: Notch[] = [];
  let number = 0;
  let run: number[] = [];
  const finish = (): void => {
    const laid = run.filter((e) => isLaid(sideOf(e, 0)) && isLaid(sideOf(e, 1)));
    run = [];
    if (laid.length === 0) return;
    number++;
    const middle = laid[laid.length >> 1];
    for (const side of [0, 1] as const) {
      const [a, b] = sideOf(middle, side);
      notches.push({
        number,
        u: (uv[2 * a] + uv[2 * b]) / 2,
        v: (uv[2 * a + 1] + uv[2 * b + 1]) / 2,
        along: [uv[2 * b] - uv[2 * a], uv[2 * b + 1] - uv[2 * a + 1]],
        run: laid.reduce((sum, e) => sum + length(e, side), 0),
        edge: middle,
      });
    }
  };
  let pair = '';
  seams.forEach((e, i) => {
    const here = [shellAt(edgeEnds[4 * e]), shellAt(edgeEnds[4 * e + 2])].sort((p, q) => p - q).join(' ');
    if (seamBreaks[i] === 1 || here !== pair) finish();
    pair = here;
    run.push(e);
  });
  finish();
  return notches;
}
