import type { Request } from '@blunt-hem/core/document/request';
import type { OperationName, ParamsOf } from '@blunt-hem/core/operations/catalogue';
import type { Done } from '@blunt-hem/core/session/done';
import type { Answer } from '../worker/protocol.ts';
import { useBench } from './bench.ts';
import type { Notice } from './run.ts';
import { NoAnswerError } from './supervisor.ts';
import { ArtistError, bench, stopOrRestart, unwrap } from './worker.ts';

/** What the interface does to the document. Failures become a notice; nothing here throws but bugs. */

export const notify = (notice: Notice | undefined): void => useBench.setState({ notice });
export const note = (text: string): void => notify({ tone: 'note', text });
/** What to do first; gone once it is done. */
export const hint = (text: string): void => notify({ tone: 'hint', text });

/** Picks that were asked for and not yet answered: a key pressed meanwhile means what was picked. */
let picks: Promise<unknown> = Promise.resolve();

export function afterPick(pick: Promise<unknown>): void {
  picks = Promise.all([picks, counted(() => pick).catch(() => undefined)]);
}

/** Resolves once every pick is answered. */
export const picked = (): Promise<unknown> => picks;

/** Counts an act, or a pick, as asked until it is answered. */
export async function counted<T>(work: () => Promise<T>): Promise<T> {
  useBench.setState((s) => ({ asked: s.asked + 1 }));
  try {
    return await work();
  } finally {
    useBench.setState((s) => ({ answered: s.answered + 1 }));
  }
}

/** Carries out an operation of the catalogue and says what came of it. */
export async function perform<N extends OperationName>(
  operation: N,
  params: ParamsOf<N>,
): Promise<Done | undefined> {
  notify(undefined);
  return counted(async () => {
    try {
      const done = unwrap((await bench.perform(operation, params)) as Answer<Done>);
      if (done.notes.length > 0) note(done.notes.join(' '));
      else if (!done.changed) note(`${done.label}: nothing changed, it is so already.`);
      return done;
    } catch (error) {
      fail(error, { operation, params });
      return undefined;
    }
  });
}

export const travel = (way: 'undo' | 'redo'): Promise<void> =>
  counted(async () => {
    try {
      const done = unwrap(await bench[way]());
      if (done) note(`${way === 'undo' ? 'Taken back' : 'Done again'}: ${done.label}.`);
      else note(way === 'undo' ? 'There is nothing to take back.' : 'There is nothing to do again.');
    } catch (error) {
      fail(error);
    }
  });

/** Ends what is running; a worker that does not hear it is started again. */
export const stop = (): Promise<void> => stopOrRestart(() => bench.stop());

/** Failures after which nothing more can be kept where this project was. */
const ADRIFT = new Set(['no-such-project', 'store-closed', 'lock-lost']);

/** Makes a new project of one that is in this tab alone. */
export async function keepAsNew(): Promise<void> {
  try {
    const id = unwrap(await bench.keepAsNew());
    // Nothing is left behind.
    useBench.setState({ unsaved: false });
    window.location.assign(`/project/${id}`);
  } catch (error) {
    fail(error);
  }
}

export function fail(error: unknown, request?: Request): void {
  // The project is opened again, which tells of it.
  if (error instanceof NoAnswerError) return;
  if (!(error instanceof ArtistError)) {
    notify({
      tone: 'error',
      text: 'Something went wrong inside Blunt Hem. Your work is saved up to the last act.',
    });
    throw error;
  }
  // What took its place speaks for itself.
  if (error.code === 'superseded') return;
  if (ADRIFT.has(error.code)) {
    useBench.setState({ unsaved: true });
    notify({
      tone: 'error',
      text: error.message,
      offer: { label: 'Keep it as a new project', act: () => void keepAsNew() },
    });
    return;
  }
  const canOpen = error.code === 'cannot-unfold' && error.ids.length > 0;
  const shells = [...error.ids];
  notify({
    tone: error.code === 'stopped' ? 'note' : 'error',
    text: error.message,
    offer: canOpen
      ? { label: 'Cut it open for me', act: () => void openAndUnfold(shells, request) }
      : undefined,
  });
}

/** Cuts pieces open; the cut itself unfolds what it opened. */
async function openAndUnfold(shells: readonly number[], request: Request | undefined): Promise<void> {
  const done = await perform('open-pieces', { shells });
  const unfolded = useBench.getState().shells.some((row) => row.unfolded);
  if (done && request && !unfolded) await perform('unfold', { shells: 'all' });
}
