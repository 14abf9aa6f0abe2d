import { applyDelta, markChange } from '../../document/delta.ts';
import { current, type HemDocument, hasUv, shellsOf, topologyOf } from '../../document/document.ts';
import { knownFaces } from '../../document/known.ts';
import { densityOf } from '../../document/layout.ts';
import { HemError } from '../../errors.ts';
import { disjointSets, numberSets, unite } from '../../mesh/disjointSets.ts';
import { mainKind, partsBy } from '../../mesh/parts.ts';
import {
  about,
  choice,
  indices,
  number,
  optional,
  otherwise,
  positive,
  record,
  type Taken,
  tuple,
} from '../../params.ts';
import { plural } from '../../plural.ts';
import { type Frame, frameAbout, frameFacing } from '../../projections/frame.ts';
import { fittedFrame, PROJECTIONS, projectFaces, spoiltFaces } from '../../projections/projectFaces.ts';
import { borderOfFaces } from '../../select/borderOfFaces.ts';
import { facesOfShell, seamsFromUv } from '../../surface/shells.ts';
import { onBoard } from '../arrange/boardLayout.ts';
import { operation } from '../operation.ts';

export const projectParams = record({
  faces: about('faces that are laid flat, by number', indices),
  kind: about('what they are projected from', choice(...PROJECTIONS)),
  origin: about('where it stands; in the middle of the faces when absent', optional(tuple(3)), 'model units'),
  toward: about(
    'towards the viewer; of a wrap the middle of its sweep, opposite to its seam; of no certain length',
    optional(tuple(3)),
  ),
  up: about('what points up; the axis of a wrap; of no certain length', optional(tuple(3))),
  sweep: about('how much a wrap covers', otherwise(number(1, 360), 360), '°'),
  size: about(
    'how large it is shown: twice as large leaves half the room in the flat',
    otherwise(positive(), 1),
  ),
  each: about(
    'whether all faces go by one projection, or those of each shell or part by its own',
    otherwise(choice('together', 'shells', 'parts'), 'together'),
  ),
  caps: about(
    'faces that are seen edge-on, such as the caps of a post: projected along with the others, or each patch of them from a plane of its own',
    otherwise(choice('along', 'apart'), 'along'),
  ),
});
export type ProjectParams = Taken<typeof projectParams>;

/** Lays faces flat as a plane, cylinder, sphere or box sees them, at the scale of the rest. Seams run where the projection breaks and round its faces. */
export const project = operation({
  name: 'project',
  stage: 'unfold',
  params: projectParams,
  label: ({ faces, kind }) => `Project ${plural(faces.length, 'face')} from a ${kind}`,
  doing: 'Projecting',
  trial: (document, { faces }) => [...new Set(faces.map((f) => shellsOf(document).faceShell[f]))],
  run(document, params) {
    const { mesh, connectivity } = topologyOf(document.model);
    const { uv, projected, outside } = projectedUv(document, params);
    if (projected.length === 0)
      throw new HemError(
        'nothing-projected',
        'No face lies within the sweep: widen it, or turn its middle towards the faces.',
      );
    const { collapsed, mirrored } = spoiltFaces(mesh, projected, uv);
    if (collapsed.length === projected.length)
      throw new HemError(
        'edge-on',
        'All these faces are seen edge-on from there and would collapse to lines: turn the projection.',
        collapsed,
      );
    const taken = new Uint8Array(mesh.faceStart.length - 1);
    for (const f of projected) taken[f] = 1;
    const breaks = seamsFromUv(connectivity, uv);
    const isInside = (e: number): boolean => {
      const first = connectivity.edgeCornerStart[e];
      return (
        connectivity.isInterior[e] === 1 &&
        taken[connectivity.cornerFace[connectivity.edgeCorners[first]]] === 1 &&
        taken[connectivity.cornerFace[connectivity.edgeCorners[first + 1]]] === 1
      );
    };
    const border = borderOfFaces(connectivity, projected);
    const [cut, sewn]: [number[], number[]] = [border, []];
    for (let e = 0; e < breaks.length; e++)
      if (isInside(e)) {
        // Shells that are projected each by itself keep their seams.
        if (breaks[e]) cut.push(e);
        else if (params.each !== 'shells' && document.seams[e]) sewn.push(e);
      }
    const seams = [markChange(document, 'seams', cut, 1), markChange(document, 'seams', sewn, 0)];
    const after = applyDelta(document, { changes: seams, notes: [] });
    const { change, notes } = onBoard(after, placesOf(document, after, uv, projected, params.size));
    const marks = (['stale', 'relaxed'] as const).map((field) => markChange(after, field, projected, 0));
    return {
      changes: [...seams, change, ...marks],
      notes: [
        ...notes,
        ...told(outside.length, 'face', 'beyond the sweep', 'left as they are'),
        ...told(
          collapsed.length,
          'face',
          'seen edge-on',
          'get hardly any texture: let caps have planes of their own',
        ),
        ...told(mirrored.length, 'face', 'seen from behind', 'come out mirrored'),
      ],
    };
  },
});

const told = (count: number, thing: string, where: string, what: string): string[] =>
  count > 0 ? [`${plural(count, thing)} ${where}: ${what}.`] : [];

export interface Projected {
  /** UV of every corner, model units; NaN where nothing was projected. */
  readonly uv: Float64Array;
  readonly projected: readonly number[];
  /** Faces beyond the sweep. */
  readonly outside: readonly number[];
  /** Where the projection stands; of the first group where each has its own. */
  readonly frame: Frame;
}

/**
 * Projects faces as asked, without any place on the Board.
 *
 * @throws HemError when a direction has no length
 */
export function projectedUv(document: HemDocument, params: ProjectParams): Projected {
  const { mesh, connectivity } = topologyOf(document.model);
  const { kind, sweep } = params;
  const all = [...new Set(knownFaces(mesh, params.faces))];
  const { facePart } = partsBy(mainKind(document.model), document.model, connectivity);
  const groupOf = {
    together: () => 0,
    shells: (f: number) => shellsOf(document).faceShell[f],
    parts: (f: number) => facePart[f],
  }[params.each];
  const groups = new Map<number, number[]>();
  for (const f of all) {
    const group = groupOf(f);
    const faces = groups.get(group);
    if (faces) faces.push(f);
    else groups.set(group, [f]);
  }
  const uv = new Float64Array(2 * mesh.cornerVertex.length).fill(NaN);
  const outside: number[] = [];
  const frames: Frame[] = [];
  for (const faces of groups.values()) {
    const frame = frameOf(document, faces, params);
    frames.push(frame);
    const wrapped = projectFaces(mesh, faces, kind, frame, (sweep * Math.PI) / 180);
    outside.push(...wrapped.outside);
    for (const f of faces)
      for (let k = 2 * mesh.faceStart[f]; k < 2 * mesh.faceStart[f + 1]; k++)
        uv[k] = wrapped.uv[k] / params.size;
  }
  const beyond = new Set(outside);
  if (params.caps === 'apart') {
    const within = all.filter((f) => !beyond.has(f));
    for (const cap of islandsOf(document, spoiltFaces(mesh, within, uv).collapsed)) {
      const own = projectFaces(mesh, cap, 'plane', frameOf(document, cap, { kind: 'plane' }), 2 * Math.PI);
      for (const f of cap)
        for (let k = 2 * mesh.faceStart[f]; k < 2 * mesh.faceStart[f + 1]; k++)
          uv[k] = own.uv[k] / params.size;
    }
  }
  return { uv, projected: all.filter((f) => !beyond.has(f)), outside, frame: frames[0] };
}

/** Faces by the patches in which they hang together. */
function islandsOf(document: HemDocument, faces: readonly number[]): number[][] {
  const { connectivity } = topologyOf(document.model);
  const own = new Map(faces.map((f, i) => [f, i]));
  const sets = disjointSets(faces.length);
  for (let e = 0; e < connectivity.isInterior.length; e++) {
    if (!connectivity.isInterior[e]) continue;
    const first = connectivity.edgeCornerStart[e];
    const [a, b] = [0, 1].map((k) => own.get(connectivity.cornerFace[connectivity.edgeCorners[first + k]]));
    if (a !== undefined && b !== undefined) unite(sets, a, b);
  }
  const { label, count } = numberSets(sets);
  const islands: number[][] = Array.from({ length: count }, () => []);
  faces.forEach((f, i) => {
    islands[label[i]].push(f);
  });
  return islands;
}

/** Where the projection of some faces stands: as asked, the rest as it fits them. */
function frameOf(
  document: HemDocument,
  faces: readonly number[],
  { kind, origin, toward, up }: Pick<ProjectParams, 'kind' | 'origin' | 'toward' | 'up'>,
): Frame {
  for (const direction of [toward, up])
    if (direction && Math.hypot(...direction) < 1e-12)
      throw new HemError('no-direction', 'The projection has no direction: give it one that is not zero.');
  const fitted = fittedFrame(document.model.mesh, faces, kind, document);
  const at = origin ?? fitted.origin;
  return kind === 'plane'
    ? frameFacing(at, toward ?? fitted.toward, up ?? (toward ? undefined : fitted.up))
    : frameAbout(at, up ?? fitted.up, toward ?? fitted.toward);
}

/** The new shells at the scale of the rest, each with its middle where its faces lay before, if they did. */
function placesOf(
  before: HemDocument,
  after: HemDocument,
  uv: Float64Array,
  projected: readonly number[],
  size: number,
): Map<number, Float64Array> {
  const { mesh } = before.model;
  const { faceShell, wedgeStart, cornerWedge } = shellsOf(after);
  const density = (densityOf(before) ?? 1) * size;
  const old = current(before).uv;
  const uvOf = new Map<number, Float64Array>();
  for (const s of new Set(projected.map((f) => faceShell[f]))) {
    const own = new Float64Array(2 * (wedgeStart[s + 1] - wedgeStart[s]));
    const [was, is] = [
      [0, 0],
      [0, 0],
    ];
    let corners = 0;
    const faces = facesOfShell(shellsOf(after), s);
    for (const f of faces)
      for (let c = mesh.faceStart[f]; c < mesh.faceStart[f + 1]; c++, corners++) {
        const v = cornerWedge[c] - wedgeStart[s];
        for (const k of [0, 1]) {
          own[2 * v + k] = density * uv[2 * c + k];
          is[k] += density * uv[2 * c + k];
          was[k] += old[2 * c + k];
        }
      }
    const lay = [...new Set([...faces].map((f) => shellsOf(before).faceShell[f]))].every((each) =>
      hasUv(before, each),
    );
    const at = lay && Number.isFinite(was[0]) ? was.map((x) => x / corners) : [1.5, 0.5];
    uvOf.set(
      s,
      own.map((x, i) => x + at[i & 1] - is[i & 1] / corners),
    );
  }
  return uvOf;
}
