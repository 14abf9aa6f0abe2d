import type { Delta } from '../document/delta.ts';
import type { HemDocument } from '../document/document.ts';
import type { Request } from '../document/request.ts';
import type { Jobs } from '../jobs/index.ts';
import type { Param } from '../params.ts';
import type { Context } from '../progress.ts';

export interface OperationContext extends Context {
  readonly jobs: Jobs;
  /** Shells on their way, by number, for the moving picture: UV per shell vertex, tile units. */
  show?(uvOf: ReadonlyMap<number, Float64Array>): void;
}

/** The six stages, in working order. */
export const STAGES = ['intake', 'cut', 'unfold', 'inspect', 'arrange', 'deliver'] as const;
export type Stage = (typeof STAGES)[number];

/**
 * One thing an artist can do. The interface, undo, storage, recipes, the command line and tests all go
 * through the catalogue of these; there is no other way to change a document.
 */
export interface Operation<Name extends string, Out, In = Out> {
  readonly name: Name;
  readonly stage: Stage;
  /** Of the parameters, plain JSON. */
  readonly params: Param<Out, In>;
  /** What it does, for the artist: “Cut 14 edges”. */
  label(params: Out, document: HemDocument): string;
  /** While it runs: “Cutting”. */
  readonly doing: string;
  /** The figure that it reports on its way, by its name, and what would be perfect: “energy 4.42, 4 is perfect”. */
  figure?(value: number): string;
  /**
   * @param params  as the schema gives them back, defaults filled in
   * @throws HemError when it cannot be done; the document stays as it is
   */
  run(document: HemDocument, params: Out, context: OperationContext): Delta | Promise<Delta>;
  /** What is done at once after it, in the same undo. */
  readonly followUps?: readonly FollowUp<Out>[];
  /** The shells that it lays flat, in the document as it leaves it: they are kept as a trial. */
  readonly trial?: (after: HemDocument, params: Out) => readonly number[];
  /** True where it may change locked shells. */
  readonly onLocked?: true;
  /** True where it neither reads nor changes anything that a long operation does: it need not wait for one, nor end it. */
  readonly nonBlocking?: true;
}

/**
 * What follows an operation.
 *
 * @param after  the document as the operation left it
 * @param now  the document as it is by now
 * @param params  of the operation
 * @returns undefined when there is nothing to do
 */
export type FollowUp<Out = unknown> = (
  after: HemDocument,
  now: HemDocument,
  params: Out,
) => Request | undefined;

/** Lets the types of an operation follow from its schema. */
export const operation = <const Name extends string, Out, In>(
  spec: Operation<Name, Out, In>,
): Operation<Name, Out, In> => spec;
