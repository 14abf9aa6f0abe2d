import type { Connectivity } from '../mesh/connectivity.ts';
import type { Mesh } from '../mesh/mesh.ts';
import { edgeLength } from '../select/shortestPath.ts';
import { signedDihedral } from '../surface/dihedral.ts';

/** What a seam costs along the least exposed edges, as a part of their length, when it is to be hidden. */
const FLOOR = 0.04;
/** What it costs along a sharp crease, as a part of what it costs on flat ground: in a fold it is shaded, on a ridge the form breaks anyway. */
const IN_A_FOLD = 0.3;
const ON_A_RIDGE = 0.6;
/** A crease of so much counts in full, radians; common practice: about 90° is a good seam, 40° can stay joined. */
const SHARP = Math.PI / 2;
const SLIGHT = (40 * Math.PI) / 180;
/** Along a seam or a border a way costs next to nothing, but not nothing, so that it does not wander. */
const FREE = 0.01;

export interface EdgeCostOptions {
  /** From 0, the shortest way, to 1, the most hidden. */
  readonly hidden: number;
  /** How much is seen of every edge, 0 to 1. */
  readonly visibility: Float32Array;
  /** 1 for each edge that is cut already. */
  readonly seams?: Uint8Array;
  /** Whether seams and borders are all but free; else they cost what other edges do. True when absent. */
  readonly isFollowed?: boolean;
}

/**
 * What a seam along each edge costs: its length, and, as far as it is to be hidden, times how much is seen of it, and less where the
 * surface is creased (visibility and curvature as in Sheffer and Hart 2002). Seams and borders are all but free where they are followed.
 *
 * @returns model units, per edge
 */
export function edgeCosts(
  mesh: Mesh,
  connectivity: Connectivity,
  normals: Float64Array,
  { hidden, visibility, seams, isFollowed = true }: EdgeCostOptions,
): Float64Array {
  const costs = new Float64Array(connectivity.isInterior.length);
  for (let e = 0; e < costs.length; e++) {
    const length = edgeLength(mesh, connectivity, e);
    if (isFollowed && (!connectivity.isInterior[e] || seams?.[e])) {
      costs[e] = FREE * length;
      continue;
    }
    const shown = FLOOR + (1 - FLOOR) * visibility[e] ** 2;
    costs[e] =
      length *
      (1 -
        hidden +
        hidden *
          shown *
          creased(
            hidden > 0 && connectivity.isInterior[e] ? signedDihedral(mesh, connectivity, normals, e) : 0,
          ));
  }
  return costs;
}

function creased(dihedral: number): number {
  const sharp = Math.min(1, Math.max(0, (Math.abs(dihedral) - SLIGHT) / (SHARP - SLIGHT)));
  return 1 - sharp * (1 - (dihedral < 0 ? IN_A_FOLD : ON_A_RIDGE));
}
