import type { Connectivity } from '../../mesh/connectivity.ts';
import type { Mesh } from '../../mesh/mesh.ts';
import type { ShellMap } from '../../surface/shells.ts';

/** What targets are looked for on. */
export interface Ground {
  readonly mesh: Mesh;
  readonly connectivity: Connectivity;
  readonly shells: ShellMap;
  /** 1 for each face that is hidden: nothing of it is found. */
  readonly hidden: Uint8Array;
}

/** An edge, a face and a point at one place. */
export interface Spot {
  readonly edge: number;
  readonly face: number;
  readonly point: number;
}

/** Something that a hand picks. */
export interface Target<Id extends string = string> {
  readonly id: Id;
  /** One and many. */
  readonly thing: readonly [one: string, many: string];
  /** Those of which all lies at marked vertices of the model. */
  onModel(ground: Ground, inside: Uint8Array): number[];
  /** Those of which all of one side lies at marked corners of the flat. */
  inFlat(ground: Ground, inside: Uint8Array): number[];
  /** Vertices of one: whether it is seen is told by their middle. */
  verticesOf(ground: Ground, item: number): Uint32Array;
  /** Of faces under a brush, those that it covers. */
  underBrush(ground: Ground, faces: readonly number[], isIn: (vertex: number) => boolean): number[];
  /** With what is beside them, and without those that are beside others. */
  grow(ground: Ground, items: readonly number[]): number[];
  shrink(ground: Ground, items: readonly number[]): number[];
  /** Where keys can go from one. */
  neighbours(ground: Ground, item: number): Spot[];
  /** How many there are. */
  count(ground: Ground): number;
}

/** Faces of an edge that are shown. */
export function shownFacesAt({ connectivity, hidden }: Ground, edge: number): number[] {
  const { edgeCornerStart, edgeCorners, cornerFace } = connectivity;
  const faces: number[] = [];
  for (let i = edgeCornerStart[edge]; i < edgeCornerStart[edge + 1]; i++)
    if (!hidden[cornerFace[edgeCorners[i]]]) faces.push(cornerFace[edgeCorners[i]]);
  return faces;
}
