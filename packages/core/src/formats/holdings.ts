import { faceCount } from '../mesh/mesh.ts';
import type { Model } from '../mesh/model.ts';
import { plural } from '../plural.ts';

/** What a model may have that some format cannot hold, in words of how much of it there is; undefined where there is none. */
export const HOLDINGS = {
  polygons: ({ mesh }: Model) => {
    let count = 0;
    for (let f = 0; f < faceCount(mesh); f++) if (mesh.faceStart[f + 1] - mesh.faceStart[f] > 3) count++;
    return counted(
      count,
      'face with more than three corners (it is split)',
      'faces with more than three corners (they are split)',
    );
  },
  objects: ({ objects }: Model) => (objects.length > 1 ? `names of ${objects.length} objects` : undefined),
  groups: ({ groups }: Model) =>
    groups.length > 1 || groups[0] ? counted(groups.length, 'group', 'groups') : undefined,
  materials: ({ materials }: Model) => counted(materials.length, 'material', 'materials'),
  /** A library of an OBJ file takes colours and some images only. */
  gltfMaterials: ({ source, materials }: Model) =>
    source.format === 'glb' && materials.length > 0
      ? 'what materials say beside colour, normal and emissive images'
      : undefined,
  smoothing: ({ faceSmoothing }: Model) =>
    faceSmoothing.some((group) => group >= 0) ? 'smoothing groups (they become normals)' : undefined,
  smoothingLost: ({ faceSmoothing }: Model) =>
    faceSmoothing.some((group) => group >= 0) ? 'smoothing groups' : undefined,
} as const;
export type Holding = keyof typeof HOLDINGS;

/** How many of something in words; undefined for none. */
export const counted = (count: number, one: string, many: string): string | undefined =>
  count > 0 ? plural(count, one, many) : undefined;
