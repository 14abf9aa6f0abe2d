import { topologyOf } from '../document/document.ts';
import { knownFaces } from '../document/known.ts';
import { knownEdges } from '../operations/cut/seamChange.ts';
import { about, choice, indicesOrNone, record, tuple, whole } from '../params.ts';
import { meanEdge } from '../symmetry/counterparts.ts';
import { isometryOf, type Symmetry } from '../symmetry/findSymmetry.ts';
import { edgesByPlace, facesByPlace } from '../symmetry/imagesByPlace.ts';
import { question } from './question.ts';

export interface PlacedImages {
  readonly edges: readonly number[];
  readonly faces: readonly number[];
  /** The farthest that anything lies from where it should, in lengths of an edge. */
  readonly off: number;
}

/** What edges and faces become under a symmetry of a surface whose sides are triangulated differently. */
export const imagesByPlace = question({
  name: 'images-by-place',
  params: record({
    symmetry: about(
      'the plane or the axis',
      record({
        kind: choice('mirror', 'turn'),
        direction: tuple(3),
        through: tuple(3),
        fold: whole(2),
      }),
    ),
    edges: about('edges, by number', indicesOrNone),
    faces: about('faces, by number', indicesOrNone),
  }),
  several: true,
  byHand: true,
  answer(document, { symmetry, edges, faces }): PlacedImages {
    const { mesh, connectivity } = topologyOf(document.model);
    const isometry = isometryOf(symmetry as Symmetry);
    let [nextEdges, nextFaces] = [knownEdges(document, edges), knownFaces(mesh, faces)];
    const found = { edges: new Set<number>(), faces: new Set<number>() };
    let off = 0;
    // Again and again, until it comes round.
    for (let k = 1; k < symmetry.fold; k++) {
      const [e, f] = [
        edgesByPlace(mesh, connectivity, isometry, nextEdges),
        facesByPlace(mesh, connectivity, isometry, nextFaces),
      ];
      for (const each of e.items) found.edges.add(each);
      for (const each of f.items) found.faces.add(each);
      off = Math.max(off, e.off, f.off);
      [nextEdges, nextFaces] = [e.items, f.items];
    }
    return {
      edges: [...found.edges],
      faces: [...found.faces],
      off: off / (meanEdge(mesh, connectivity) || 1),
    };
  },
});
