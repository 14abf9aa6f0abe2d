import type { TargetId } from '@blunt-hem/core/select/targets/index';

export type Pane = 'model' | 'board';

/** One place of the surface, in both panes. */
export interface Spot {
  /** In the model's own axes. */
  readonly solid: readonly [number, number, number];
  readonly uv: readonly [number, number];
}

export interface Hover {
  readonly pane: Pane;
  readonly edge: number;
  readonly face: number;
  /** The point of the flat that is nearest: its least corner. */
  readonly point: number;
  readonly shell: number;
  /** Edges that a double click here would take; known once the pointer rests. */
  readonly whole?: readonly number[];
}

/** What is selected and what the pointer is at, the same in both panes. */
export interface SelectionSlice {
  /** What a hand picks. */
  readonly target: TargetId;
  /** Points of the flat, each by the least of its corners. */
  readonly points: ReadonlySet<number>;
  readonly edges: ReadonlySet<number>;
  readonly faces: ReadonlySet<number>;
  /** By number; a cut numbers shells anew, and the chosen ones stay chosen. */
  readonly chosen: ReadonlySet<number>;
  readonly hover: Hover | undefined;
  /** What was picked last, while its images on the other side have to be looked for by place. */
  readonly imaging:
    | { readonly target: 'edges' | 'faces'; readonly items: readonly number[]; readonly how: How }
    | undefined;
  /** Faces that are shown and not selected, until something is picked or changed. */
  readonly pointedOut: ReadonlySet<number>;
  /** The place of the surface that is pointed at, while one inspects. */
  readonly spot: Spot | undefined;
}

export const selectionSlice: SelectionSlice = {
  target: 'edges',
  points: new Set(),
  edges: new Set(),
  faces: new Set(),
  chosen: new Set(),
  hover: undefined,
  imaging: undefined,
  pointedOut: new Set(),
  spot: undefined,
};

/** Of each target, where what is selected of it is kept, and which part of what is pointed at is one of it. */
export const SELECTED = {
  points: { kept: 'points', part: 'point' },
  edges: { kept: 'edges', part: 'edge' },
  faces: { kept: 'faces', part: 'face' },
  shells: { kept: 'chosen', part: 'shell' },
} as const satisfies Record<TargetId, { readonly kept: keyof SelectionSlice; readonly part: keyof Hover }>;

/** Nothing is selected. */
export const NOTHING_SELECTED = {
  points: new Set<number>(),
  edges: new Set<number>(),
  faces: new Set<number>(),
  chosen: new Set<number>(),
} as const;

/** What a click does to a selection. */
export type How = 'only' | 'add' | 'remove';
