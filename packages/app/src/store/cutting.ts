import type { FoundSymmetry } from '@blunt-hem/core/jobs/symmetry';
import type { AnswerOf } from '@blunt-hem/core/questions/index';
import type { Proposal } from '@blunt-hem/core/questions/proposal';
import type { SymmetryChoice } from '@blunt-hem/core/questions/symmetry';
import type { ToldCut } from '@blunt-hem/core/questions/toldCut';
import type { SelectorsOf } from '@blunt-hem/core/selectors/index';
import { USUAL_VIEW, type View } from '@blunt-hem/core/surface/visibility';

/** A place that a route leads through. */
export interface RoutePoint {
  readonly vertex: number;
  /** Where it was picked, in the model's own axes. */
  readonly at: readonly [number, number, number];
}

/** A route that is being drawn. */
export interface DrawnRoute {
  readonly points: readonly RoutePoint[];
  /** Through the points. */
  readonly edges: readonly number[];
  /** On the other side, where that is meshed differently. */
  readonly images?: readonly number[];
  /** From the last of them on to the pointer. */
  readonly ahead: readonly number[];
}

/** A proposal that is shown. */
export interface ShownProposal extends Proposal {
  /** What all of its edges are told by; undefined where only some shells were meant. */
  readonly by?: SelectorsOf['edges'];
}

/** What seams are chosen with before they are cut. */
export interface CuttingSlice {
  readonly symmetryBy: SymmetryChoice | 'off';
  /** What is symmetric to what; undefined while it is off, or being looked for, or nothing was found. */
  readonly symmetry: FoundSymmetry | undefined;
  readonly route: DrawnRoute | undefined;
  /** From 0, the shortest way, to 1, the most hidden. */
  readonly routeHidden: number;
  /** Whether a route runs along seams that are there where it can. */
  readonly routeFollows: boolean;
  /** From where the model is going to be looked at. */
  readonly lookedAt: View;
  /** Darts from the place that was pointed at; undefined while none was. */
  readonly darts: readonly ToldCut[] | 'tried' | undefined;
  /** Where a seam under the hand would run, and the faces that would change sides. */
  readonly shifting: AnswerOf<'shifted-seam'> | undefined;
  readonly proposal: ShownProposal | undefined;
  /** Another, held to be compared with it. */
  readonly heldProposal: ShownProposal | undefined;
  /** Edges that are offered, by a rule or to straighten a seam, and drawn before they are taken. */
  readonly offered: readonly number[] | undefined;
  /** Part of the way to a proposal. */
  readonly proposing: number | undefined;
  /** How much is seen of every corner of every triangle. */
  readonly visibility: Float32Array | undefined;
  /** Corners of an outline under the hand, pixels of the page. */
  readonly lasso: readonly number[] | undefined;
  /** Of the brush, pixels. */
  readonly brush: number;
  /** What the brush does: it picks, or paints a patch, counted from 1, or one that there is not yet. */
  readonly paints: 'picks' | 'new' | number;
}

export const cuttingSlice: CuttingSlice = {
  symmetryBy: 'off',
  symmetry: undefined,
  route: undefined,
  routeHidden: 0.5,
  routeFollows: false,
  lookedAt: USUAL_VIEW,
  darts: undefined,
  shifting: undefined,
  proposal: undefined,
  heldProposal: undefined,
  offered: undefined,
  proposing: undefined,
  visibility: undefined,
  lasso: undefined,
  brush: 24,
  paints: 'picks',
};

/** What of it belongs to one mesh. */
export const OF_THE_MESH = {
  symmetry: undefined,
  route: undefined,
  darts: undefined,
  shifting: undefined,
  proposal: undefined,
  heldProposal: undefined,
  offered: undefined,
  visibility: undefined,
  paints: 'picks',
} as const;
