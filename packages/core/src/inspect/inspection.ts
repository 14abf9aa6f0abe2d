import { type HemDocument, shellOf, shellsOf } from '../document/document.ts';
import type { Request } from '../document/request.ts';
import type { Severity } from '../health/check.ts';
import { plural } from '../plural.ts';
import { facesOfShell } from '../surface/shells.ts';
import { shellTopology } from '../surface/shellTopology.ts';
import type { Subject } from './subject.ts';

/** Something that may be wrong with how a model lies flat. */
export interface Inspection {
  /** Stable name. */
  readonly kind: string;
  readonly severity: Severity;
  /** What is counted, one and many. */
  readonly thing: readonly [one: string, many: string];
  /** How it is found, for whoever wants to know: “another diagonal would flip a part”. */
  readonly when: string;
  /** What it does to the texture, one sentence. */
  readonly effect: string;
  find(subject: Subject): Found | undefined;
}

/** What was found, where, and what would help. */
export interface Found {
  readonly count: number;
  /** Whether there may be more. */
  readonly atLeast?: boolean;
  /** Where to look: faces, edges, or whole shells by number. */
  readonly faces?: Iterable<number>;
  readonly edges?: Iterable<number>;
  readonly shells?: readonly number[];
  readonly remedy?: Remedy | CutSearch | CutFound;
}

export interface Remedy {
  /** On the button: “Split one side off”. */
  readonly label: string;
  readonly request: Request;
}

/** Where only another cut helps, which the artist chooses among those that are found. */
export interface CutSearch {
  readonly label: string;
  /** The shell, by its name. */
  readonly cutsOf: number;
}

/** Where another cut helps, which was found: the artist looks at it and cuts. */
export interface CutFound {
  readonly label: string;
  readonly cut: readonly number[];
}

/** A finding as it is told. */
export interface LayoutFinding extends Pick<Inspection, 'kind' | 'severity' | 'effect'> {
  /** “14 faces upside down”. */
  readonly title: string;
  readonly count: number;
  readonly faces: Uint32Array;
  readonly edges: Uint32Array;
  /** Numbers of shells. */
  readonly shells: readonly number[];
  readonly remedy?: Remedy | CutSearch | CutFound;
}

export function describeFinding(
  { kind, severity, effect, thing }: Pick<Inspection, 'kind' | 'severity' | 'effect' | 'thing'>,
  { count, atLeast, faces = [], edges = [], shells = [], remedy }: Found,
): LayoutFinding {
  return {
    kind,
    severity,
    effect,
    title: `${atLeast ? '≥ ' : ''}${plural(count, ...thing)}`,
    count,
    faces: Uint32Array.from(faces),
    edges: Uint32Array.from(edges),
    shells,
    remedy,
  };
}

/** Shells as requests name them: each by its least face. */
export const named = (document: HemDocument, shells: Iterable<number>): number[] =>
  [...shells].map((s) => facesOfShell(shellsOf(document), s)[0]);

/** Of shells, those that were not relaxed since they were last laid flat. */
export const unrelaxed = (document: HemDocument, shells: readonly number[]): number[] =>
  shells.filter((s) => !facesOfShell(shellsOf(document), s).some((f) => document.relaxed[f] === 1));

/** Relaxes shells, which also keeps them from lying on themselves. */
export const relaxThem = (document: HemDocument, shells: readonly number[]): Remedy => ({
  label: 'Relax them',
  request: { operation: 'relax', params: { shells: named(document, shells) } },
});

/** Unfolds those of some shells that can lie flat; none where none can. */
export function unfoldThem(
  document: HemDocument,
  shells: readonly number[],
  label: string,
): Remedy | undefined {
  const willing = shells.filter((s) => shellTopology(shellOf(document, s)).canUnfold);
  if (willing.length === 0) return undefined;
  return { label, request: { operation: 'unfold', params: { shells: named(document, willing) } } };
}

/** A finding about whole shells; none when there are none. */
export const ofShells = (
  { document }: Subject,
  shells: readonly number[],
  remedy?: (names: number[]) => Remedy,
): Found | undefined =>
  shells.length === 0
    ? undefined
    : { count: shells.length, shells, remedy: remedy?.(named(document, shells)) };

/** A finding about faces of shells that have to be unfolded anew; none when there are none. */
export function ofSpoiltFaces({ document }: Subject, faces: readonly number[]): Found | undefined {
  if (faces.length === 0) return undefined;
  const { faceShell } = shellsOf(document);
  const shells = [...new Set(faces.map((f) => faceShell[f]))];
  const remedy = unfoldThem(document, shells, 'Unfold them anew') ?? {
    label: 'Cut them open',
    request: { operation: 'open-pieces', params: { shells: named(document, shells) } },
  };
  return { count: faces.length, faces, shells, remedy };
}
