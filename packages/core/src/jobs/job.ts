import type { Context } from '../progress.ts';

/**
 * Heavy work that needs nothing but its input: run here and now, or in a pool of workers. Input and output are plain data, typed arrays
 * among them.
 */
export interface Job<Name extends string, Input, Output> {
  readonly name: Name;
  /** Heeds `context.signal` at least every 100 ms. */
  run(input: Input, context: Context): Output | Promise<Output>;
}
