import type { Stage } from '@blunt-hem/core/operations/operation';
import type { ComponentType } from 'react';
import type { BenchStore } from '../../store/bench.ts';
import type { Command } from '../commands/command.ts';
import type { Tool } from '../tools/tool.ts';

/** One of the six stages as the Bench shows it. */
export interface StageView {
  readonly name: Stage;
  readonly label: string;
  /** On the rail, in this order, above the commands. */
  readonly tools: readonly Tool[];
  readonly commands: readonly Command[];
  /** More on the rail, below its commands. */
  readonly Panel?: ComponentType;
  /** In the details column, above the table of shells. */
  readonly Details?: ComponentType;
  /** Over both panes. */
  readonly View?: ComponentType;
  /** What its place on the rail says when it has findings; nothing otherwise. */
  mark(state: BenchStore): string;
}
