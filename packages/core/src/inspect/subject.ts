import { current, type HemDocument, shellsOf, topologyOf } from '../document/document.ts';
import { flatTriangles, shellBoxes } from '../document/layout.ts';
import { stacksOf } from '../document/stacks.ts';
import { shellsOverlap } from '../measure/overlap.ts';
import { COLLAPSED, NO_SURFACE } from '../measure/stretch.ts';
import { areaOfTriangle } from '../surface/areas.ts';
import type { UvBox } from '../surface/uvBox.ts';

/** What lies flat, as inspections look at it. */
export interface Subject {
  readonly document: HemDocument;
  /** Where each shell lies; undefined for one with missing UVs. */
  readonly boxes: readonly (UvBox | undefined)[];
  /** Of every face, on the model and in the flat, negative where it lies upside down; NaN without UVs. */
  readonly area: Float64Array;
  readonly flatArea: Float64Array;
  /** Faces with a triangle that is upside down, and with one that has no area; as `measureStretch` counts them. */
  readonly flipped: readonly number[];
  readonly collapsed: readonly number[];
  /** Faces that lie on each other, two a pair, but for those of shells that are stacked exactly. */
  readonly overlaps: Uint32Array;
  /** Shells that lie on one another in one box, two or more a stack. */
  readonly stacks: readonly (readonly number[])[];
  /** Shells nearer to one another than the padding, two a pair. */
  readonly near: Uint32Array;
  /** Whether more faces may lie on each other than these. */
  readonly atLeast: boolean;
}

export function subjectOf(
  document: HemDocument,
  overlaps: Uint32Array,
  near: Uint32Array,
  atLeast = false,
): Subject {
  const { mesh, triangulation } = topologyOf(document.model);
  const { uv } = current(document);
  const { triangleCorners, triangleFace } = triangulation;
  const faces = mesh.faceStart.length - 1;
  const area = new Float64Array(faces);
  const flatArea = new Float64Array(faces);
  const areas = new Float64Array(triangleFace.length);
  const flatAreas = new Float64Array(triangleFace.length);
  for (let t = 0; t < triangleFace.length; t++) {
    const [i, j, k] = triangleCorners.subarray(3 * t, 3 * t + 3);
    areas[t] = areaOfTriangle(
      mesh.positions,
      mesh.cornerVertex[i],
      mesh.cornerVertex[j],
      mesh.cornerVertex[k],
    );
    flatAreas[t] =
      0.5 *
      ((uv[2 * j] - uv[2 * i]) * (uv[2 * k + 1] - uv[2 * i + 1]) -
        (uv[2 * j + 1] - uv[2 * i + 1]) * (uv[2 * k] - uv[2 * i]));
    area[triangleFace[t]] += areas[t];
    flatArea[triangleFace[t]] += flatAreas[t];
  }
  const { shellCount, faceShell } = shellsOf(document);
  const [whole, flat] = [new Float64Array(shellCount), new Float64Array(shellCount)];
  for (let t = 0; t < areas.length; t++) {
    whole[faceShell[triangleFace[t]]] += areas[t];
    flat[faceShell[triangleFace[t]]] += Math.abs(flatAreas[t]);
  }
  const boxes = shellBoxes(document);
  const [flipped, collapsed] = [new Set<number>(), new Set<number>()];
  for (let t = 0; t < areas.length; t++) {
    const f = triangleFace[t];
    const s = faceShell[f];
    // A shell of which a part lies nowhere has no figures yet.
    if (!boxes[s] || areas[t] <= NO_SURFACE * whole[s]) continue;
    if (Math.abs(flatAreas[t]) <= COLLAPSED * areas[t] * (flat[s] / whole[s])) collapsed.add(f);
    else if (flatAreas[t] < 0) flipped.add(f);
  }
  return {
    document,
    boxes,
    area,
    flatArea,
    flipped: [...flipped],
    collapsed: [...collapsed],
    overlaps,
    stacks: overlappingStacks(document, boxes),
    near,
    atLeast,
  };
}

/** Stacks without what only lies beside the others in their box. */
function overlappingStacks(document: HemDocument, boxes: Subject['boxes']): number[][] {
  return stacksOf(boxes).flatMap(([first, ...others]) => {
    const flat = flatTriangles(document, first);
    const on = others.filter((s) => shellsOverlap(flat, flatTriangles(document, s)));
    return on.length > 0 ? [[first, ...on]] : [];
  });
}

/** Sums of faces for each shell. */
export function perShell({ document }: Subject, values: Float64Array): Float64Array {
  const { shellCount, faceShell } = shellsOf(document);
  const sums = new Float64Array(shellCount);
  for (let f = 0; f < values.length; f++) sums[faceShell[f]] += values[f];
  return sums;
}
