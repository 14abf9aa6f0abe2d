import { current, type HemDocument } from '../document/document.ts';
import {
  type Act,
  type History,
  type KeptAct,
  nextGroup,
  record,
  redone,
  undone,
} from '../document/history.ts';
import { applyPatch, inverse, isEmpty, type Patch } from '../document/patch.ts';
import type { Request } from '../document/request.ts';
import { HemError } from '../errors.ts';
import type { Jobs } from '../jobs/index.ts';
import {
  carryOut,
  type OperationName,
  type Outcome,
  operationNamed,
  type ParamsOf,
} from '../operations/catalogue.ts';
import { reflatten } from '../operations/cut/reflatten.ts';
import type { Follow, OperationContext } from '../operations/operation.ts';
import { applyKept } from '../persistence/validatePatch.ts';
import { walkActs } from '../persistence/walkActs.ts';
import type { Progress } from '../progress.ts';
import type { AnswerOf, AskedOf, QuestionName } from '../questions/index.ts';
import type { Trial } from '../trials/trial.ts';
import { asking } from './asking.ts';
import type { Done } from './done.ts';
import { forecast } from './forecast.ts';
import type { Hands } from './hands.ts';
import { patchMemory } from './patchMemory.ts';
import type { Persistence } from './persistence.ts';
import { sessionTrials } from './sessionTrials.ts';
import { trialActs } from './trialActs.ts';

/** What a session tells while it works. */
export type SessionEvent =
  /** The document is another one: by these patches, in order. */
  | { readonly kind: 'changed'; readonly patches: readonly Patch[]; readonly group: number }
  | { readonly kind: 'saved'; readonly saved: boolean }
  | { readonly kind: 'trials'; readonly trials: readonly Trial[] }
  /** What is running; without a name nothing is. */
  | ({ readonly kind: 'running'; readonly operation?: OperationName } & Omit<Progress, 'uv'>)
  /** A shell that is being worked on, as it lies now: UV per shell vertex, tile units. */
  | { readonly kind: 'picture'; readonly shell: number; readonly uv: Float64Array };

/** A newer act took the place of this one before it had anything worth keeping. */
export class SupersededError extends HemError {
  constructor() {
    super('superseded', 'Something newer took its place. Nothing was changed.');
    this.name = 'SupersededError';
  }
}

export interface SessionStart {
  readonly document: HemDocument;
  readonly history: History;
  readonly persistence: Persistence;
  readonly jobs: Jobs;
  /** Where previews are solved and questions answered, so that none delays an act. */
  readonly previewJobs?: Jobs;
  /** Where questions are answered for which nobody waits. */
  readonly backgroundJobs?: Jobs;
  /** Where those are answered that are only for idle times and may take long, so that no other waits behind them. */
  readonly idleJobs?: Jobs;
  /** Where questions are answered that are asked while a hand moves; on this thread when absent. */
  readonly hands?: Hands;
  readonly emit?: (event: SessionEvent) => void;
  readonly trials?: readonly Trial[];
}

export interface PerformOptions {
  /** Without what otherwise follows, for a caller that does more at once. */
  readonly alone?: boolean;
}

interface Acted {
  readonly done: Done;
  /** With defaults filled in. */
  readonly params: unknown;
}

interface Running {
  aborted: boolean;
  superseded: boolean;
}

const newSignal = (): Running => ({ aborted: false, superseded: false });

/**
 * One open project: the document, its history, and what is running. Acts follow one another, each on the document as the last one
 * left it; a newer one brings what is running to an end, which keeps its best so far or is left out. An act counts as done once it is
 * kept. The app's worker and the command wrap the same one.
 */
export function openSession({
  persistence,
  jobs,
  previewJobs = jobs,
  backgroundJobs = previewJobs,
  idleJobs = backgroundJobs,
  hands,
  emit = () => undefined,
  ...start
}: SessionStart) {
  let { document, history } = start;
  const memory = patchMemory(persistence);
  let running: Running | undefined;
  let queue: Promise<unknown> = Promise.resolve();
  let commits: Promise<unknown> = Promise.resolve();
  let group = nextGroup(history);
  const ahead = forecast(previewJobs);
  const questions = asking({ jobs: previewJobs, backgroundJobs, idleJobs, hands });
  const trials = sessionTrials(start.trials ?? [], persistence, backgroundJobs, (list) =>
    emit({ kind: 'trials', trials: list }),
  );

  const contextFor = (operation: OperationName, signal: Running): OperationContext => ({
    signal,
    jobs,
    report: ({ fraction, figure }) => emit({ kind: 'running', operation, fraction, figure }),
    show: (shell, uv) => {
      if (!signal.aborted) emit({ kind: 'picture', shell, uv });
    },
  });

  /** One commit at a time: the document changes only once the act is kept, and on the document as it is then. */
  const commit = <T>(work: () => Promise<T>): Promise<T> => {
    const result = commits.then(work);
    commits = result.catch(() => undefined);
    return result;
  };

  const changedTo = (next: HemDocument, patches: readonly Patch[], act: number): void => {
    document = next;
    ahead.keepOnly(next);
    questions.changedTo(next, patches);
    emit({ kind: 'changed', patches, group: act });
  };

  /** Keeps what requests have come to, in one go, unless nothing comes of any of them. */
  const keep = async (
    outcomes: readonly (Outcome & { readonly request: Request })[],
    own: number,
    ready?: { readonly from: HemDocument; readonly next: HemDocument },
  ): Promise<boolean> => {
    const acts = outcomes
      .filter(({ patch }) => !patch.changes.every(isEmpty))
      .map(
        ({ request, kept, label, patch }): KeptAct => ({
          operation: request.operation,
          params: kept,
          label,
          group: own,
          patch,
        }),
      );
    if (acts.length === 0) return false;
    await commit(async () => {
      const patches = acts.map(({ patch }) => patch);
      const next = ready?.from === document ? ready.next : patches.reduce(applyPatch, document);
      const at = history.done;
      emit({ kind: 'saved', saved: false });
      try {
        await persistence.add(acts, at, next);
      } finally {
        emit({ kind: 'saved', saved: true });
      }
      for (const kept of acts) {
        history = record(history, bare(kept));
        memory.put(history.done - 1, kept.patch, history.done);
      }
      changedTo(next, patches, own);
    });
    return true;
  };

  /** Carries out one request, or takes over what was foreseen of it, and keeps it. */
  const act = async (request: Request, own: number, context: OperationContext): Promise<Acted> => {
    const from = document;
    const ready = await ahead.foreseen(from, request, context);
    const outcome = ready ?? (await carryOut(from, request, context));
    const changed = await keep([{ ...outcome, request }], own, ready && { from, next: ready.next });
    const { label, params } = outcome;
    return { done: { label, notes: outcome.patch.notes, changed }, params };
  };

  /** The same of a request with all that follows it, where all of that was foreseen: it is kept in one go. */
  const actAtOnce = async (request: Request, own: number): Promise<Acted | undefined> => {
    const from = document;
    const steps = await ahead.all(from, request);
    if (!steps || document !== from) return undefined;
    const changed = await keep(steps, own, { from, next: steps[steps.length - 1].next });
    const [{ label, params }] = steps;
    return { done: { label, notes: steps.flatMap(({ patch }) => patch.notes), changed }, params };
  };

  /**
   * What an act brings with it. Where it cannot be, cannot be kept, or was stopped, the act stands without it, and the shells
   * stay marked as changed.
   *
   * @returns what the artist should hear
   */
  const followUp = async (
    follow: readonly Follow<never>[],
    params: unknown,
    own: number,
    signal: Running,
  ): Promise<readonly string[]> => {
    const after = document;
    const notes: string[] = [];
    for (const next of follow) {
      const request = signal.aborted ? undefined : next(after, document, params as never);
      if (!request) continue;
      try {
        const context = contextFor(request.operation as OperationName, signal);
        notes.push(...(await act(request, own, context)).done.notes);
      } catch (error) {
        if (!(error instanceof HemError)) throw error;
        if (error.code !== 'stopped') notes.push(error.message);
        return notes;
      }
    }
    return notes;
  };

  /** Acts follow one another; what is running hears that it should come to an end. */
  const enqueue = <T>(work: (signal: Running) => Promise<T>, signal = newSignal()): Promise<T> => {
    ahead.abort();
    questions.stopIdle();
    if (running) Object.assign(running, { aborted: true, superseded: true });
    const result = queue.then(async () => {
      running = signal;
      try {
        return await work(signal);
      } catch (error) {
        if (error instanceof HemError && error.code === 'stopped' && signal.superseded)
          throw new SupersededError();
        throw error;
      } finally {
        if (running === signal) running = undefined;
        emit({ kind: 'running' });
      }
    });
    queue = result.catch(() => undefined);
    return result;
  };

  const perform = async (request: Request, { alone = false }: PerformOptions = {}): Promise<Done> => {
    const operation = operationNamed(request.operation);
    const signal = newSignal();
    const context = contextFor(operation.name as OperationName, signal);
    if (operation.aside) {
      return (await act(request, group++, context)).done;
    }
    ahead.yieldTo(document, request, context);
    return enqueue(async () => {
      const own = group++;
      emit({ kind: 'running', operation: operation.name as OperationName });
      const [from, since] = [document, Date.now()];
      const whole = alone ? undefined : await actAtOnce(request, own);
      const { done, params } = whole ?? (await act(request, own, context));
      if (operation.trial && done.changed)
        void trials.made(from, document, done.label, operation.trial(document, params), since);
      if (whole || alone || !operation.follow || !done.changed) return done;
      return { ...done, notes: [...done.notes, ...(await followUp(operation.follow, params, own, signal))] };
    }, signal);
  };

  const travel = (to: (history: History) => number | undefined): Promise<Done | undefined> =>
    enqueue(() =>
      commit(async () => {
        const { done, acts } = history;
        const end = to(history);
        if (end === undefined) return undefined;
        const patches: Patch[] = [];
        if (end < done) for (let i = done; i-- > end; ) patches.push(inverse(await memory.get(i)));
        else for (let i = done; i < end; i++) patches.push(await memory.get(i));
        const next = patches.reduce(applyKept, document);
        emit({ kind: 'saved', saved: false });
        try {
          await persistence.move(end, next);
        } finally {
          emit({ kind: 'saved', saved: true });
        }
        history = { ...history, done: end };
        memory.keepNear(end);
        changedTo(next, patches, group++);
        return { label: acts[Math.min(done, end)].label, notes: [], changed: true };
      }),
    );

  return {
    get document(): HemDocument {
      return document;
    },
    get history(): History {
      return history;
    },
    /**
     * The document as it is now, and its acts with what they changed, read back where they are not in memory: as many around
     * the present as can be read.
     *
     * @returns with what was lost, for the artist, when that is not all
     */
    async whole(): Promise<{
      readonly document: HemDocument;
      readonly history: History<KeptAct>;
      readonly trials: readonly Trial[];
      readonly loss?: string;
    }> {
      await trials.settled();
      const now = document;
      const { acts, done } = history;
      const patches = new Map<number, Patch>();
      const patchOf = async (i: number): Promise<Patch> => {
        const patch = await memory.get(i);
        patches.set(i, patch);
        return patch;
      };
      const first = (await walkActs(now, done, 0, patchOf)).reached;
      const last = (await walkActs(now, done, acts.length, patchOf)).reached;
      const kept = acts
        .slice(first, last)
        .map((act, i): KeptAct => ({ ...act, patch: patches.get(first + i) as Patch }));
      const lost = acts.length - kept.length;
      return {
        document: now,
        history: { acts: kept, done: done - first },
        trials: trials.list,
        loss:
          lost > 0
            ? 'Some of what was done before is damaged in the store and cannot be taken back.'
            : undefined,
      };
    },

    /** @throws HemError when it cannot be done, or not be kept: then the document is as it was */
    perform: <N extends OperationName>(
      operation: N,
      params: ParamsOf<N>,
      options?: PerformOptions,
    ): Promise<Done> => perform({ operation, params }, options),
    undo: () => travel(undone),
    redo: () => travel(redone),

    trials: trialActs({
      trials,
      document: () => document,
      perform,
      alone: (work) =>
        enqueue((signal) => {
          const { show: _, ...context } = contextFor('unfold', signal);
          emit({ kind: 'running', operation: 'unfold' });
          return work(context);
        }),
    }),
    stop(): void {
      if (running) running.aborted = true;
    },

    /** Unfolds what was cut when the session ended in the middle. */
    resume(): Promise<readonly string[]> {
      const { stale } = document;
      const { uv } = current(document);
      if (!stale.includes(1) || uv.every(Number.isNaN)) return Promise.resolve([]);
      return enqueue((signal) =>
        followUp(reflatten, undefined, history.acts[history.done - 1]?.group ?? group++, signal),
      );
    },

    /**
     * What an act would lead to, with what it brings with it; never kept.
     *
     * @returns undefined when a newer preview, an act or `clear` ended this one, or it cannot be done
     */
    preview: (request: Request): Promise<HemDocument | undefined> => ahead.preview(document, request),
    /** Ends the preview that is being worked out. */
    clearPreview: (): void => ahead.abort(),

    /**
     * Asks something of the document as it is now.
     *
     * @returns undefined when the same was asked anew, or the document changed meanwhile, and it had not been answered
     */
    ask: <N extends QuestionName>(
      name: N,
      params: AskedOf<N>,
      report: (progress: Progress) => void = () => undefined,
    ): Promise<AnswerOf<N> | undefined> => questions.ask(document, name, params, report),

    /** Ends a question; it answers with the best it has, or with nothing. */
    stopAsking: questions.stop,

    /** Brings everything to an end; resolves once what was done is kept. */
    async close(): Promise<void> {
      ahead.abort();
      questions.end();
      if (running) running.aborted = true;
      await queue;
      await commits;
      await trials.settled();
    },
  };
}

export type Session = ReturnType<typeof openSession>;

const bare = ({ operation, params, label, group }: KeptAct): Act => ({ operation, params, label, group });
