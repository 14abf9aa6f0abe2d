import type { PartKind } from '@blunt-hem/core/mesh/parts';
import type { Request } from '@blunt-hem/core/operations/catalogue';
import type { UvMatrix } from '@blunt-hem/core/surface/similarity';
import * as Comlink from 'comlink';
import type { Done, FindingRow, Target } from '../worker/protocol.ts';
import { type Notice, useBench } from './benchStore.ts';
import { ArtistError, bench, unwrap } from './worker.ts';

/** Everything the interface can ask for. Failures become a notice; nothing here throws. */

const notify = (notice: Notice | undefined) => useBench.setState({ notice });

export async function perform(request: Request): Promise<Done | undefined> {
  notify(undefined);
  try {
    const done = unwrap(await bench.perform(request));
    if (done.notes.length > 0) notify({ tone: 'note', text: done.notes.join(' ') });
    return done;
  } catch (error) {
    fail(error, request);
    return undefined;
  }
}

export function fail(error: unknown, request?: Request): void {
  if (!(error instanceof ArtistError)) {
    notify({
      tone: 'error',
      text: 'Something went wrong inside Blunt Hem. Your work is saved up to the last act.',
    });
    throw error;
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
  const done = await perform({ operation: 'open-pieces', params: { shells } });
  const unfolded = useBench.getState().state?.shells.some((row) => row.unfolded);
  if (done && request && !unfolded) await perform({ operation: 'unfold', params: { shells: 'all' } });
}

const chosenEdges = (): number[] => [...useBench.getState().edges];

/** The selected shells, or all when none is. */
const chosenShells = (): 'all' | number[] => {
  const { shells } = useBench.getState();
  return shells.size > 0 ? [...shells] : 'all';
};

/** Picks that were asked for and not yet answered: a key pressed meanwhile means what was picked. */
let picks: Promise<unknown> = Promise.resolve();

export function afterPick(pick: Promise<unknown>): void {
  picks = Promise.all([picks, pick.catch(() => undefined)]);
}

async function seamAct(operation: 'cut' | 'sew', nothing: string): Promise<void> {
  await picks;
  const edges = chosenEdges();
  if (edges.length === 0) return notify({ tone: 'note', text: nothing });
  useBench.setState({ edges: new Set() });
  await perform({ operation, params: { edges } });
}

export const cut = () => seamAct('cut', 'Pick edges first: click one, or double-click for its whole loop.');
export const sew = () => seamAct('sew', 'Pick seams first, then sew them.');
export const unfold = () =>
  perform({ operation: 'unfold', params: { shells: chosenShells(), method: 'conformal' } });
export const relax = () => perform({ operation: 'relax', params: { shells: chosenShells() } });
export const pack = (params: object = {}) => perform({ operation: 'pack', params });
export const openPieces = () => perform({ operation: 'open-pieces', params: { shells: chosenShells() } });

/** What is selected, as faces: selected faces, and all of selected shells. */
function selectedFaces(): number[] {
  const { faces, shells, flat } = useBench.getState();
  const all = new Set(faces);
  flat?.faceShell.forEach((shell, f) => {
    if (shells.has(shell)) all.add(f);
  });
  return [...all];
}

/** Hides what is selected. */
export async function hideSelected(): Promise<void> {
  const faces = selectedFaces();
  if (faces.length === 0) return notify({ tone: 'note', text: 'Select faces, shells or parts first.' });
  await perform({ operation: 'hide', params: { how: 'hide', faces } });
  selectNothing();
}

/** Shows only what is selected; all of the model again when nothing is, or something is hidden already. */
export async function isolate(): Promise<void> {
  const faces = selectedFaces();
  const hidden = useBench.getState().state?.hidden.includes(1);
  if (faces.length === 0 && !hidden)
    return notify({ tone: 'note', text: 'Select faces, shells or parts first.' });
  const params = faces.length > 0 && !hidden ? { how: 'isolate', faces } : { how: 'show' };
  await perform({ operation: 'hide', params });
}

export const hideParts = (by: PartKind, parts: readonly number[], how: 'hide' | 'show' | 'isolate') =>
  perform({ operation: 'hide', params: { by, parts, how } });
export const nameParts = (by: PartKind, parts: readonly number[], name: string) =>
  perform({ operation: 'name-parts', params: { by, parts, name } });
export const stop = () => bench.stop();

/** What was found is not looked for again where its faces say all: rays may have taken a while. */
export const repair = ({ kind, faces, repair: cure }: FindingRow) =>
  perform({
    operation: 'repair',
    params: {
      kind,
      tolerance: useBench.getState().tolerance,
      ...(cure?.ofFaces && { faces: [...faces] }),
    },
  });
export const repairSafe = () =>
  perform({ operation: 'repair-safe', params: { tolerance: useBench.getState().tolerance } });

export async function deleteFaces(): Promise<void> {
  const faces = selectedFaces();
  if (faces.length === 0) return notify({ tone: 'note', text: 'Select faces, shells or parts first.' });
  await perform({ operation: 'delete-faces', params: { faces } });
}

let examinations = 0;

/** Has the model examined as it is now; a newer call takes over. */
export async function examine(): Promise<void> {
  const { model, tolerance } = useBench.getState();
  const mine = ++examinations;
  const isThis = () => mine === examinations && useBench.getState().model === model;
  useBench.setState({ examining: 0 });
  const report = (fraction: number) => {
    if (isThis()) useBench.setState({ examining: fraction });
  };
  const health = await bench.examine(tolerance, Comlink.proxy(report));
  if (!isThis()) return;
  useBench.setState({ health, examining: undefined });
  const { stage, state } = useBench.getState();
  const ill = health?.findings.filter(({ severity }) => severity === 'spoils').length ?? 0;
  // Said once, before the first act: later the mark at Intake is enough.
  if (ill === 0 || stage === 'intake' || (state && state.undoable.length > 0)) return;
  notify({
    tone: 'note',
    text: `The health check found ${ill === 1 ? 'one thing that spoils' : `${ill} things that spoil`} the UVs.`,
    offer: {
      label: 'Look at it first',
      act: () => useBench.setState({ stage: 'intake', notice: undefined }),
    },
  });
}

export async function transformShells(matrix: UvMatrix): Promise<void> {
  const { shells } = useBench.getState();
  if (shells.size === 0) return notify({ tone: 'note', text: 'Pick a shell first.' });
  await perform({ operation: 'transform-shells', params: { shells: [...shells], matrix: [...matrix] } });
}

/** Turns, scales or mirrors the selected shells about the middle of their box. */
export async function transformAboutMiddle(a: number, b: number, c: number, d: number): Promise<void> {
  const { shells, state } = useBench.getState();
  const boxes = [...shells].flatMap((s) => state?.shells[s]?.box ?? []);
  if (boxes.length === 0) return notify({ tone: 'note', text: 'Pick an unfolded shell first.' });
  const at = (k: number) => boxes.filter((_, i) => i % 4 === k);
  const u = (Math.min(...at(0)) + Math.max(...at(2))) / 2;
  const v = (Math.min(...at(1)) + Math.max(...at(3))) / 2;
  await transformShells([a, b, c, d, u - a * u - c * v, v - b * u - d * v]);
}

export async function travel(way: 'undo' | 'redo'): Promise<void> {
  try {
    const done = unwrap(await bench[way]());
    if (done)
      notify({ tone: 'note', text: `${way === 'undo' ? 'Taken back' : 'Done again'}: ${done.label}.` });
  } catch (error) {
    fail(error);
  }
}

/** What a click adds to, takes from or puts in place of a selection. */
export function select(kind: Target, items: readonly number[], how: 'only' | 'add' | 'remove'): void {
  useBench.setState((s) => {
    const next = new Set(how === 'only' ? [] : s[kind]);
    for (const item of items) {
      if (how === 'remove') next.delete(item);
      else next.add(item);
    }
    return { [kind]: next };
  });
}

export const selectNothing = () =>
  useBench.setState({ edges: new Set(), faces: new Set(), shells: new Set() });
