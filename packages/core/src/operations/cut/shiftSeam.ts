import type Joi from 'joi';
import { keepsPlaces } from '../../document/constraints.ts';
import { applyDelta, type Change, type Delta, markChange } from '../../document/delta.ts';
import {
  current,
  type HemDocument,
  shellOf,
  shellsOf,
  shellUv,
  topologyOf,
  uvOfShell,
} from '../../document/document.ts';
import { about, indices, number, optional, record, type Taken, whole } from '../../params.ts';
import { plural } from '../../plural.ts';
import { type CutModel, type Shift, type ShiftedSeam, shiftSeam as shifted } from '../../seams/shiftSeam.ts';
import { signedArea } from '../../surface/flatArea.ts';
import { restTriangles } from '../../surface/restTriangles.ts';
import { extractShell } from '../../surface/shell.ts';
import { shellsFromSeams } from '../../surface/shells.ts';
import { onBoard } from '../arrange/boardLayout.ts';
import { type OperationContext, operation } from '../operation.ts';
import { reflatten } from './reflatten.ts';
import { changeSeams, knownEdges } from './seamChange.ts';

const fields = record({
  edges: about('edges of one run of seam, by number', indices),
  to: about('the vertex to which it moves; this, or rows', optional(whole())),
  rows: about(
    'how far it moves to its left; below zero, to its right',
    optional(number(-1000, 1000)),
    'rows of edges',
  ),
});
export const params: typeof fields = (fields as Joi.ObjectSchema).xor('to', 'rows');

/** A seam moves over. What it passes goes with the shell on its other side and is laid beside it; all else keeps its UVs. */
export const shiftSeam = operation({
  name: 'shift-seam',
  stage: 'cut',
  params,
  label: ({ edges }) => `Shift a seam of ${plural(edges.length, 'edge')}`,
  doing: 'Shifting a seam',
  followUps: reflatten,
  async run(document, given, context) {
    const shift = shiftOf(document, given);
    const sewing = changeSeams(document, shift.sewn, 0);
    const between = applyDelta(document, sewing);
    const cutting = changeSeams(between, shift.cut, 1);
    const seams = [...sewing.changes, ...cutting.changes].filter(
      (change) => change.kind === 'marks' && change.field === 'seams',
    );
    const after = applyDelta(document, { changes: seams, notes: [] });
    return (
      (await laidBeside(document, after, shift, seams, context)) ?? {
        changes: [...sewing.changes, ...cutting.changes],
        notes: [],
      }
    );
  },
});

/** A document as a model that is cut. */
export const cutModel = (document: HemDocument): CutModel => ({
  ...topologyOf(document.model),
  seams: document.seams,
  shells: shellsOf(document),
  shell: (s: number) => shellOf(document, s),
});

/** What shifting the seam would change. */
export function shiftOf(document: HemDocument, { edges, to, rows }: Taken<typeof params>): ShiftedSeam {
  knownEdges(document, edges);
  return shifted(cutModel(document), edges, (to === undefined ? { rows } : { to }) as Shift);
}

/** The strip laid to the shell that it goes to, all else where it was; undefined where it has nothing to be laid to, or would fold. */
async function laidBeside(
  document: HemDocument,
  after: HemDocument,
  { strip, sewn }: ShiftedSeam,
  seams: readonly Change[],
  context: OperationContext,
): Promise<Delta | undefined> {
  if (strip.length === 0) return undefined;
  const { mesh, connectivity, triangulation, triangleStart } = topologyOf(document.model);
  const { uv } = current(document);
  const inStrip = new Set(strip);
  const next = uv.slice();
  // The strip by itself: cut off along the old seam as well.
  const apart = after.seams.slice();
  for (const e of sewn) apart[e] = 1;
  const pieces = shellsFromSeams(mesh, connectivity, apart);
  const placed = new Map<number, readonly [number, number]>();
  let stays = -1;
  for (const e of sewn) {
    const [a, b] = [0, 1].map((k) => connectivity.edgeCorners[connectivity.edgeCornerStart[e] + k]);
    const [own, other] = inStrip.has(connectivity.cornerFace[a]) ? [a, b] : [b, a];
    stays = connectivity.cornerFace[other];
    placed.set(pieces.cornerWedge[own], placeOf(connectivity.nextCorner[other]));
    placed.set(pieces.cornerWedge[connectivity.nextCorner[own]], placeOf(other));
  }
  const target = shellsOf(after).faceShell[stays];
  if (stays < 0 || strip.some((f) => document.stale[f]) || document.stale[stays]) return undefined;
  const perUnit = scaleOf(document, stays);
  if (perUnit === undefined) return undefined;
  for (const s of new Set(strip.map((f) => pieces.faceShell[f]))) {
    const shell = extractShell(mesh, triangulation, triangleStart, pieces, s);
    const pins = [...shell.vertexCorner.keys()].filter((v) => placed.has(pieces.wedgeStart[s] + v));
    const places = pins.flatMap((v) => placed.get(pieces.wedgeStart[s] + v) as readonly [number, number]);
    const laid = await context.jobs.run('lay-strip', { shell, pins, places, perUnit }, context);
    if (!laid) return undefined;
    for (const f of new Set(shell.triangleFace))
      for (let c = mesh.faceStart[f]; c < mesh.faceStart[f + 1]; c++) {
        const v = pieces.cornerWedge[c] - pieces.wedgeStart[s];
        next[2 * c] = laid[2 * v];
        next[2 * c + 1] = laid[2 * v + 1];
      }
  }
  const moved = shellOf(after, target);
  const laid = new Map([[target, uvOfShell(moved, next)]]);
  const { change, notes } = keepsPlaces(after) ? onBoard(after, new Map(), laid) : onBoard(after, laid);
  const relaxed = markChange(document, 'relaxed', strip, document.relaxed[stays]);
  return { changes: [...seams, change, relaxed], notes };

  function placeOf(corner: number): readonly [number, number] {
    return [uv[2 * corner], uv[2 * corner + 1]];
  }
}

/** Model units to a UV unit in the shell of a face; undefined without UVs. */
function scaleOf(document: HemDocument, face: number): number | undefined {
  const shell = shellOf(document, shellsOf(document).faceShell[face]);
  const uv = shellUv(document, shell);
  const flat = uv && signedArea(shell.triangles, uv);
  if (!flat || flat <= 0) return undefined;
  const { area } = restTriangles(shell.positions, shell.triangles);
  return Math.sqrt(area.reduce((sum, a) => sum + a, 0) / flat);
}
