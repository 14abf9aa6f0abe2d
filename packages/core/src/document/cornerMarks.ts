import type { Model } from '../mesh/model.ts';
import { type HemDocument, topologyOf } from './document.ts';
import { MARKS, type MarkArray, type MarkField } from './fields.ts';

/** Marks of edges as marks of corners and back: corners last through an edit of the mesh, the numbers of edges do not. */

/** Marks of edges from what is so at a corner that begins them. */
export function marksOfEdges(model: Model, isMarked: (corner: number) => boolean): Uint8Array {
  const { cornerEdge, isInterior } = topologyOf(model).connectivity;
  const marks = new Uint8Array(isInterior.length);
  for (let c = 0; c < cornerEdge.length; c++) if (isMarked(c)) marks[cornerEdge[c]] = 1;
  return marks;
}

/** Marks of faces and corners as they are, and those of edges once at each corner that begins one. */
export function marksAtCorners(document: HemDocument, field: MarkField): MarkArray {
  const marks = document[field];
  if (MARKS[field].per !== 'edge') return marks;
  return Uint8Array.from(topologyOf(document.model).connectivity.cornerEdge, (e) => marks[e]);
}
