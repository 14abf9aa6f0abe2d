import type { Delta } from './delta.ts';

/** One thing that was done, without what it changed. */
export interface Act {
  /** Name of the operation in the catalogue. */
  readonly operation: string;
  /** Its parameters, as JSON: with them it can be done again. */
  readonly params: unknown;
  /** What it did, for the artist. */
  readonly label: string;
  /** Acts of one group are undone together: a cut and the unfold that followed from it. */
  readonly group: number;
}

/** An act as it is kept. */
export interface KeptAct extends Act {
  readonly delta: Delta;
}

/** What was done, in order, and how much of it stands; the rest can be redone. */
export interface History<A extends Act = Act> {
  readonly acts: readonly A[];
  readonly done: number;
}

export const emptyHistory: History<never> = { acts: [], done: 0 };

/** Adds an act; whatever could be redone is forgotten. */
export function record<A extends Act>(history: History<A>, act: A): History<A> {
  return { acts: [...history.acts.slice(0, history.done), act], done: history.done + 1 };
}

/** How much stands after the last group is taken back; undefined when there is none. */
export function undone({ acts, done }: History): number | undefined {
  if (done === 0) return undefined;
  const { group } = acts[done - 1];
  let to = done;
  while (to > 0 && acts[to - 1].group === group) to--;
  return to;
}

/** How much stands after the next group is done again; undefined when there is none. */
export function redone({ acts, done }: History): number | undefined {
  if (done === acts.length) return undefined;
  const { group } = acts[done];
  let to = done;
  while (to < acts.length && acts[to].group === group) to++;
  return to;
}

/** One label a group, that of its first act. */
export const groupLabels = (acts: readonly Act[]): string[] =>
  acts.filter((act, i) => i === 0 || acts[i - 1].group !== act.group).map(({ label }) => label);

export const nextGroup = ({ acts }: History): number => (acts.at(-1)?.group ?? -1) + 1;
