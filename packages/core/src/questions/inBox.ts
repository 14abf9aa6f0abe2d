import { modelTree } from '../derived/trees.ts';
import type { HemDocument } from '../document/document.ts';
import type { Mesh } from '../mesh/mesh.ts';
import { about, choice, flag, list, number, optional, record, type Taken, tuple } from '../params.ts';
import { TARGETS, targetOf } from '../select/targets/index.ts';
import { shellsAtEdges } from '../surface/shells.ts';
import { groundOf } from './ground.ts';
import { question } from './question.ts';

const params = record({
  target: about('what is looked for', choice(...TARGETS)),
  matrix: about('from the model to clip space, column-major 4 × 4', list(number())),
  rectangle: about('left, bottom, right, top in clip space', tuple(4)),
  outline: about(
    'x and y of one corner after the other in clip space: only what lies in it as well',
    optional(list(number())),
  ),
  eye: about('from where it is looked', tuple(3), 'model units'),
  visibleOnly: about('whether what is hidden from the eye is left out', flag()),
});

/** Points, edges, faces or shells of which all lies in a rectangle of the Model, or in an outline drawn on it; shells by their edges. */
export const inBox = question({
  name: 'in-box',
  params,
  async answer(document, query, context): Promise<number[]> {
    const ground = groundOf(document);
    const inside = verticesInBox(document.model.mesh, query);
    if (query.target !== 'shells') {
      const found = targetOf(query.target).onModel(ground, inside);
      return query.visibleOnly ? seenOf(document, query, found, context) : found;
    }
    if (!query.visibleOnly) return targetOf('shells').onModel(ground, inside);
    const edges = targetOf('edges').onModel(ground, inside);
    const seen = await seenOf(document, { ...query, target: 'edges' }, edges, context);
    return shellsAtEdges(ground.connectivity, ground.shells, seen);
  },
});

type Query = Taken<typeof params>;
type Context = Parameters<typeof inBox.answer>[2];

/** 1 for each vertex that lies in the rectangle. */
function verticesInBox({ positions }: Mesh, { matrix: m, rectangle, outline }: Query): Uint8Array {
  const inside = new Uint8Array(positions.length / 3);
  for (let v = 0; v < inside.length; v++) {
    const [x, y, z] = [positions[3 * v], positions[3 * v + 1], positions[3 * v + 2]];
    const w = m[3] * x + m[7] * y + m[11] * z + m[15];
    if (w <= 0) continue;
    const cx = (m[0] * x + m[4] * y + m[8] * z + m[12]) / w;
    const cy = (m[1] * x + m[5] * y + m[9] * z + m[13]) / w;
    const isNear = cx >= rectangle[0] && cx <= rectangle[2] && cy >= rectangle[1] && cy <= rectangle[3];
    if (isNear && (!outline || isWithin(outline, cx, cy))) inside[v] = 1;
  }
  return inside;
}

/** Whether a place lies in an outline, by how often a ray to the right crosses it. */
function isWithin(outline: readonly number[], x: number, y: number): boolean {
  let inside = false;
  for (let i = 0, j = outline.length - 2; i < outline.length; j = i, i += 2) {
    const [ax, ay, bx, by] = [outline[i], outline[i + 1], outline[j], outline[j + 1]];
    if (ay > y !== by > y && x < ax + ((y - ay) / (by - ay)) * (bx - ax)) inside = !inside;
  }
  return inside;
}

/** Those whose middle nothing hides from the eye. */
async function seenOf(
  document: HemDocument,
  { target, eye }: Query,
  found: readonly number[],
  context: Context,
): Promise<number[]> {
  const ground = groundOf(document);
  const { mesh } = ground;
  const { verticesOf } = targetOf(target);
  const targets = new Float64Array(3 * found.length);
  found.forEach((item, i) => {
    const vertices = verticesOf(ground, item);
    for (const v of vertices)
      for (let k = 0; k < 3; k++) targets[3 * i + k] += mesh.positions[3 * v + k] / vertices.length;
  });
  const { tree } = await modelTree(document, context.jobs);
  const seen = await context.jobs.run('in-sight', { tree, eye, targets }, context);
  return found.filter((_, i) => seen[i] === 1);
}
