import { applyDelta, type Delta, inverse, isEmpty } from '../document/delta.ts';
import type { HemDocument } from '../document/document.ts';
import { type Act, type History, type KeptAct, record } from '../document/history.ts';
import type { Request } from '../document/request.ts';
import type { Outcome } from '../operations/catalogue.ts';
import { applyKept } from '../persistence/validateDelta.ts';
import { walkActs } from '../persistence/walkActs.ts';
import { serial } from '../serial.ts';
import { deltaMemory } from './deltaMemory.ts';
import type { Persistence } from './persistence.ts';

/** What a request came to. */
export type Carried = Outcome & { readonly request: Request };

/** A project read back as far as it can be. */
export interface Whole {
  readonly document: HemDocument;
  readonly history: History<KeptAct>;
  /** What could not be read, for the artist. */
  readonly loss?: string;
}

export interface KeptStart {
  readonly document: HemDocument;
  readonly history: History;
  readonly persistence: Persistence;
  /** Told before anything is written, and once it is. */
  onSaved(saved: boolean): void;
  /** The document is another one: by these deltas, in order, of one group of acts. */
  onChange(next: HemDocument, deltas: readonly Delta[], group: number): void;
}

/** A document with its history, as it is kept: it is another one only once what made it so is kept, one commit at a time. */
export function keptProject({ persistence, onSaved, onChange, ...start }: KeptStart) {
  let { document, history } = start;
  const memory = deltaMemory(persistence);
  const commits = serial();

  const saved = async (work: () => Promise<void>): Promise<void> => {
    onSaved(false);
    try {
      await work();
    } finally {
      onSaved(true);
    }
  };
  const changeTo = (next: HemDocument, deltas: readonly Delta[], group: number): void => {
    document = next;
    onChange(next, deltas, group);
  };

  return {
    get document(): HemDocument {
      return document;
    },
    get history(): History {
      return history;
    },

    /**
     * Keeps what requests have come to, in one go.
     *
     * @param ready  the document that they lead to from another
     * @returns whether anything came of any of them
     */
    async keep(
      carried: readonly Carried[],
      group: number,
      ready?: { readonly from: HemDocument; readonly next: HemDocument },
    ): Promise<boolean> {
      const acts = carried
        .filter(({ delta }) => !delta.changes.every(isEmpty))
        .map(
          ({ request, kept, label, delta }): KeptAct => ({
            operation: request.operation,
            params: kept,
            label,
            group,
            delta,
          }),
        );
      if (acts.length === 0) return false;
      await commits.add(async () => {
        const deltas = acts.map(({ delta }) => delta);
        const next = ready?.from === document ? ready.next : deltas.reduce(applyDelta, document);
        await saved(() => persistence.add(acts, history.done, next));
        for (const act of acts) {
          history = record(history, bare(act));
          memory.put(history.done - 1, act.delta, history.done);
        }
        changeTo(next, deltas, group);
      });
      return true;
    },

    /**
     * Takes acts back, or does them again.
     *
     * @param to  how many acts stand afterwards; undefined where there is none to go to
     * @returns the label of the act at the end; undefined when there was none
     */
    travel: (
      to: (history: History) => number | undefined,
      group: () => number,
    ): Promise<string | undefined> =>
      commits.add(async () => {
        const { done, acts } = history;
        const end = to(history);
        if (end === undefined) return undefined;
        const deltas: Delta[] = [];
        if (end < done) for (let i = done; i-- > end; ) deltas.push(inverse(await memory.get(i)));
        else for (let i = done; i < end; i++) deltas.push(await memory.get(i));
        const next = deltas.reduce(applyKept, document);
        await saved(() => persistence.move(end, next));
        history = { ...history, done: end };
        memory.keepNear(end);
        changeTo(next, deltas, group());
        return acts[Math.min(done, end)].label;
      }),

    /** The document as it is now, and its acts with what they changed: as many around the present as can be read. */
    async whole(): Promise<Whole> {
      const now = document;
      const { acts, done } = history;
      const deltas = new Map<number, Delta>();
      const deltaAt = async (i: number): Promise<Delta> => {
        const patch = await memory.get(i);
        deltas.set(i, patch);
        return patch;
      };
      const first = (await walkActs(now, done, 0, deltaAt)).reached;
      const last = (await walkActs(now, done, acts.length, deltaAt)).reached;
      const kept = acts
        .slice(first, last)
        .map((act, i): KeptAct => ({ ...act, delta: deltas.get(first + i) as Delta }));
      return {
        document: now,
        history: { acts: kept, done: done - first },
        ...(kept.length < acts.length && {
          loss: 'Some of what was done before is damaged in the store and cannot be taken back.',
        }),
      };
    },

    /** Resolves once what was done until now is kept. */
    settled: commits.settled,
  };
}

const bare = ({ operation, params, label, group }: KeptAct): Act => ({ operation, params, label, group });
