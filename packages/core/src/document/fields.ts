import { FIRST_TILE, type Tile } from '../surface/tiles.ts';
import { LIMIT_PRESETS, type Limits } from './limits.ts';

/**
 * What a document keeps beside its mesh and UVs, each named here and nowhere else: opening, patches, project files, storage and
 * remeshing go by this list.
 */

/**
 * Marks: a byte for each edge, face or corner, or what is told as `array` where a byte is too little; below a limit, 0 on a fresh document. What is of a UV set changes with
 * the set that is current.
 */
export const MARKS = {
  /** Cut edges. */
  seams: { per: 'edge', of: 'set', limit: 2, changesFigures: true },
  /** Hidden faces. */
  hidden: { per: 'face', of: 'model', limit: 2, changesFigures: false },
  /** Faces whose shell was cut or sewn and not unfolded since. */
  stale: { per: 'face', of: 'set', limit: 2, changesFigures: true },
  /** Faces whose shell was relaxed since it was last unfolded. */
  relaxed: { per: 'face', of: 'set', limit: 2, changesFigures: false },
  /** The patch of each face, counted from 1 in the order of `patchNames`; 0 for none. */
  patches: { per: 'face', of: 'model', limit: 4096, changesFigures: false, array: Uint16Array },
  /** How the shell of each face was last unfolded, by its place among `METHODS`. */
  method: { per: 'face', of: 'set', limit: 2, changesFigures: false },
  /** Faces that are flattened as the smoothed surface lies of which the mesh is the cage. */
  smoothed: { per: 'face', of: 'model', limit: 2, changesFigures: true },
  /** Corners that hold their UVs, all of a vertex on its side of the seams. */
  pins: { per: 'corner', of: 'set', limit: 2, changesFigures: false },
  /** Edges of chains that lie straight at true length. */
  stays: { per: 'edge', of: 'set', limit: 2, changesFigures: false },
  /** Edges along which the material of their shells runs, upwards on the texture; which way, see `Grain`. */
  grain: { per: 'edge', of: 'set', limit: 4, changesFigures: false },
  /** Faces of shells that are finished: no act lays them otherwise, moves them or cuts them. */
  locked: { per: 'face', of: 'set', limit: 2, changesFigures: false },
  /** Which shells are packed as one, as they lie to one another: those with the same number; 0 for none. */
  groups: { per: 'face', of: 'set', limit: 65_536, changesFigures: false, array: Uint16Array },
} as const satisfies Record<string, MarkSpec>;

export interface MarkSpec {
  readonly per: 'edge' | 'face' | 'corner';
  /** To what it belongs. */
  readonly of: 'model' | 'set';
  /** Marks are less than this. */
  readonly limit: number;
  /** Whether figures of the shells at changed marks are out of date. */
  readonly changesFigures: boolean;
  readonly array?: MarkArrayKind;
}

export type MarkArray = Uint8Array | Uint16Array;
type MarkArrayKind = typeof Uint8Array | typeof Uint16Array;

export type MarkField = keyof typeof MARKS;
export const MARK_FIELDS = Object.keys(MARKS) as MarkField[];
/** Those that each UV set has of its own. */
export type SetMarkField = {
  [F in MarkField]: (typeof MARKS)[F]['of'] extends 'set' ? F : never;
}[MarkField];
export const SET_MARK_FIELDS = MARK_FIELDS.filter(
  (field): field is SetMarkField => MARKS[field].of === 'set',
);

/** Values of the whole document, plain JSON, with what a fresh one has. */
export const VALUES: Values = {
  /** The UV set that is shown and solved, by its lasting id. */
  currentUv: 0,
  /** How many UV sets there have ever been: the id of the next. */
  setsMade: 1,
  /** 1 once the artist has placed shells, which then keep their places; until then every act lays all of them out afresh. */
  placed: 0,
  /** Which axis of the model points up: 0 for y, 1 for z. It changes how it is shown and which way shells stand, not the model. */
  upAxis: 0,
  /** Which way the model looks: see `Stance`. What is the back of it, and what is seen from the front, hangs on it. */
  front: 0,
  /** Of patches; one that was taken away leaves an empty name, so that the others keep their numbers. */
  patchNames: [],
  /** How much finer than the rest the texture is to be on each patch, a factor; 1 for those past the end. */
  patchWeights: [],
  /** How much is put up with in the flat. */
  limits: LIMIT_PRESETS.usual,
  /** Tiles of the current UV set: at least one, in the order of their numbers, their textures of one shape. */
  tiles: [FIRST_TILE],
};

export interface Values {
  readonly currentUv: number;
  readonly setsMade: number;
  readonly placed: number;
  readonly upAxis: number;
  readonly front: number;
  readonly patchNames: readonly string[];
  readonly patchWeights: readonly number[];
  readonly limits: Limits;
  readonly tiles: readonly Tile[];
}
export type ValueField = keyof Values;
export const VALUE_FIELDS = Object.keys(VALUES) as ValueField[];

/** Values that each UV set has of its own. */
export const SET_VALUE_FIELDS = ['placed', 'tiles'] as const satisfies readonly ValueField[];

/** What fields look like in a document. */
export type Marks = {
  readonly [F in MarkField]: (typeof MARKS)[F] extends { readonly array: typeof Uint16Array }
    ? Uint16Array
    : Uint8Array;
};

/** In what marks of a field are kept. */
export const markArrayOf = (field: MarkField): MarkArrayKind =>
  (MARKS[field] as MarkSpec).array ?? Uint8Array;

/** All that belongs to one UV set beside its UVs. */
export type SetState = Pick<Marks, SetMarkField> & Pick<Values, (typeof SET_VALUE_FIELDS)[number]>;
const SET_FIELDS = [...SET_MARK_FIELDS, ...SET_VALUE_FIELDS];

/** What of a document belongs to its current UV set. */
export const setStateOf = (fields: SetState): SetState =>
  Object.fromEntries(SET_FIELDS.map((field) => [field, fields[field]])) as unknown as SetState;

/** How many there are of what marks are given to. */
export type MarkCounts = Readonly<Record<MarkSpec['per'], number>>;

/** Nothing marked. */
export const blankMarks = (counts: MarkCounts): Marks =>
  Object.fromEntries(
    MARK_FIELDS.map((field) => [field, new (markArrayOf(field))(counts[MARKS[field].per])]),
  ) as unknown as Marks;

/** Axes that may point up, in the order of `upAxis`. */
export const UP_AXES = ['y', 'z'] as const;
