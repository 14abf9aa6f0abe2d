import { shellOf, shellsOf, shellUv, topologyOf } from '../../document/document.ts';
import { knownFaces } from '../../document/known.ts';
import { HemError } from '../../errors.ts';
import { about, indices, record } from '../../params.ts';
import { plural } from '../../plural.ts';
import { bestQuarterTurn, bestSimilarity, transformUv } from '../../surface/similarity.ts';
import { straightRows } from '../../unfold/straightRows.ts';
import { operation } from '../operation.ts';
import { inside, movedPoints } from './movedPoints.ts';

/** Lays a grid of quads square where it lies: rows and columns straight, each as wide as its edges are long on the model on average. */
export const squareGrid = operation({
  name: 'square-grid',
  stage: 'arrange',
  params: record({
    faces: about('quads of one shell that make a grid, by number', indices),
    inside,
  }),
  label: ({ faces }) => `Lay a grid of ${plural(faces.length, 'quad')} square`,
  doing: 'Laying a grid square',
  run(document, { faces, inside: how }, context) {
    knownFaces(document.model.mesh, faces);
    const { faceShell } = shellsOf(document);
    const s = faceShell[faces[0]];
    if (faces.some((f) => faceShell[f] !== s))
      throw new HemError('several-shells', 'These faces are of several shells: choose those of one.', faces);
    const shell = shellOf(document, s);
    const before = shellUv(document, shell);
    if (!before)
      throw new HemError('nothing-unfolded', 'This shell lies nowhere on the Board: unfold it first.', faces);
    const grid = straightRows({ ...gridOf(shell, new Set(faces)), positions: shell.positions });
    const vertices = [...shell.vertexCorner.keys()].filter((v) => !Number.isNaN(grid[2 * v]));
    const pick = (uv: Float64Array) => Float64Array.from(vertices.flatMap((v) => [uv[2 * v], uv[2 * v + 1]]));
    const [from, to] = [pick(grid), pick(before)];
    const [a, b] = bestSimilarity(from, to);
    const placed = transformUv(from, bestQuarterTurn(from, to, Math.hypot(a, b)));
    const { cornerFace } = topologyOf(document.model).connectivity;
    return movedPoints(
      document,
      vertices.map((v, i) => ({
        vertex: document.model.mesh.cornerVertex[shell.vertexCorner[v]],
        face: cornerFace[shell.vertexCorner[v]],
        uv: [placed[2 * i], placed[2 * i + 1]] as const,
      })),
      how,
      context,
    );
  },
});

/** Some polygons of a shell, in their order. */
function gridOf(
  { polygons, triangleFace }: Pick<ReturnType<typeof shellOf>, 'polygons' | 'triangleFace'>,
  wanted: ReadonlySet<number>,
) {
  const names = [...new Set(triangleFace)];
  if (!polygons) return { polygons, triangleFace: Uint32Array.from(names.filter((f) => wanted.has(f))) };
  const corners: number[] = [];
  const starts = [0];
  names.forEach((f, i) => {
    if (!wanted.has(f)) return;
    corners.push(...polygons.cornerVertex.subarray(polygons.faceStart[i], polygons.faceStart[i + 1]));
    starts.push(corners.length);
  });
  return {
    polygons: { faceStart: Uint32Array.from(starts), cornerVertex: Uint32Array.from(corners) },
    triangleFace: Uint32Array.from(names.filter((f) => wanted.has(f))),
  };
}
