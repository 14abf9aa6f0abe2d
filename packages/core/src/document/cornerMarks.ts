import type { Model } from '../mesh/model.ts';
import { type HemDocument, topologyOf } from './document.ts';
import { MARKS, type MarkArray, type MarkField } from './fields.ts';
import { GRAIN, turnedGrain } from './grainMark.ts';

/** Marks of edges as marks of corners and back: corners last through an edit of the mesh, the numbers of edges do not. */

/** Marks of edges from those of a corner that begins them, with the way of the edge told from there. */
export function marksOfEdges(model: Model, markAt: (corner: number) => number): Uint8Array {
  const { cornerEdge, nextCorner, isInterior } = topologyOf(model).connectivity;
  const { cornerVertex } = model.mesh;
  const marks = new Uint8Array(isInterior.length);
  for (let c = 0; c < cornerEdge.length; c++) {
    const mark = markAt(c);
    if (mark === 0) continue;
    const isBack = cornerVertex[c] > cornerVertex[nextCorner[c]];
    marks[cornerEdge[c]] = isBack ? turnedGrain(mark) : mark;
  }
  return marks;
}

/** Marks of faces and corners as they are, and those of edges once at each corner that begins one, told from there. */
export function marksAtCorners(document: HemDocument, field: MarkField): MarkArray {
  const marks = document[field];
  if (MARKS[field].per !== 'edge') return marks;
  const { cornerEdge, nextCorner } = topologyOf(document.model).connectivity;
  const { cornerVertex } = document.model.mesh;
  return Uint8Array.from(cornerEdge, (e, c) =>
    marks[e] > GRAIN.up && cornerVertex[c] > cornerVertex[nextCorner[c]] ? turnedGrain(marks[e]) : marks[e],
  );
}
