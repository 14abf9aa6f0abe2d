import { boxAngles } from '../pack/boxAngles.ts';
import { packFirst } from '../pack/fitShells.ts';
import { turnedBox } from '../pack/frame.ts';
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

/** A cut across a shell, and what it does to a layout made at once. */
export interface CutToPack {
  /** The shell, by its place in the list. */
  readonly shell: number;
  /** Two shell vertices an edge. */
  readonly edges: Uint32Array;
  /** Area of all shells in a layout with it, for the area in one without. */
  readonly gain: number;
}

/** So many shells are tried: those whose box holds most that is empty, and the longest ones. */
const [EMPTIEST, LONGEST] = [3, 2];
/** Layouts that are made at once differ by some parts in a hundred whatever is done; less than this gain is none. */
const LEAST_GAIN = 1.06;
/** A cut that is seen wholly counts as so much longer. */
const SEEN = 3;

/**
 * Which shells are in the way of a full tile, as they are long, bent or large: each that may be is parted across its length and all are packed anew, so that what is told of a cut is what comes out.
 *
 * @returns the best first; none where shells do not fit at all
 * @throws StoppedError
 */
export function wastefulShells(
  shells: readonly PackedShell[],
  options: PackOptions,
  context: Context,
): CutToPack[] {
  const scaleOf = (packed: readonly PackShell[]): number =>
    packFirst(packed, options, context)?.[free(packed)].scale ?? 0;
  const now = scaleOf(shells);
  if (now === 0) return [];
  const tried = candidates(shells);
  return tried
    .flatMap((i, k) => {
      heedStop(context.signal);
      context.report({ fraction: k / tried.length });
      const parted = partedAcross(shells[i], context);
      if (!parted) return [];
      const { edges, parts } = parted;
      const gain = (scaleOf([...parts, ...shells.toSpliced(i, 1)]) / now) ** 2;
      return gain < LEAST_GAIN ? [] : [{ shell: i, edges, gain }];
    })
    .sort((a, b) => b.gain - a.gain);
}

/** The first that is not locked. */
const free = (shells: readonly PackShell[]): number => shells.findIndex(({ locked }) => !locked);

function candidates(shells: readonly PackedShell[]): number[] {
  const sizes = shells.map((each) => {
    const shape = shapeOf(each);
    const [left, low, right, high] = turnedBox(shape, boxAngles(shape)[0]);
    const [wide, tall] = [right - left, high - low];
    return { empty: wide * tall - shape.area, long: Math.max(wide, tall) };
  });
  const cuttable = shells.flatMap(({ whole, locked }, i) => (whole && !locked ? [i] : []));
  const emptiest = cuttable.toSorted((a, b) => sizes[b].empty - sizes[a].empty).slice(0, EMPTIEST);
  const longest = cuttable.toSorted((a, b) => sizes[b].long - sizes[a].long).slice(0, LONGEST);
  return [...new Set([...emptiest, ...longest])];
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
  const edges = partShell({ mesh, connectivity, seams }, shell, costOf, signal);
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
