import type { Condition } from './supervisor.ts';

export interface Notice {
  /** What was done, what could be done next, what went wrong: the first goes by itself, the second once something is picked. */
  readonly tone: 'note' | 'hint' | 'error';
  readonly text: string;
  /** What could be done about it. */
  readonly offer?: { readonly label: string; readonly act: () => void };
}

export interface Running {
  /** “Unfolding”. */
  readonly doing: string;
  readonly fraction?: number;
  /** By its name. */
  readonly figure?: string;
}

/** What goes on: acts asked and answered, what runs, and what the artist should hear. */
export interface RunSlice {
  readonly running: Running | undefined;
  readonly saved: boolean;
  /** The project could not be stored at all. */
  readonly unsaved: boolean;
  readonly notice: Notice | undefined;
  /** Acts and picks that were asked for, and those that were answered; the Bench rests when they are as many and all is measured. */
  readonly asked: number;
  readonly answered: number;
  /** How it is with the worker that owns the document. */
  readonly worker: Condition;
}

export const runSlice: RunSlice = {
  running: undefined,
  saved: true,
  unsaved: false,
  notice: undefined,
  asked: 0,
  answered: 0,
  worker: { restarts: 0 },
};
