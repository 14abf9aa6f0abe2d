import type Joi from 'joi';
import type { HemDocument } from '../document/document.ts';
import type { Patch } from '../document/patch.ts';
import type { Context } from '../progress.ts';
import type { Relaxed, RelaxOptions } from '../relax/relax.ts';
import type { Shell } from '../surface/shell.ts';
import type { Method, Unfolded, UnfoldOptions } from '../unfold/unfold.ts';

export interface UnfoldJob {
  readonly shell: Shell;
  readonly method: Method;
  readonly options?: UnfoldOptions;
}

export interface RelaxJob {
  readonly shell: Shell;
  readonly start: Float64Array;
  readonly options: RelaxOptions;
}

/** Where heavy solves run: here, or in a pool of workers. One answer a job, in order. */
export interface Solvers {
  unfold(jobs: readonly UnfoldJob[], context: Context): Promise<readonly Unfolded[]>;
  relax(jobs: readonly RelaxJob[], context: Context): Promise<readonly Relaxed[]>;
}

export interface OperationContext extends Context {
  readonly solvers: Solvers;
  /** The one shell that is being worked on, for the moving picture. */
  onShell?(shell: number): void;
}

/**
 * One thing an artist can do. The interface, undo, storage, recipes, the command line and tests all go
 * through the catalogue of these; there is no other way to change a document.
 */
export interface Operation<Params> {
  readonly name: string;
  /** Of the parameters, plain JSON. */
  readonly schema: Joi.ObjectSchema<Params>;
  /** What it does, for the artist: “Cut 14 edges”. */
  label(params: Params, document: HemDocument): string;
  /**
   * @param params  as the schema gives them back, defaults filled in
   * @throws HemError when it cannot be done; the document stays as it is
   */
  run(document: HemDocument, params: Params, context: OperationContext): Patch | Promise<Patch>;
}

/** “1 edge”, “14 edges”. */
export const plural = (count: number, thing: string): string => `${count} ${thing}${count === 1 ? '' : 's'}`;
