import type { Context } from '../progress.ts';

/**
 * Heavy work that needs nothing but its input: run here and now, or in a pool of workers. Input and output are plain data, typed arrays
 * among them.
 */
export interface Job<Name extends string, Input, Output> {
  readonly name: Name;
  /** Acts heed `context.signal` at least every 100 ms; writing a file and editing a mesh do not in their middle. */
  run(input: Input, context: Context): Output | Promise<Output>;
}
