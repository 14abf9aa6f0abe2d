import { boxAngles } from '../pack/boxAngles.ts';
import { turnedBox } from '../pack/frame.ts';
import { packFirst } from '../pack/packFirst.ts';
import type { PackOptions, PackShell } from '../pack/packShell.ts';
import { shapeOf } from '../pack/shape.ts';
import { type Context, heedStop } from '../progress.ts';
import { partShell } from '../seams/partShell.ts';
import { edgeLength } from '../select/shortestPath.ts';
import { meshOfShell, partsOf } from '../surface/cutShell.ts';
import type { Shell } from '../surface/shell.ts';

/** A shell as it is packed, at the scale that it shall have to the others. */
export interface PackedShell extends PackShell {
  /** What a cut of it needs, where it may be cut: the shell, and how much is seen of every vertex of it, 0 to 1. */
  readonly whole?: { readonly shell: Shell; readonly visibility: Float32Array };
}

/** Cuts across some shells, and what they do to a layout made at once. */
export interface CutsToPack {
  /** The shell of each, by its place in the list, and the cut: two shell vertices an edge. */
  readonly cuts: readonly { readonly shell: number; readonly edges: Uint32Array }[];
  /** Area of all shells in a layout with them, for the area in one without. */
  readonly gain: number;
}

/** So many shells are tried: those whose box holds most that is empty, and the longest ones, which are tried together too. */
const [EMPTIEST, LONGEST] = [3, 4];
/** Layouts that are made at once differ by some parts in a hundred whatever is done; a cut that gains less is not worth it. */
const LEAST_GAIN = 1.06;
/** A cut that is seen wholly counts as so much longer. */
const SEEN = 3;

/**
 * Which shells are in the way of a full tile, as they are long, bent or large: each that may be is parted across its length and all are packed anew, so that what is told of a cut is what comes out.
 *
 * @returns undefined where no cut is worth it, or shells do not fit at all
 * @throws StoppedError
 */
export function wastefulShells(
  shells: readonly PackedShell[],
  options: PackOptions,
  context: Context,
): CutsToPack | undefined {
  const scaleOf = (packed: readonly PackShell[]): number =>
    packFirst(packed, options, context)?.[free(packed)].scale ?? 0;
  const now = scaleOf(shells);
  if (now === 0) return undefined;
  const { emptiest, longest } = candidates(shells);
  const parted = new Map(
    [...new Set([...emptiest, ...longest])].flatMap((i) => {
      const found = partedAcross(shells[i], context);
      return found ? [[i, found]] : [];
    }),
  );
  const long = longest.filter((i) => parted.has(i));
  // Several that are as long as one another gain only together.
  const sets = [...[...parted.keys()].map((i) => [i]), ...long.slice(1).map((_, k) => long.slice(0, k + 2))];
  let best: CutsToPack | undefined;
  sets.forEach((set, k) => {
    heedStop(context.signal);
    context.report({ fraction: k / sets.length });
    const cuts = set.flatMap((i) => [...(parted.get(i)?.parts ?? [])]);
    const gain = (scaleOf([...cuts, ...shells.filter((_, i) => !set.includes(i))]) / now) ** 2;
    if (worth(gain, set.length) <= (best ? worth(best.gain, best.cuts.length) : 1)) return;
    best = { gain, cuts: set.map((i) => ({ shell: i, edges: parted.get(i)?.edges ?? new Uint32Array(0) })) };
  });
  return best;
}

/** Above 1 where each of so many cuts gains enough. */
const worth = (gain: number, count: number): number => gain / LEAST_GAIN ** count;

/** The first that is not locked. */
const free = (shells: readonly PackShell[]): number => shells.findIndex(({ locked }) => !locked);

function candidates(shells: readonly PackedShell[]): Record<'emptiest' | 'longest', number[]> {
  const sizes = shells.map((each) => {
    const shape = shapeOf(each);
    const [left, low, right, high] = turnedBox(shape, boxAngles(shape)[0]);
    const [wide, tall] = [right - left, high - low];
    return { empty: wide * tall - shape.area, long: Math.max(wide, tall) };
  });
  const cuttable = shells.flatMap(({ whole, locked }, i) => (whole && !locked ? [i] : []));
  const first = (of: 'empty' | 'long', count: number): number[] =>
    cuttable.toSorted((a, b) => sizes[b][of] - sizes[a][of]).slice(0, count);
  return { emptiest: first('empty', EMPTIEST), longest: first('long', LONGEST) };
}

/** A shell in two, or more where it must be. */
function partedAcross(
  { whole, uv, turning }: PackedShell,
  { signal }: Context,
): { readonly edges: Uint32Array; readonly parts: readonly PackShell[] } | undefined {
  if (!whole) return undefined;
  const { shell, visibility } = whole;
  const mesh = meshOfShell(shell);
  const { connectivity, parts } = partsOf(mesh);
  const { edgeVertices } = connectivity;
  const seen = (e: number): number =>
    (visibility[edgeVertices[2 * e]] + visibility[edgeVertices[2 * e + 1]]) / 2;
  const costOf = (e: number): number => edgeLength(mesh, connectivity, e) * (1 + SEEN * seen(e));
  const seams = new Uint8Array(connectivity.isInterior.length);
  // As a mesh of its own it has faces of its own.
  const [own] = parts([]);
  const edges = partShell({ mesh, connectivity, seams }, own, costOf, signal);
  const pieces = parts(edges);
  if (pieces.length < 2) return undefined;
  return {
    edges: Uint32Array.from(edges.flatMap((e) => [edgeVertices[2 * e], edgeVertices[2 * e + 1]])),
    parts: pieces.map(({ triangles, vertexCorner }) => ({
      triangles,
      turning,
      uv: Float64Array.from(
        [...vertexCorner].flatMap((c) => {
          const v = mesh.cornerVertex[c];
          return [uv[2 * v], uv[2 * v + 1]];
        }),
      ),
    })),
  };
}
