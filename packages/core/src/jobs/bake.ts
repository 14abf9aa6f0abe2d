import { type BakedRows, bakeRows } from '../bake/bakeRows.ts';
import type { BakeSurface } from '../bake/bakeSurface.ts';
import { type BakeMapName, bakeMapOf } from '../bake/maps.ts';
import { projectionOnto } from '../bake/projection.ts';
import type { TexelRows } from '../bake/texels.ts';
import { heedStop } from '../progress.ts';
import { type RayTree, rayCaster } from '../surface/rays.ts';
import type { Job } from './job.ts';

export interface BakeTask {
  readonly surface: BakeSurface;
  readonly map: BakeMapName;
  readonly rows: TexelRows;
  /** Samples along a side of a texel. */
  readonly samples: number;
  /** Rays from each texel. */
  readonly rays: number;
  /** What is farther off does not count, as a part of the size of the model. */
  readonly reach: number;
  /** Over all triangles of the surface that the map is made from. */
  readonly tree: RayTree;
  /** Another surface from which the map is made, and how far the two lie apart at most. */
  readonly from?: { readonly surface: BakeSurface; readonly distance: number };
}

/** Some rows of a map for painters. */
export const bake: Job<'bake', BakeTask, BakedRows> = {
  name: 'bake',
  run({ surface: own, map: name, rows, samples, rays, reach, tree, from }, { signal }) {
    const surface = from?.surface ?? own;
    const cast = rayCaster(tree);
    const map = bakeMapOf(name);
    const sampler = map.sampler({
      surface,
      cast,
      rays: Math.max(1, Math.ceil(rays / (samples * samples))),
      reach: reach * surface.size,
    });
    const project =
      from && projectionOnto(own.points, own.smoothNormals, cast, surface.points, from.distance);
    return bakeRows(own.uv, rows, map, sampler, samples, project, () => heedStop(signal));
  },
};
