import type { Delta } from '@blunt-hem/core/document/delta';
import {
  current,
  type HemDocument,
  plainDocument,
  shellsOf,
  topologyOf,
} from '@blunt-hem/core/document/document';
import { MARKS } from '@blunt-hem/core/document/fields';
import { type ShellFigures, shellMarks } from '@blunt-hem/core/document/figures';
import { shellBoxes } from '@blunt-hem/core/document/layout';
import { cornersOf } from '@blunt-hem/core/document/uvChange';
import type { Jobs } from '@blunt-hem/core/jobs/index';
import type { StretchPicture } from '@blunt-hem/core/jobs/stretchPicture';
import type { ShellStretch } from '@blunt-hem/core/measure/stretch';
import { unattended } from '@blunt-hem/core/progress';
import { facesOfShell } from '@blunt-hem/core/surface/shells';
import type { UvBox } from '@blunt-hem/core/surface/uvBox';
import { movedFigures } from './movedFigures.ts';
import type { ShellRow } from './protocol.ts';

/** Shells are measured several to a job, of so many faces together. */
const BATCH = 20_000;

/** Keeps the figures of every shell, and has those measured again that an act changed. */
export function figureController(jobs: Jobs) {
  let known = new Map<number, ShellFigures>();
  let running = { aborted: false };
  /** The UVs that the known figures are of. */
  let measuredUv: Float64Array | undefined;

  return {
    /** Forgets figures that deltas made untrue; no deltas: all of them. */
    forget(document: HemDocument, deltas: readonly Delta[]): void {
      running.aborted = true;
      const dirty = dirtyFaces(document, deltas);
      const shells = shellsOf(document);
      const { uv } = current(document);
      const kept = new Map<number, ShellFigures>();
      for (let shell = 0; dirty && shell < shells.shellCount; shell++) {
        const faces = facesOfShell(shells, shell);
        const old = known.get(faces[0]);
        if (!old || old.faces !== faces.length) continue;
        const most = faces.reduce((sum, f) => Math.max(sum, dirty[f]), 0);
        if (most === 0) kept.set(faces[0], { ...old, shell });
        else if (most === MOVED && measuredUv) {
          const moved = movedFigures(document.model.mesh, faces, measuredUv, uv, old);
          if (moved) kept.set(faces[0], { ...moved, shell });
        }
      }
      known = kept;
      measuredUv = uv;
    },

    /** Rows for the table; figures that are not known yet are left out. */
    rows(document: HemDocument): ShellRow[] {
      const shells = shellsOf(document);
      let boxes: readonly (UvBox | undefined)[] | undefined;
      return Array.from({ length: shells.shellCount }, (_, shell) => {
        const faces = facesOfShell(shells, shell);
        const found = known.get(faces[0]);
        // Marks change without the figures.
        const marks = shellMarks(document, faces);
        if (found) return { ...rowOf(found), ...marks };
        boxes ??= shellBoxes(document);
        const box = boxes[shell];
        const unfolded = box !== undefined;
        return {
          name: faces[0],
          faces: faces.length,
          unfolded,
          ...marks,
          box,
        };
      });
    },

    /**
     * Has measured what is not known yet.
     *
     * @returns figures of every shell, in order; undefined when the document changed meanwhile
     */
    async measure(document: HemDocument): Promise<ShellFigures[] | undefined> {
      running.aborted = true;
      const signal = { aborted: false };
      running = signal;
      const shells = shellsOf(document);
      const wanted = Array.from({ length: shells.shellCount }, (_, s) => s).filter(
        (s) => !known.has(facesOfShell(shells, s)[0]),
      );
      const context = { signal, report: () => undefined };
      const plain = plainDocument(document);
      try {
        await Promise.all(
          inBatches(wanted, (s) => facesOfShell(shells, s).length).map(async (batch) => {
            const found = await jobs.run('figures', { document: plain, shells: batch }, context);
            if (signal.aborted) return;
            for (const each of found) known.set(each.firstFace, each);
          }),
        );
      } catch (error) {
        if (signal.aborted) return undefined;
        throw error;
      }
      if (signal.aborted) return undefined;
      return Array.from({ length: shells.shellCount }, (_, s) => {
        const faces = facesOfShell(shells, s);
        return { ...(known.get(faces[0]) as ShellFigures), ...shellMarks(document, faces) };
      });
    },

    /** What is drawn of figures that were measured. */
    picture: (document: HemDocument, figures: readonly ShellFigures[]): Promise<StretchPicture> =>
      jobs.run(
        'stretch-picture',
        { document: plainDocument(document), stretch: figures.map(({ stretch }) => drawnOf(stretch)) },
        unattended,
      ),

    end(): void {
      running.aborted = true;
    },
  };
}

const drawnOf = (stretch: ShellStretch | undefined) =>
  stretch && { logArea: stretch.logArea, angle: stretch.angle };

/** Shells in the order they come, several together up to so many faces. */
function inBatches(shells: readonly number[], facesOf: (shell: number) => number): number[][] {
  const batches: number[][] = [];
  let size = 0;
  for (const shell of shells) {
    const own = facesOf(shell);
    if (batches.length === 0 || size + own > BATCH) {
      batches.push([shell]);
      size = own;
    } else {
      batches[batches.length - 1].push(shell);
      size += own;
    }
  }
  return batches;
}

export function rowOf({ firstFace, stretch, shell: _shell, ...figures }: ShellFigures): ShellRow {
  const { logArea: _area, angle: _angle, ...rest } = stretch ?? { logArea: null, angle: null };
  return {
    ...figures,
    name: firstFace,
    unfolded: stretch !== undefined,
    ...(stretch && { stretch: rest as ShellRow['stretch'] }),
  };
}

/** Marks of faces: only their UVs are others, or more than these. */
const [MOVED, CHANGED] = [1, 2];

/** `CHANGED` or `MOVED` for each face whose figures deltas may have changed; undefined for all. */
function dirtyFaces(document: HemDocument, deltas: readonly Delta[]): Uint8Array | undefined {
  const { connectivity, mesh } = topologyOf(document.model);
  const dirty = new Uint8Array(document.stale.length);
  for (const change of deltas.flatMap(({ changes }) => changes)) {
    if (change.kind === 'remesh' || change.kind === 'replacement' || change.kind === 'set-switched')
      return undefined;
    if (change.kind === 'uv')
      for (const c of cornersOf(mesh, change)) dirty[connectivity.cornerFace[c]] ||= MOVED;
    if (change.kind !== 'marks' || !MARKS[change.field].changesFigures) continue;
    if (MARKS[change.field].per === 'face') for (const f of change.index) dirty[f] = CHANGED;
    else
      for (const e of change.index)
        for (let i = connectivity.edgeCornerStart[e]; i < connectivity.edgeCornerStart[e + 1]; i++)
          dirty[connectivity.cornerFace[connectivity.edgeCorners[i]]] = CHANGED;
  }
  return deltas.length === 0 ? undefined : dirty;
}
