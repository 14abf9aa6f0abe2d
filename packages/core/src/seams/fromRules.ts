import type { Connectivity } from '../mesh/connectivity.ts';
import { loosePieces, type Model } from '../mesh/model.ts';
import { faceNormals } from '../mesh/normals.ts';
import { mainKind, partsBy } from '../mesh/parts.ts';
import { signedDihedral } from '../surface/dihedral.ts';
import { seamsFromUv } from '../surface/shells.ts';

/** What seams can follow from. */
export const RULES = ['crease', 'patch', 'material', 'smoothing', 'part', 'uv'] as const;
export type Rule = (typeof RULES)[number];

/**
 * Joined edges where a rule says that a seam should be: where the surface turns by an angle or more, between patches, materials, smoothing
 * groups or parts, or where the UVs that came with the file break.
 *
 * @param angle  radians, for creases
 * @param patches  of each face; 0 for none, which is a patch like any other
 */
export function edgesByRule(
  { model, patches }: { readonly model: Model; readonly patches: ArrayLike<number> },
  connectivity: Connectivity,
  rule: Rule,
  angle: number,
): number[] {
  const { mesh } = model;
  const where = (holds: (edge: number) => boolean): number[] =>
    Array.from(connectivity.isInterior.keys()).filter((e) => connectivity.isInterior[e] === 1 && holds(e));
  if (rule === 'crease') {
    const normals = faceNormals(mesh);
    return where((e) => Math.abs(signedDihedral(mesh, connectivity, normals, e)) >= angle - 1e-9);
  }
  if (rule === 'uv') {
    const broken = model.uvSets[0]
      ? seamsFromUv(connectivity, model.uvSets[0].uv)
      : new Uint8Array(connectivity.isInterior.length);
    return where((e) => broken[e] === 1);
  }
  const label =
    rule === 'patch'
      ? patches
      : rule === 'material'
        ? model.faceMaterial
        : rule === 'smoothing'
          ? model.faceSmoothing
          : partOf(model, connectivity);
  const face = (e: number, k: number) =>
    connectivity.cornerFace[connectivity.edgeCorners[connectivity.edgeCornerStart[e] + k]];
  return where((e) => label[face(e, 0)] !== label[face(e, 1)]);
}

function partOf(model: Model, connectivity: Connectivity): ArrayLike<number> {
  const kind = mainKind(model);
  return kind === 'piece'
    ? loosePieces(model.mesh, connectivity).label
    : partsBy(kind, model, connectivity).facePart;
}
