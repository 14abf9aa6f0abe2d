import { hierarchy, treemap, treemapSquarify } from 'd3-hierarchy';
import type { Context } from '../progress.ts';
import { boxOf } from '../surface/uvBox.ts';
import type { Frame } from './frame.ts';
import type { PackOptions, PackShell } from './packShell.ts';
import { asItLies, type Placement } from './placement.ts';

/** Finds a layout of some shells in a frame, at one scale. */
type Lay = (
  shells: readonly PackShell[],
  options: PackOptions,
  context: Context,
) => readonly Placement[] | undefined;

/** So often regions are made anew for what their shells take; more often only until all take theirs. */
const [ROUNDS, MOST_ROUNDS] = [4, 8];
/** A region that does not take its shells grows by so much. */
const LARGER = 2;
/** No region is less than this part of the frame to begin with. */
const LEAST = 0.002;
/** So often the scale is lowered until all regions come to it, and by so much. */
const [LOWERED, LOWER] = [20, 0.98];

/** A region is not made narrower for its length than this to begin with. */
const THINNEST = 0.01;

/** Whether shells are to be laid in clusters. */
export const haveClusters = (shells: readonly PackShell[]): boolean =>
  new Set(shells.flatMap(({ locked, near }) => (locked ? [] : [near]))).size > 1;

/**
 * A first layout with shells of one number near each other: the frame is parted into regions (squarified treemap: Bruls, Huizing and van Wijk
 * 2000), one a cluster, which are made larger for clusters that come out smaller than the rest.
 *
 * @param lay  fills one region
 * @returns a placement a shell; undefined where some region takes its shells at no scale
 */
export function packClusters(
  shells: readonly PackShell[],
  options: PackOptions,
  context: Context,
  lay: Lay,
): Placement[] | undefined {
  const clusters = clustersOf(shells);
  const locked = shells.filter((shell) => shell.locked);
  const layIn = (regions: readonly Frame[], most: number | undefined) =>
    clusters.map((cluster, k) =>
      lay([...cluster.map((i) => shells[i]), ...locked], { ...options, frame: regions[k], most }, context),
    );
  const areas = clusters.map((cluster) => cluster.reduce((sum, i) => sum + boxAreaOf(shells[i]), 0));
  let [best, regions]: [number, readonly Frame[]] = [0, []];
  for (let round = 0; round < ROUNDS || (best === 0 && round < MOST_ROUNDS); round++) {
    const tried = regionsIn(options, areas);
    const scales = layIn(tried, options.most).map((layout) => layout?.[0].scale ?? 0);
    const least = Math.min(...scales);
    if (least > best) [best, regions] = [least, tried];
    const usual = Math.min(...scales.filter((scale) => scale > 0));
    scales.forEach((scale, k) => {
      // A region that takes its shells at no scale is too small by more than is known.
      areas[k] *= scale > 0 ? (usual / scale) ** 2 : LARGER;
    });
  }
  // Smaller shells need not come to lie as larger ones did: each region is laid anew at the scale of the fullest.
  for (let tries = 0; best > 0 && tries < LOWERED; tries++) {
    const layouts = layIn(regions, best);
    if (!layouts.every((layout) => layout !== undefined)) return undefined;
    const least = Math.min(...layouts.map(([{ scale }]) => scale));
    if (least >= best) return inOrder(shells, clusters, layouts);
    best = Math.min(least, best * LOWER);
  }
  return undefined;
}

/** Numbers of shells that are not locked, those of each cluster a list; what has no number makes one of its own. */
function clustersOf(shells: readonly PackShell[]): readonly (readonly number[])[] {
  const byNumber = new Map<number | undefined, number[]>();
  shells.forEach(({ locked, near }, i) => {
    if (locked) return;
    const cluster = byNumber.get(near);
    if (cluster) cluster.push(i);
    else byNumber.set(near, [i]);
  });
  return [...byNumber.values()];
}

/** Area of the box of a shell, which a region has to hold: no shell takes nothing. */
function boxAreaOf({ uv }: PackShell): number {
  const [minU, minV, maxU, maxV] = boxOf(uv);
  const [wide, tall] = [maxU - minU, maxV - minV];
  return Math.max(wide * tall, THINNEST * Math.max(wide, tall) ** 2, Number.MIN_VALUE);
}

/** The frame parted by areas, of which none need be a certain size. */
function regionsIn({ frame, gap }: PackOptions, areas: readonly number[]): Frame[] {
  const [left, low, right, high] = frame;
  const all = areas.reduce((sum, area) => sum + area, 0);
  const root = hierarchy<{ readonly k: number; readonly children?: readonly { readonly k: number }[] }>({
    k: -1,
    children: areas.map((_, k) => ({ k })),
  })
    .sum(({ k }) => (k < 0 ? 0 : Math.max(areas[k], LEAST * all)))
    .sort((a, b) => (b.value ?? 0) - (a.value ?? 0));
  const regions: Frame[] = [];
  const half = gap / 2;
  // A gap is kept to both sides of the line between regions: half of each is given back.
  for (const { data, x0, y0, x1, y1 } of treemap<typeof root.data>()
    .tile(treemapSquarify.ratio(1))
    .size([right - left, high - low])
    .round(false)(root)
    .leaves())
    regions[data.k] = [
      Math.max(left, left + x0 - half),
      Math.max(low, low + y0 - half),
      Math.min(right, left + x1 + half),
      Math.min(high, low + y1 + half),
    ];
  return regions;
}

function inOrder(
  shells: readonly PackShell[],
  clusters: readonly (readonly number[])[],
  layouts: readonly (readonly Placement[])[],
): Placement[] {
  const placements = shells.map(({ uv }) => asItLies(uv));
  clusters.forEach((cluster, k) => {
    cluster.forEach((i, n) => {
      placements[i] = layouts[k][n];
    });
  });
  return placements;
}
