import { changesModel, type Delta, switchesSet } from '@blunt-hem/core/document/delta';
import type { HemDocument } from '@blunt-hem/core/document/document';
import { totalsOf } from '@blunt-hem/core/document/figures';
import { groupLabels, type History } from '@blunt-hem/core/document/history';
import type { Request } from '@blunt-hem/core/document/request';
import { shellPicture } from '@blunt-hem/core/document/shellPicture';
import type { Jobs } from '@blunt-hem/core/jobs/index';
import { operationNamed } from '@blunt-hem/core/operations/catalogue';
import { titleOf } from '@blunt-hem/core/operations/sets/knownSet';
import type { Hands } from '@blunt-hem/core/session/hands';
import type { Persistence } from '@blunt-hem/core/session/persistence';
import { openSession } from '@blunt-hem/core/session/session';
import type { Trial } from '@blunt-hem/core/trials/trial';
import { type FlatPart, flatBuffers, modelBuffers, patchList } from './buffers.ts';
import { figureController } from './figureController.ts';
import { ghostOf } from './ghost.ts';
import { occlusionWatch } from './occlusionWatch.ts';
import { changesOne, flatPartsChanged } from './pictureChanges.ts';
import type { BenchEvent, BenchState, Ghost } from './protocol.ts';
import { trialRow } from './trialPicture.ts';

/** How shells lie together is looked at once the hands rest, milliseconds. */
const REST = 250;

export interface ControllerStart {
  readonly document: HemDocument;
  readonly history: History;
  readonly trials: readonly Trial[];
  readonly persistence: Persistence;
  readonly jobs: Jobs;
  readonly previewJobs: Jobs;
  readonly backgroundJobs: Jobs;
  readonly idleJobs: Jobs;
  readonly hands: Hands;
}

/**
 * Puts a session on the Bench: what it tells, as buffers to draw and rows to read. First the picture, then the figures.
 *
 * @param onFirstRest  called once everything has been measured for the first time: the moment for what can wait
 */
export function sessionController(
  start: ControllerStart,
  emit: (event: BenchEvent) => void,
  onFirstRest: () => void,
) {
  // The first document is not kept beside the one that is open now.
  const { jobs, previewJobs } = start;
  const figures = figureController(jobs);
  let layoutTimer: ReturnType<typeof setTimeout> | undefined;
  let totals = totalsOf([]);
  let before = totals;
  let rested = false;
  /** The act that the figures now known belong to. */
  let measuredGroup = -1;
  let seenGroup = -1;
  let coveredNow: readonly number[] | undefined;
  let coveredBefore: readonly number[] | undefined;
  let busy = false;
  /** Counts changes: what was measured before the last one is of no more use. */
  let changes = 0;
  /** The act after which nothing has been measured yet. */
  let unmeasured: number | undefined;

  const session = openSession({
    ...start,
    emit(event) {
      switch (event.kind) {
        case 'changed':
          changed(event.deltas, event.group);
          return;
        case 'picture':
          emit({ kind: 'moving', ...shellPicture(session.document, event.uvOf) });
          return;
        case 'running': {
          const { operation, fraction, figure } = event;
          const running = operation && operationNamed(operation);
          busy = running !== undefined;
          if (!busy) {
            if (unmeasured !== undefined) measure(unmeasured);
            if (rested) occlusion.rest();
          }
          emit({
            kind: 'running',
            doing: running?.doing,
            fraction,
            figure: figure === undefined ? undefined : running?.figure?.(figure),
          });
          return;
        }
        case 'trials':
          emit({ kind: 'trials', trials: event.trials.map(trialRow) });
          return;
        case 'saved':
          emit(event);
      }
    },
  });

  const occlusion = occlusionWatch(session, emit);

  const changed = (deltas: readonly Delta[], group: number): void => {
    const { document } = session;
    changes++;
    figures.forget(document, deltas);
    // Figures of two sets are not compared.
    if (deltas.some(switchesSet)) measuredGroup = -1;
    const all = deltas.length === 0;
    if (deltas.some(changesModel)) emit({ kind: 'model', model: modelBuffers(document) });
    else if (deltas.some(changesOne('smoothed')))
      emit({ kind: 'model', model: modelBuffers(document), sameMesh: true });
    emit({
      kind: 'state',
      state: stateOf(
        flatPartsChanged(deltas),
        all || deltas.some(changesOne('hidden')),
        all || deltas.some(changesOne('patches', 'patchNames', 'patchWeights')),
      ),
    });
    clearTimeout(layoutTimer);
    // What an act brings with it goes before figures of what lies between.
    if (busy) unmeasured = group;
    else measure(group);
  };

  const measure = (group: number): void => {
    const { document } = session;
    const now = changes;
    unmeasured = undefined;
    const measuring = twice(async () => {
      const found = await figures.measure(document);
      return found && { found, picture: await figures.picture(document, found) };
    });
    void measuring.catch((error: Error) => unmeasurable(now, error));
    void measuring.then(
      (measured) => {
        if (!measured || now !== changes) return;
        const { found, picture } = measured;
        if (group !== measuredGroup) before = measuredGroup === -1 ? totalsOf(found) : totals;
        measuredGroup = group;
        totals = totalsOf(found);
        emit({
          kind: 'figures',
          figures: {
            shells: figures.rows(document),
            totals,
            before,
            ...picture,
          },
        });
        layoutTimer = setTimeout(() => {
          seeLayout(group).catch((error: Error) => unmeasurable(changes, error));
        }, REST);
      },
      () => undefined,
    );
  };

  /** Whoever waits for the figures is not to wait for ever. */
  const unmeasurable = (when: number, error: Error): void => {
    if (when === changes) emit({ kind: 'unmeasured', sentence: error.message });
  };

  const seeLayout = async (group: number): Promise<void> => {
    const now = changes;
    const [found, covered] = await twice(() =>
      Promise.all([session.ask('inspection', {}), session.ask('coverage', {})]),
    );
    if (!found || covered === undefined || now !== changes) return;
    if (group !== seenGroup) coveredBefore = seenGroup === -1 ? undefined : coveredNow;
    [seenGroup, coveredNow] = [group, covered];
    emit({ kind: 'layout', ...found, covered, coveredBefore });
    if (!rested) onFirstRest();
    rested = true;
    occlusion.rest();
  };

  const stateOf = (parts: ReadonlySet<FlatPart>, withHidden: boolean, withPatches: boolean): BenchState => {
    const { document, history } = session;
    return {
      ...(parts.size > 0 && { flat: flatBuffers(document, parts) }),
      ...(withHidden && { hidden: document.hidden.slice() }),
      ...(withPatches && { patches: patchList(document) }),
      shells: figures.rows(document),
      uvSets: document.uvSets.map((set) => ({ id: set.id, name: titleOf(set) })),
      currentUv: document.currentUv,
      placed: document.placed === 1,
      upAxis: document.upAxis,
      front: document.front,
      limits: document.limits,
      tiles: document.tiles,
      undoable: groupLabels(history.acts.slice(0, history.done)).reverse(),
      redoable: groupLabels(history.acts.slice(history.done)),
    };
  };

  return {
    session,
    /** Sends the first state, and unfolds what was cut when the browser was closed in the middle. */
    begin(): void {
      changed([], -2);
      emit({ kind: 'trials', trials: session.trials.list.map(trialRow) });
      void session.resume().catch(() => undefined);
    },
    async preview(request: Request): Promise<Ghost | undefined> {
      const from = session.document;
      const to = await session.preview(request);
      return to && ghostOf(from, to, previewJobs);
    },
    async close(): Promise<void> {
      clearTimeout(layoutTimer);
      occlusion.end();
      figures.end();
      await session.close();
    },
  };
}

export type SessionController = ReturnType<typeof sessionController>;

/** Once more where a solver broke down: it was started again. */
const twice = <T>(work: () => Promise<T>): Promise<T> => work().catch(work);
