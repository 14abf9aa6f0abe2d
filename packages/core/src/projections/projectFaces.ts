import type { Mesh } from '../mesh/mesh.ts';
import { faceNormal } from '../mesh/normals.ts';
import { frontOf, type Stance, upOf } from '../mesh/stance.ts';
import { projectBox } from './box.ts';
import { projectCylindrical } from './cylindrical.ts';
import { bestFitFrame, type Frame, frameAbout, frameFacing } from './frame.ts';
import { projectPlanar } from './planar.ts';
import { projectSpherical } from './spherical.ts';
import type { Wrapped } from './wrap.ts';

export const PROJECTIONS = ['plane', 'cylinder', 'sphere', 'box'] as const;
export type Projection = (typeof PROJECTIONS)[number];

/** Projects faces by one of the kinds; see each of them. */
export function projectFaces(
  mesh: Mesh,
  faces: ArrayLike<number>,
  kind: Projection,
  frame: Frame,
  sweep: number,
): Wrapped {
  switch (kind) {
    case 'plane':
      return { uv: projectPlanar(mesh, faces, frame), outside: [] };
    case 'cylinder':
      return projectCylindrical(mesh, faces, frame, sweep);
    case 'sphere':
      return projectSpherical(mesh, faces, frame, sweep);
    case 'box':
      return { uv: projectBox(mesh, faces, frame), outside: [] };
  }
}

/**
 * Where a projection of some faces stands by itself: a plane as they look on the whole, the others upright in their middle with the front
 * of the model before them.
 *
 * @param stance  what of the model points up, and where its front is
 */
export function fittedFrame(mesh: Mesh, faces: ArrayLike<number>, kind: Projection, stance: Stance): Frame {
  const [up, front] = [upOf(stance), frontOf(stance)];
  if (kind !== 'plane') return frameAbout(middleOf(mesh, faces), up, front);
  const { origin, toward } = bestFitFrame(mesh, faces);
  return frameFacing(origin, toward, up);
}

/** The middle of the box of some faces. */
function middleOf({ positions, cornerVertex, faceStart }: Mesh, faces: ArrayLike<number>): number[] {
  const [low, high] = [
    [Infinity, Infinity, Infinity],
    [-Infinity, -Infinity, -Infinity],
  ];
  for (let i = 0; i < faces.length; i++)
    for (let c = faceStart[faces[i]]; c < faceStart[faces[i] + 1]; c++)
      for (let k = 0; k < 3; k++) {
        const x = positions[3 * cornerVertex[c] + k];
        low[k] = Math.min(low[k], x);
        high[k] = Math.max(high[k], x);
      }
  return low.map((x, k) => (x + high[k]) / 2);
}

const lengthOf = ([x, y, z]: readonly number[]): number => Math.sqrt(x * x + y * y + z * z);

/** A face collapses where it keeps less than this part of its surface. */
const COLLAPSES = 0.02;

/** Faces that a projection leaves hardly any room, and those that it mirrors. */
export function spoiltFaces(
  mesh: Mesh,
  faces: ArrayLike<number>,
  uv: Float64Array,
): { readonly collapsed: number[]; readonly mirrored: number[] } {
  const collapsed: number[] = [];
  const mirrored: number[] = [];
  for (let i = 0; i < faces.length; i++) {
    const f = faces[i];
    const [first, end] = [mesh.faceStart[f], mesh.faceStart[f + 1]];
    if (Number.isNaN(uv[2 * first])) continue;
    let flat = 0;
    for (let c = first; c < end; c++) {
      const d = c + 1 === end ? first : c + 1;
      flat += uv[2 * c] * uv[2 * d + 1] - uv[2 * d] * uv[2 * c + 1];
    }
    if (Math.abs(flat) < COLLAPSES * lengthOf(faceNormal(mesh, f))) collapsed.push(f);
    else if (flat < 0) mirrored.push(f);
  }
  return { collapsed, mirrored };
}
