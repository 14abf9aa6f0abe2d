import type { Command } from 'commander';

/** One thing `hem` can do with a model. */
export interface HemCommand {
  readonly name: string;
  readonly summary: string;
  /** Adds its options. */
  shape(command: Command): void;
  /** Its code, loaded when it is called. */
  load(): Promise<{ run(input: string, options: never): Promise<object> }>;
}
