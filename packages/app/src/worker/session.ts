import { type HemDocument, shellsOf, topologyOf } from '@blunt-hem/core/document/document';
import { figuresOf, type ShellFigures, totalsOf } from '@blunt-hem/core/document/figures';
import { type Act, record, redo, type Step, undo } from '@blunt-hem/core/document/history';
import { OVERLAP_LIMIT, overlappingFaces } from '@blunt-hem/core/document/overlaps';
import { applyPatch, type Patch } from '@blunt-hem/core/document/patch';
import { HemError } from '@blunt-hem/core/errors';
import { carryOut, type Request } from '@blunt-hem/core/operations/catalogue';
import type { OperationContext, Solvers } from '@blunt-hem/core/operations/operation';
import type { Progress } from '@blunt-hem/core/progress';
import { facesOfShell } from '@blunt-hem/core/surface/shells';
import type { Database } from '../storage/database.ts';
import { foldHistory, type Stored, saveAct, saveDone } from '../storage/projects.ts';
import { flatBuffers, histogram, modelBuffers } from './buffers.ts';
import type { BenchEvent, BenchState, Done, ShellRow } from './protocol.ts';

/** Operations after which the shells they touched are unfolded at once. */
const CHANGES_SEAMS = new Set(['cut', 'sew', 'open-pieces']);

/** Steps of relaxing that follow a cut; a shell that needs more wants a relax of its own. */
const LIVE_STEPS = 20;

/** Overlaps are counted once the hands rest, milliseconds. */
const REST = 250;

/**
 * One open project: the document, its history, and what is running. Acts follow one another; a newer one stops
 * what is running, which keeps its best so far or is left out.
 */
export function openSession(
  database: Database,
  stored: Stored,
  solvers: Solvers,
  emit: (event: BenchEvent) => void,
) {
  const projectId = stored.row.id;
  let current = stored;
  let figures: readonly ShellFigures[] = [];
  let running: { aborted: boolean } | undefined;
  let queue: Promise<unknown> = Promise.resolve();
  let overlapTimer: ReturnType<typeof setTimeout> | undefined;
  const { acts } = stored.history;
  let nextGroup = acts.length > 0 ? acts[acts.length - 1].group + 1 : 0;

  const contextFor = (label: string, signal: { aborted: boolean }): OperationContext => {
    let shell = -1;
    return {
      signal,
      solvers,
      onShell(s) {
        shell = s;
      },
      report(progress: Progress) {
        emit({ kind: 'busy', label, fraction: progress.fraction, figure: progress.figure });
        if (progress.uv && shell >= 0) emit(movingPicture(current.document, shell, progress.uv));
      },
    };
  };

  /** Carries out one request and keeps it; the document changes only once it is stored. */
  const act = async (request: Request, group: number, signal: { aborted: boolean }): Promise<Done> => {
    const label = `${request.operation.replaceAll('-', ' ')}…`;
    const outcome = await carryOut(current.document, request, contextFor(label, signal));
    if (outcome.patch.changes.every(isEmpty)) return { label: outcome.label, notes: outcome.patch.notes };
    const entry: Act = { operation: request.operation, ...outcome, group };
    const document = applyPatch(current.document, outcome.patch);
    const history = record(current.history, entry);
    emit({ kind: 'saved', saved: false });
    await saveAct(database, projectId, current.firstAct, history, document);
    current = await foldHistory(database, projectId, { ...current, document, history });
    emit({ kind: 'saved', saved: true });
    changed([outcome.patch]);
    return { label: outcome.label, notes: outcome.patch.notes };
  };

  const perform = async (request: Request): Promise<Done> => {
    const signal = { aborted: false };
    running = signal;
    const group = nextGroup++;
    try {
      emit({ kind: 'busy', label: `${request.operation.replaceAll('-', ' ')}…` });
      const done = await act(request, group, signal);
      if (!CHANGES_SEAMS.has(request.operation) || !current.document.stale.includes(1)) return done;
      const followed = await followUp(group, signal);
      return { label: done.label, notes: [...done.notes, ...followed] };
    } finally {
      if (running === signal) running = undefined;
      emit({ kind: 'busy' });
    }
  };

  /**
   * The unfold that a cut brings with it, and for shells that had been relaxed, relaxing. Where it cannot be, or was
   * stopped, the shells stay marked as changed.
   */
  const followUp = async (group: number, signal: { aborted: boolean }): Promise<readonly string[]> => {
    try {
      const relaxed = changedShells(current.document, current.document.relaxed);
      const { notes } = await act({ operation: 'unfold', params: { shells: 'stale' } }, group, signal);
      const left = new Set(changedShells(current.document));
      const shells = relaxed.filter((shell) => !left.has(shell));
      if (shells.length === 0 || signal.aborted) return notes;
      await act({ operation: 'relax', params: { shells, steps: LIVE_STEPS } }, group, signal);
      return notes;
    } catch (error) {
      if (error instanceof HemError && (error.code === 'stopped' || error.code === 'cannot-unfold')) {
        changed([]); // the moving picture may have left the Board in between
        return error.code === 'cannot-unfold' ? [error.message] : [];
      }
      throw error;
    }
  };

  const travel = async (find: typeof undo, back: boolean): Promise<Done | undefined> => {
    const step: Step | undefined = find(current.document, current.history);
    if (!step) return undefined;
    const index = back ? step.history.done : step.history.done - step.patches.length;
    const { label } = current.history.acts[index];
    await saveDone(database, projectId, step.history.done, step.document);
    current = { ...current, document: step.document, history: step.history };
    changed(step.patches);
    return { label, notes: [] };
  };

  /** Acts follow one another; what is running hears that it should come to an end. */
  const enqueue = <T>(work: () => Promise<T>): Promise<T> => {
    if (running) running.aborted = true;
    const result = queue.then(work);
    queue = result.catch(() => undefined);
    return result;
  };

  const changed = (patches: readonly Patch[]): void => {
    const { document } = current;
    figures = refreshedFigures(document, figures, dirtyFaces(document, patches));
    if (patches.some(changesMesh)) emit({ kind: 'model', model: modelBuffers(document) });
    emit({ kind: 'state', state: stateOf() });
    clearTimeout(overlapTimer);
    overlapTimer = setTimeout(() => {
      const faces = overlappingFaces(current.document);
      emit({ kind: 'overlaps', faces, atLeast: faces.length / 2 >= OVERLAP_LIMIT });
    }, REST);
  };

  const stateOf = (): BenchState => {
    const { document, history } = current;
    return {
      flat: flatBuffers(document, figures),
      hidden: document.hidden.slice(),
      shells: figures.map(rowOf),
      totals: totalsOf(figures),
      areaHistogram: histogram(figures, 'logArea', -1.5, 1.5),
      angleHistogram: histogram(figures, 'angle', 0, 60),
      undoable: groupLabels(history.acts.slice(0, history.done)).reverse(),
      redoable: groupLabels(history.acts.slice(history.done)),
    };
  };

  return {
    get document(): HemDocument {
      return current.document;
    },
    get stored(): Stored {
      return current;
    },
    /** Sends the first state, and unfolds what was cut when the browser was closed in the middle. */
    start(): void {
      changed([]);
      if (current.document.stale.includes(1) && totalsOf(figures).unfolded > 0) {
        const group = current.history.acts[current.history.done - 1]?.group ?? nextGroup++;
        void enqueue(() => {
          running = { aborted: false };
          return followUp(group, running).finally(() => emit({ kind: 'busy' }));
        }).catch(() => undefined);
      }
    },
    perform: (request: Request) => enqueue(() => perform(request)),
    undo: () => enqueue(() => travel(undo, true)),
    redo: () => enqueue(() => travel(redo, false)),
    stop(): void {
      if (running) running.aborted = true;
    },
    close(): Promise<unknown> {
      clearTimeout(overlapTimer);
      if (running) running.aborted = true;
      return queue;
    },
  };
}

export type Session = ReturnType<typeof openSession>;

/** Shells that were cut or sewn and not unfolded since; with `among`, only those with a face marked there. */
function changedShells(document: HemDocument, among?: Uint8Array): number[] {
  const { stale } = document;
  const { faceShell } = shellsOf(document);
  const found = new Set<number>();
  for (let f = 0; f < stale.length; f++) if (stale[f] && (!among || among[f])) found.add(faceShell[f]);
  return [...found];
}

const isEmpty = (change: Patch['changes'][number]): boolean =>
  change.kind !== 'remesh' && (change.kind === 'uv' ? change.corners : change.index).length === 0;

const changesMesh = ({ changes }: Patch): boolean => changes.some(({ kind }) => kind === 'remesh');

/** One label a group, that of its first act. */
function groupLabels(acts: readonly Act[]): string[] {
  return acts.filter((act, i) => i === 0 || acts[i - 1].group !== act.group).map(({ label }) => label);
}

/** Faces whose figures a patch may have changed; undefined for all. */
function dirtyFaces(document: HemDocument, patches: readonly Patch[]): Set<number> | undefined {
  if (patches.length === 0 || patches.some(changesMesh)) return undefined;
  const { links } = topologyOf(document.model);
  const dirty = new Set<number>();
  for (const change of patches.flatMap(({ changes }) => changes)) {
    if (change.kind === 'remesh') continue;
    if (change.kind === 'uv') for (const c of change.corners) dirty.add(links.cornerFace[c]);
    else if (change.field === 'stale') for (const f of change.index) dirty.add(f);
    else if (change.field === 'seams') {
      for (const e of change.index) {
        for (let i = links.edgeCornerStart[e]; i < links.edgeCornerStart[e + 1]; i++) {
          dirty.add(links.cornerFace[links.edgeCorners[i]]);
        }
      }
    }
  }
  return dirty;
}

/** Measures the shells with changed faces; the others keep their figures, under their new numbers. */
function refreshedFigures(
  document: HemDocument,
  before: readonly ShellFigures[],
  dirty: Set<number> | undefined,
): ShellFigures[] {
  const shells = shellsOf(document);
  const known = new Map(before.map((figures) => [figures.firstFace, figures]));
  return Array.from({ length: shells.shellCount }, (_, shell) => {
    const faces = facesOfShell(shells, shell);
    const old = known.get(faces[0]);
    if (dirty && old && old.faces === faces.length && !faces.some((f) => dirty.has(f)))
      return { ...old, shell };
    return figuresOf(document, shell);
  });
}

function rowOf({ shell, faces, firstFace, verdict, stretch, stale, box }: ShellFigures): ShellRow {
  const none = { l2: 0, linf: 0, angleMean: 0, areaMean: 0, flipped: 0, collapsed: 0, area: 0, uvArea: 0 };
  const { logArea: _area, angle: _angle, ...rest } = stretch ?? { ...none, logArea: null, angle: null };
  return { shell, faces, firstFace, verdict, stale, box, unfolded: stretch !== undefined, ...rest };
}

function movingPicture(document: HemDocument, shell: number, uv: Float64Array): BenchEvent {
  const { triangulation, triangleStart } = topologyOf(document.model);
  const shells = shellsOf(document);
  const triangles: number[] = [];
  const corners: number[] = [];
  for (const f of facesOfShell(shells, shell)) {
    for (let t = triangleStart[f]; t < triangleStart[f + 1]; t++) {
      triangles.push(t);
      for (let k = 0; k < 3; k++) {
        const v = shells.cornerWedge[triangulation.triangleCorners[3 * t + k]] - shells.wedgeStart[shell];
        corners.push(uv[2 * v], uv[2 * v + 1]);
      }
    }
  }
  return { kind: 'moving', triangles: Uint32Array.from(triangles), uv: Float32Array.from(corners) };
}
