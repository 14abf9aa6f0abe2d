import type { TrialRow } from '../worker/protocol.ts';

/** Kept results of unfolds and relaxes, and which of them are beside each other. */
export interface TrialsSlice {
  /** From the oldest on. */
  readonly trials: readonly TrialRow[];
  /** Of those that are compared, at most two. */
  readonly compared: readonly number[];
  readonly trialsOpen: boolean;
}

export const trialsSlice: TrialsSlice = { trials: [], compared: [], trialsOpen: false };
