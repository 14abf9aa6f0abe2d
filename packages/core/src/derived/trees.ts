import { current, type HemDocument, solidOf, topologyOf } from '../document/document.ts';
import type { Jobs } from '../jobs/index.ts';
import { unattended } from '../progress.ts';
import { type RayCaster, type RayTree, rayCaster } from '../surface/rays.ts';

/** What rays are cast at: the shown faces, on the model or in the flat. */
export interface FaceTree {
  readonly tree: RayTree;
  readonly cast: RayCaster;
  /** Face of each triangle. */
  readonly faceOf: Uint32Array;
}

/** xyz of a corner. */
export type PointOf = (corner: number) => readonly [number, number, number];

export const onModel = (document: HemDocument): PointOf => {
  const { positions, cornerVertex } = solidOf(document);
  return (c) => {
    const i = 3 * cornerVertex[c];
    return [positions[i], positions[i + 1], positions[i + 2]];
  };
};

export const inFlat = (document: HemDocument): PointOf => {
  const { uv } = current(document);
  return (c) => [uv[2 * c], uv[2 * c + 1], 0];
};

/** Trees are built when first asked for, and again when what they stand on has changed. */
const trees = new WeakMap<object, WeakMap<object, Promise<FaceTree>>>();

function treeOver(document: HemDocument, stand: object, pointOf: PointOf, jobs: Jobs): Promise<FaceTree> {
  let byHidden = trees.get(stand);
  if (!byHidden) {
    byHidden = new WeakMap();
    trees.set(stand, byHidden);
  }
  let tree = byHidden.get(document.hidden);
  if (!tree) {
    tree = build(document, pointOf, jobs);
    const own = byHidden;
    tree.catch(() => own.delete(document.hidden));
    byHidden.set(document.hidden, tree);
  }
  return tree;
}

async function build(document: HemDocument, pointOf: PointOf, jobs: Jobs): Promise<FaceTree> {
  const { triangleFace, triangleCorners } = topologyOf(document.model).triangulation;
  const points = new Float32Array(9 * triangleFace.length);
  const faceOf = new Uint32Array(triangleFace.length);
  let count = 0;
  for (let t = 0; t < triangleFace.length; t++) {
    if (document.hidden[triangleFace[t]]) continue;
    let whole = true;
    for (let k = 0; k < 3; k++) {
      const point = pointOf(triangleCorners[3 * t + k]);
      if (Number.isNaN(point[0])) whole = false;
      points.set(point, 9 * count + 3 * k);
    }
    if (whole) faceOf[count++] = triangleFace[t];
  }
  const tree = await jobs.run('ray-tree', points.slice(0, 9 * count), unattended);
  return { tree, cast: rayCaster(tree), faceOf: faceOf.slice(0, count) };
}

export const modelTree = (document: HemDocument, jobs: Jobs): Promise<FaceTree> =>
  treeOver(document, solidOf(document), onModel(document), jobs);

/** Over all faces, the hidden ones as well. */
export const wholeTree = (document: HemDocument, jobs: Jobs): Promise<FaceTree> =>
  modelTree(
    document.hidden.includes(1) ? { ...document, hidden: new Uint8Array(document.hidden.length) } : document,
    jobs,
  );

export const boardTree = (document: HemDocument, jobs: Jobs): Promise<FaceTree> =>
  treeOver(document, current(document).uv, inFlat(document), jobs);
