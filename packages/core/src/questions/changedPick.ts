import { topologyOf } from '../document/document.ts';
import { faceNormals } from '../mesh/normals.ts';
import { knownEdges } from '../operations/cut/seamChange.ts';
import { knownFaces } from '../operations/known.ts';
import { choice, indicesOrNone, number, otherwise, record } from '../params.ts';
import { borderOfFaces } from '../select/borderOfFaces.ts';
import { connectedFaces } from '../select/connected.ts';
import { edgeRing } from '../select/edgeRing.ts';
import { foldChain } from '../select/foldChain.ts';
import { levelFaces } from '../select/levelFaces.ts';
import { grownEdges, grownFaces, shrunkEdges, shrunkFaces } from '../select/neighbourhood.ts';
import { straightOn } from '../select/straightOn.ts';
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

/** What edges and faces become: larger, smaller, all that hangs together, their border, the fold or strip they lie on, or all level ground round them. */
export const changedPick = question({
  name: 'changed-pick',
  params: record({
    how: choice(...CHANGES),
    edges: otherwise(indicesOrNone, []),
    faces: otherwise(indicesOrNone, []),
    /** Degrees, for level ground. */
    angle: otherwise(number(0, 180), 20),
  }),
  answer(document, { how, edges, faces, angle }): { readonly edges: number[]; readonly faces: number[] } {
    const { model, seams } = document;
    const { mesh, links } = topologyOf(model);
    knownEdges(document, edges);
    knownFaces(mesh, faces);
    switch (how) {
      case 'grow':
        return { edges: grownEdges(links, edges), faces: grownFaces(mesh, faces) };
      case 'shrink':
        return { edges: shrunkEdges(links, edges), faces: shrunkFaces(mesh, links, faces) };
      case 'connected': {
        const beside = edges.map((e) => links.cornerFace[links.edgeCorners[links.edgeCornerStart[e]]]);
        return { edges: [], faces: connectedFaces(mesh, links, [...faces, ...beside]) };
      }
      case 'border':
        return { edges: borderOfFaces(links, faces), faces: [] };
      case 'fold': {
        const normals = faceNormals(mesh);
        return { edges: [...new Set(edges.flatMap((e) => foldChain(mesh, links, normals, e)))], faces: [] };
      }
      case 'straight':
        return { edges: [...new Set(edges.flatMap((e) => straightOn(mesh, links, e, seams)))], faces: [] };
      case 'ring':
        return { edges: [...new Set(edges.flatMap((e) => edgeRing(mesh, links, e)))], faces: [] };
      case 'level': {
        const radians = (angle * Math.PI) / 180;
        const isSeam = (e: number) => seams[e] === 1;
        return { edges: [], faces: levelFaces(mesh, links, faceNormals(mesh), faces, radians, isSeam) };
      }
    }
  },
});
