import type { HemDocument } from './document.ts';
import { applyPatch, inverse, type Patch } from './patch.ts';

/** One thing that was done, as it is kept. */
export interface Act {
  /** Name of the operation in the catalogue. */
  readonly operation: string;
  /** Its parameters, as JSON: with them it can be done again. */
  readonly params: unknown;
  /** What it did, for the artist. */
  readonly label: string;
  /** Acts of one group are undone together: a cut and the unfold that followed from it. */
  readonly group: number;
  readonly patch: Patch;
}

/** What was done, in order, and how much of it stands; the rest can be redone. */
export interface History {
  readonly acts: readonly Act[];
  readonly done: number;
}

export const emptyHistory: History = { acts: [], done: 0 };

/** Adds an act; whatever could be redone is forgotten. */
export function record(history: History, act: Act): History {
  return { acts: [...history.acts.slice(0, history.done), act], done: history.done + 1 };
}

export interface Step {
  readonly document: HemDocument;
  readonly history: History;
  /** The patches that were applied, in order. */
  readonly patches: readonly Patch[];
}

/** Takes back the last group; undefined when there is none. */
export function undo(document: HemDocument, history: History): Step | undefined {
  if (history.done === 0) return undefined;
  const { group } = history.acts[history.done - 1];
  const patches: Patch[] = [];
  let done = history.done;
  while (done > 0 && history.acts[done - 1].group === group)
    patches.push(inverse(history.acts[--done].patch));
  return step(document, history, patches, done);
}

/** Does the next group again; undefined when there is none. */
export function redo(document: HemDocument, history: History): Step | undefined {
  if (history.done === history.acts.length) return undefined;
  const { group } = history.acts[history.done];
  const patches: Patch[] = [];
  let done = history.done;
  while (done < history.acts.length && history.acts[done].group === group)
    patches.push(history.acts[done++].patch);
  return step(document, history, patches, done);
}

function step(document: HemDocument, history: History, patches: readonly Patch[], done: number): Step {
  return { document: patches.reduce(applyPatch, document), history: { ...history, done }, patches };
}
