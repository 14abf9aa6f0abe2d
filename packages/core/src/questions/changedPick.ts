import { topologyOf } from '../document/document.ts';
import { knownFaces } from '../document/known.ts';
import { HemError } from '../errors.ts';
import { faceNormals } from '../mesh/normals.ts';
import { knownEdges } from '../operations/cut/seamChange.ts';
import { about, choice, indicesOrNone, number, otherwise, record } from '../params.ts';
import { borderOfFaces } from '../select/borderOfFaces.ts';
import { connectedFaces } from '../select/connected.ts';
import { edgeRing } from '../select/edgeRing.ts';
import { foldChain } from '../select/foldChain.ts';
import { levelFaces } from '../select/levelFaces.ts';
import { straightOn } from '../select/straightOn.ts';
import { targetOf } from '../select/targets/index.ts';
import { pointAt } from '../select/targets/points.ts';
import type { Ground } from '../select/targets/target.ts';
import { facesOfShell } from '../surface/shells.ts';
import { groundOf } from './ground.ts';
import { question } from './question.ts';

/** Ways in which what is picked can be changed. */
export const CHANGES = [
  'grow',
  'shrink',
  'connected',
  'border',
  'fold',
  'straight',
  'ring',
  'level',
] as const;
export type PickChange = (typeof CHANGES)[number];

/** What is picked of each kind. */
export interface PickedItems {
  readonly points: number[];
  readonly edges: number[];
  readonly faces: number[];
}

/** What points, edges and faces become: larger, smaller, all that hangs together, their border, the fold or strip they lie on, or all level ground round them. */
export const changedPick = question({
  name: 'changed-pick',
  params: record({
    how: about('what becomes of what is picked', choice(...CHANGES)),
    points: about('points of the flat, by number', otherwise(indicesOrNone, [])),
    edges: about('edges, by number', otherwise(indicesOrNone, [])),
    faces: about('faces, by number', otherwise(indicesOrNone, [])),
    angle: about(
      'how much neighbouring faces may be turned on level ground',
      otherwise(number(0, 180), 20),
      '°',
    ),
  }),
  byHand: true,
  answer(document, { how, angle, ...picked }): PickedItems {
    const { model, seams } = document;
    const { mesh, connectivity } = topologyOf(model);
    const { points, edges, faces } = picked;
    knownEdges(document, edges);
    knownFaces(mesh, faces);
    if (points.some((c) => c >= mesh.cornerVertex.length))
      throw new HemError('no-such-element', 'Some of these points are not there any more.', points);
    const none = { points: [], edges: [], faces: [] };
    const ground = groundOf(document);
    switch (how) {
      case 'grow':
      case 'shrink': {
        const changed = (id: 'points' | 'edges' | 'faces') =>
          picked[id].length > 0 ? targetOf(id)[how](ground, picked[id]) : [];
        return { points: changed('points'), edges: changed('edges'), faces: changed('faces') };
      }
      case 'connected': {
        const beside = edges.map(
          (e) => connectivity.cornerFace[connectivity.edgeCorners[connectivity.edgeCornerStart[e]]],
        );
        const all = connectedFaces(mesh, connectivity, [...faces, ...beside]);
        return {
          ...none,
          points: allOfTheirShells(ground, points),
          faces: edges.length + faces.length > 0 ? all : [],
        };
      }
      case 'border':
        return { ...none, edges: borderOfFaces(connectivity, faces) };
      case 'fold': {
        const normals = faceNormals(mesh);
        return {
          ...none,
          edges: [...new Set(edges.flatMap((e) => foldChain(mesh, connectivity, normals, e)))],
        };
      }
      case 'straight':
        return {
          ...none,
          edges: [...new Set(edges.flatMap((e) => straightOn(mesh, connectivity, e, seams)))],
        };
      case 'ring':
        return { ...none, edges: [...new Set(edges.flatMap((e) => edgeRing(mesh, connectivity, e)))] };
      case 'level': {
        const radians = (angle * Math.PI) / 180;
        const isSeam = (e: number) => seams[e] === 1;
        return { ...none, faces: levelFaces(mesh, connectivity, faceNormals(mesh), faces, radians, isSeam) };
      }
    }
  },
});

/** All points of the shells that points are of. */
function allOfTheirShells({ mesh, connectivity, shells }: Ground, points: readonly number[]): number[] {
  const own = new Set(points.map((c) => shells.faceShell[connectivity.cornerFace[c]]));
  const found = new Set<number>();
  for (const s of own)
    for (const f of facesOfShell(shells, s))
      for (let c = mesh.faceStart[f]; c < mesh.faceStart[f + 1]; c++) found.add(pointAt(shells, c));
  return [...found];
}
