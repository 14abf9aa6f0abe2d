/**
 * What a document keeps beside its mesh and UVs, each named here and nowhere else: opening, patches, project files, storage and
 * remeshing go by this list.
 */

/** Marks: one byte an edge or a face, below a limit; 0 on a fresh document. */
export const MARKS = {
  /** Cut edges. */
  seams: { per: 'edge', limit: 2, changesFigures: true },
  /** Hidden faces. */
  hidden: { per: 'face', limit: 2, changesFigures: false },
  /** Faces whose shell was cut or sewn and not unfolded since. */
  stale: { per: 'face', limit: 2, changesFigures: true },
  /** Faces whose shell was relaxed since it was last unfolded. */
  relaxed: { per: 'face', limit: 2, changesFigures: false },
  /** The patch of each face, counted from 1 in the order of `patchNames`; 0 for none. */
  patches: { per: 'face', limit: 256, changesFigures: false },
} as const satisfies Record<string, MarkSpec>;

export interface MarkSpec {
  readonly per: 'edge' | 'face';
  /** Marks are less than this. */
  readonly limit: number;
  /** Whether figures of the shells at changed marks are out of date. */
  readonly changesFigures: boolean;
}

export type MarkField = keyof typeof MARKS;
export const MARK_FIELDS = Object.keys(MARKS) as MarkField[];
export const FACE_MARKS = MARK_FIELDS.filter((field) => MARKS[field].per === 'face');

/** Values of the whole document, plain JSON, with what a fresh one has. */
export const VALUES: Values = {
  /** The UV set that is shown, solved and exported. */
  currentUv: 0,
  /** 1 once the artist has placed shells, which then keep their places; until then every act lays all of them out afresh. */
  placed: 0,
  /** Which axis of the model points up: 0 for y, 1 for z. It changes how it is shown and which way shells stand, not the model. */
  upAxis: 0,
  /** Of patches; one that was taken away leaves an empty name, so that the others keep their numbers. */
  patchNames: [],
};

export interface Values {
  readonly currentUv: number;
  readonly placed: number;
  readonly upAxis: number;
  readonly patchNames: readonly string[];
}
export type ValueField = keyof Values;
export const VALUE_FIELDS = Object.keys(VALUES) as ValueField[];

/** What fields look like in a document. */
export type Marks = { readonly [F in MarkField]: Uint8Array };

/** Nothing marked. */
export const blankMarks = (faces: number, edges: number): Marks =>
  Object.fromEntries(
    MARK_FIELDS.map((field) => [field, new Uint8Array(MARKS[field].per === 'edge' ? edges : faces)]),
  ) as Record<MarkField, Uint8Array> as Marks;

/** Axes that may point up, in the order of `upAxis`. */
export const UP_AXES = ['y', 'z'] as const;
