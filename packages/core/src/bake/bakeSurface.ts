import { current, type HemDocument, shellsOf, solidOf, topologyOf } from '../document/document.ts';
import { cornerNormals } from '../formats/cornerNormals.ts';
import { boundingBox } from '../mesh/mesh.ts';
import { vertexNormals } from '../mesh/normals.ts';
import { mainKind, partsBy } from '../mesh/parts.ts';
import { meanCurvature } from '../surface/meanCurvature.ts';

/** What of a model maps are made from, triangle by triangle: plain data, worked out once and handed to every thread. */
export interface BakeSurface {
  /** xyz of the corners of every triangle, `9 × triangleCount`. */
  readonly points: Float32Array;
  /** Unit normals there: as the model is shaded, and the same on both sides of every edge. */
  readonly normals: Float32Array;
  readonly smoothNormals: Float32Array;
  /** u and v of the corners, `6 × triangleCount`; NaN where there are none. */
  readonly uv: Float64Array;
  readonly box: Float64Array;
  /** Diagonal of the box, never 0. */
  readonly size: number;
  /** Mean curvature at the corners, `3 × triangleCount`; empty where it is not needed. */
  readonly curvature: Float32Array;
  /** Number of the part, patch or shell of each triangle; empty where it is not needed. */
  readonly labels: Uint32Array;
}

/** What some maps need beside points and normals. */
export type BakeNeed = 'curvature' | 'parts' | 'patches' | 'shells';

export function bakeSurface(document: HemDocument, need: BakeNeed | undefined): BakeSurface {
  const { triangleCorners, triangleFace } = topologyOf(document.model).triangulation;
  const solid = solidOf(document);
  const { positions, cornerVertex } = solid;
  const vertices = Uint32Array.from(triangleCorners, (c) => cornerVertex[c]);
  const box = boundingBox(positions);
  const labels = need && need !== 'curvature' ? labelsOf(document, need) : [];
  return {
    points: gathered(positions, vertices, 3),
    normals: gathered(cornerNormals(document.model), triangleCorners, 3),
    smoothNormals: gathered(vertexNormals(solid), vertices, 3),
    uv: Float64Array.from(
      { length: 2 * triangleCorners.length },
      (_, i) => current(document).uv[2 * triangleCorners[i >> 1] + (i & 1)],
    ),
    box,
    size: Math.hypot(box[3] - box[0], box[4] - box[1], box[5] - box[2]) || 1,
    curvature:
      need === 'curvature' ? gathered(meanCurvature(positions, vertices), vertices, 1) : new Float32Array(0),
    labels: Uint32Array.from(labels.length > 0 ? triangleFace : [], (f) => labels[f]),
  };
}

/** Some values of each of a list of items. */
function gathered(values: ArrayLike<number>, items: ArrayLike<number>, each: number): Float32Array {
  const list = new Float32Array(each * items.length);
  for (let i = 0; i < items.length; i++)
    for (let k = 0; k < each; k++) list[each * i + k] = values[each * items[i] + k];
  return list;
}

function labelsOf(document: HemDocument, of: Exclude<BakeNeed, 'curvature'>): ArrayLike<number> {
  if (of === 'patches') return document.patches;
  if (of === 'shells') return shellsOf(document).faceShell;
  const { connectivity } = topologyOf(document.model);
  return partsBy(mainKind(document.model), document.model, connectivity).facePart;
}
