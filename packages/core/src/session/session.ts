import type { Delta } from '../document/delta.ts';
import { current, type HemDocument } from '../document/document.ts';
import { type History, nextGroup, redone, undone } from '../document/history.ts';
import type { Request } from '../document/request.ts';
import { HemError } from '../errors.ts';
import type { Jobs } from '../jobs/index.ts';
import { carryOut, type OperationName, operationNamed, type ParamsOf } from '../operations/catalogue.ts';
import { reflatten } from '../operations/cut/reflatten.ts';
import type { FollowUp, OperationContext } from '../operations/operation.ts';
import type { Progress } from '../progress.ts';
import type { AnswerOf, AskedOf, QuestionName } from '../questions/index.ts';
import type { Trial } from '../trials/trial.ts';
import { type ActSignal, actQueue, actSignal } from './actQueue.ts';
import { asking } from './asking.ts';
import type { Done } from './done.ts';
import { forecast } from './forecast.ts';
import type { Hands } from './hands.ts';
import { keptProject, type Whole } from './keptProject.ts';
import type { Persistence } from './persistence.ts';
import { sessionTrials } from './sessionTrials.ts';
import { trialActs } from './trialActs.ts';

/** What a session tells while it works. */
export type SessionEvent =
  /** The document is another one: by these deltas, in order. */
  | { readonly kind: 'changed'; readonly deltas: readonly Delta[]; readonly group: number }
  | { readonly kind: 'saved'; readonly saved: boolean }
  | { readonly kind: 'trials'; readonly trials: readonly Trial[] }
  /** What is running; without a name nothing is. */
  | ({ readonly kind: 'running'; readonly operation?: OperationName } & Omit<Progress, 'uv' | 'places'>)
  /** Shells that are being worked on, by number, as they lie now: UV per shell vertex, tile units. */
  | { readonly kind: 'picture'; readonly uvOf: ReadonlyMap<number, Float64Array> };

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

/**
 * One open project: the document, its history, and what is running. Acts follow one another, each on the document as the last one
 * left it; a newer one brings what is running to an end, which keeps its best so far or is left out. An act counts as done once it is
 * kept. The app's worker and the command wrap the same one.
 */
export function openSession({
  jobs,
  previewJobs = jobs,
  backgroundJobs = previewJobs,
  idleJobs = backgroundJobs,
  hands,
  emit = () => undefined,
  ...start
}: SessionStart) {
  const ahead = forecast(previewJobs);
  const questions = asking({ jobs: previewJobs, backgroundJobs, idleJobs, hands });
  const trials = sessionTrials(start.trials ?? [], start.persistence, backgroundJobs, (list) =>
    emit({ kind: 'trials', trials: list }),
  );
  const project = keptProject({
    ...start,
    onSaved: (saved) => emit({ kind: 'saved', saved }),
    onChange(next, deltas, group) {
      ahead.keepOnly(next);
      questions.changedTo(next, deltas);
      emit({ kind: 'changed', deltas, group });
    },
  });
  const queue = actQueue(() => emit({ kind: 'running' }));
  let group = nextGroup(start.history);

  const contextFor = (operation: OperationName, signal: ActSignal): OperationContext => ({
    signal,
    jobs,
    report: ({ fraction, figure, rounds }) => emit({ kind: 'running', operation, fraction, figure, rounds }),
    show: (uvOf) => {
      if (!signal.aborted) emit({ kind: 'picture', uvOf });
    },
  });

  /** Carries out one request, or takes over what was foreseen of it, and keeps it. */
  const act = async (request: Request, own: number, context: OperationContext): Promise<Acted> => {
    const from = project.document;
    const ready = await ahead.foreseen(from, request, context);
    const outcome = ready ?? (await carryOut(from, request, context));
    const changed = await project.keep([{ ...outcome, request }], own, ready && { from, next: ready.next });
    const { label, params } = outcome;
    return { done: { label, notes: outcome.delta.notes, changed }, params };
  };

  /** The same of a request with all that follows it, where all of that was foreseen: it is kept in one go. */
  const actAtOnce = async (request: Request, own: number): Promise<Acted | undefined> => {
    const from = project.document;
    const steps = await ahead.all(from, request);
    if (!steps || project.document !== from) return undefined;
    const changed = await project.keep(steps, own, { from, next: steps[steps.length - 1].next });
    const [{ label, params }] = steps;
    return { done: { label, notes: steps.flatMap(({ delta }) => delta.notes), changed }, params };
  };

  /**
   * What an act brings with it. Where it cannot be, cannot be kept, or was stopped, the act stands without it, and the shells
   * stay marked as changed.
   *
   * @returns what the artist should hear
   */
  const followUp = async (
    follow: readonly FollowUp<never>[],
    params: unknown,
    own: number,
    signal: ActSignal,
  ): Promise<readonly string[]> => {
    const after = project.document;
    const notes: string[] = [];
    for (const next of follow) {
      const request = signal.aborted ? undefined : next(after, project.document, params as never);
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

  const enqueue = <T>(work: (signal: ActSignal) => Promise<T>, signal?: ActSignal): Promise<T> => {
    ahead.abort();
    questions.stopIdle();
    return queue.add(work, signal);
  };

  const perform = async (request: Request, { alone = false }: PerformOptions = {}): Promise<Done> => {
    const operation = operationNamed(request.operation);
    const signal = actSignal();
    const context = contextFor(operation.name as OperationName, signal);
    if (operation.nonBlocking) return (await act(request, group++, context)).done;
    ahead.yieldTo(project.document, request, context);
    return enqueue(async () => {
      const own = group++;
      emit({ kind: 'running', operation: operation.name as OperationName });
      const [from, since] = [project.document, Date.now()];
      const whole = alone ? undefined : await actAtOnce(request, own);
      const { done, params } = whole ?? (await act(request, own, context));
      if (operation.trial && done.changed) {
        const shells = operation.trial(project.document, params);
        void trials.made(from, project.document, done.label, shells, since);
      }
      if (whole || alone || !operation.followUps || !done.changed) return done;
      return {
        ...done,
        notes: [...done.notes, ...(await followUp(operation.followUps, params, own, signal))],
      };
    }, signal);
  };

  const travel = (to: (history: History) => number | undefined): Promise<Done | undefined> =>
    enqueue(async () => {
      const label = await project.travel(to, () => group++);
      return label === undefined ? undefined : { label, notes: [], changed: true };
    });

  return {
    get document(): HemDocument {
      return project.document;
    },
    get history(): History {
      return project.history;
    },
    /**
     * The document as it is now, and its acts with what they changed, read back where they are not in memory: as many around
     * the present as can be read.
     */
    async whole(): Promise<Whole & { readonly trials: readonly Trial[] }> {
      await trials.settled();
      return { ...(await project.whole()), trials: trials.list };
    },

    /** @throws HemError when it cannot be done, or not be kept: then the document is as it was */
    perform: <N extends OperationName>(
      operation: N,
      params: ParamsOf<N>,
      options?: PerformOptions,
    ): Promise<Done> => perform({ operation, params }, options),
    undo: () => travel(undone),
    redo: () => travel(redone),
    stop: queue.stop,

    trials: trialActs({
      trials,
      document: () => project.document,
      perform,
      alone: (work) =>
        enqueue((signal) => {
          const { show: _, ...context } = contextFor('unfold', signal);
          emit({ kind: 'running', operation: 'unfold' });
          return work(context);
        }),
    }),

    /** Unfolds what was cut when the session ended in the middle. */
    resume(): Promise<readonly string[]> {
      const { document, history } = project;
      const { uv } = current(document);
      if (!document.stale.includes(1) || uv.every(Number.isNaN)) return Promise.resolve([]);
      return enqueue((signal) =>
        followUp(reflatten, undefined, history.acts[history.done - 1]?.group ?? group++, signal),
      );
    },

    /**
     * What an act would lead to, with what it brings with it; never kept.
     *
     * @returns undefined when a newer preview, an act or `clear` ended this one, or it cannot be done
     */
    preview: (request: Request): Promise<HemDocument | undefined> => ahead.preview(project.document, request),
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
    ): Promise<AnswerOf<N> | undefined> => questions.ask(project.document, name, params, report),

    /** Ends a question; it answers with the best it has, or with nothing. */
    stopAsking: questions.stop,

    /** Brings everything to an end; resolves once what was done is kept. */
    async close(): Promise<void> {
      ahead.abort();
      questions.end();
      queue.stop();
      await queue.settled();
      await project.settled();
      await trials.settled();
    },
  };
}

export type Session = ReturnType<typeof openSession>;
