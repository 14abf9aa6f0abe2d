import { HemError } from '../errors.ts';
import { runsOfEdges } from '../select/orderedRun.ts';
import { distanceFrom } from '../surface/distanceFrom.ts';
import { facesOfShell } from '../surface/shells.ts';
import type { CutModel } from './shiftSeam.ts';
import { straightRun } from './straightRun.ts';

/**
 * A dart widened to an opening: two lines from its pivot, between which lies all that is nearer to the dart than a part of the way from the pivot. Cut,
 * they leave a gusset, which is a shell of its own, and the rest can open as far as it wants to.
 *
 * @param dart  edges from the pivot, which lies within a shell, to a border or a seam
 * @param width  on either side, as a part of the way from the pivot; above 0
 * @throws HemError when it is no dart, or too narrow for the mesh
 */
export function widenDart(model: CutModel, dart: readonly number[], width: number): number[] {
  const { mesh, connectivity, seams, shells } = model;
  const runs = runsOfEdges(connectivity, dart);
  const isEnd = (v: number): boolean => {
    for (let i = connectivity.vertexEdgeStart[v]; i < connectivity.vertexEdgeStart[v + 1]; i++) {
      const e = connectivity.vertexEdges[i];
      if (!connectivity.isInterior[e] || seams[e]) return true;
    }
    return false;
  };
  const [run] = runs;
  const ends = run && [run.vertices[0], run.vertices[run.vertices.length - 1]];
  const pivot = ends?.find((v) => !isEnd(v));
  if (runs.length !== 1 || pivot === undefined || !ends.some(isEnd) || dart.some((e) => seams[e]))
    throw new HemError(
      'no-dart',
      'Only a dart can be widened: edges from a place within a shell to its border.',
      dart,
    );
  const { faceShell } = shells;
  const s =
    faceShell[connectivity.cornerFace[connectivity.edgeCorners[connectivity.edgeCornerStart[run.edges[0]]]]];
  const shell = model.shell(s);
  const onDart = new Set(run.vertices);
  const vertexOf = (v: number) => mesh.cornerVertex[shell.vertexCorner[v]];
  const all = [...shell.vertexCorner.keys()];
  const beside = distanceFrom(
    shell.positions,
    shell.triangles,
    all.filter((v) => onDart.has(vertexOf(v))),
  );
  const along = distanceFrom(
    shell.positions,
    shell.triangles,
    all.filter((v) => vertexOf(v) === pivot),
  );
  const gusset = new Set<number>();
  for (const f of facesOfShell(shells, s)) {
    let [near, far] = [0, 0];
    for (let c = mesh.faceStart[f]; c < mesh.faceStart[f + 1]; c++) {
      const v = shells.cornerWedge[c] - shells.wedgeStart[s];
      near += beside[v];
      far += along[v];
    }
    if (near <= width * far) gusset.add(f);
  }
  const border = new Set<number>();
  for (const f of gusset)
    for (let c = mesh.faceStart[f]; c < mesh.faceStart[f + 1]; c++) {
      const e = connectivity.cornerEdge[c];
      const first = connectivity.edgeCornerStart[e];
      const isInside = connectivity.isInterior[e] === 1 && !seams[e];
      if (
        isInside &&
        [0, 1].some((k) => !gusset.has(connectivity.cornerFace[connectivity.edgeCorners[first + k]]))
      )
        border.add(e);
    }
  const lines = runsOfEdges(connectivity, border);
  if (lines.length === 0)
    throw new HemError('no-room', 'So narrow an opening has no face of this mesh in it: widen it.');
  // Each of the two lines by itself, so that the point between them stays one.
  const far = (v: number) =>
    Math.hypot(...[0, 1, 2].map((k) => mesh.positions[3 * v + k] - mesh.positions[3 * pivot + k]));
  return lines.flatMap(({ edges, vertices }) => {
    const at = vertices.reduce((best, v, i) => (far(v) < far(vertices[best]) ? i : best), 0);
    const part = (from: number, to: number) =>
      from === to
        ? []
        : straightRun(model, {
            edges: edges.slice(from, to),
            vertices: vertices.slice(from, to + 1),
            closed: false,
          });
    return [...part(0, at), ...part(at, edges.length)];
  });
}
