import type { Model } from '../mesh/model.ts';
import { facesOfShell } from '../surface/shells.ts';
import { type HemDocument, shellsOf } from './document.ts';

/** A difference between two documents that can be applied either way. */
export interface Patch {
  readonly changes: readonly Change[];
  /** What the artist should hear: what was left out, what was repaired. */
  readonly notes: readonly string[];
}

/** Marks of the document, one byte an edge or face. */
export type MarkField = 'seams' | 'hidden' | 'stale' | 'relaxed';

/** All of a document that hangs on its mesh. */
export interface Remake extends Pick<HemDocument, 'seams' | 'uvSets' | 'hidden' | 'stale' | 'relaxed'> {
  /** Only the fields that change. */
  readonly model: Partial<Model>;
}

export type Change =
  | { readonly kind: 'remesh'; readonly before: Remake; readonly after: Remake }
  | {
      readonly kind: 'marks';
      readonly field: MarkField;
      readonly index: Uint32Array;
      readonly before: Uint8Array;
      readonly after: Uint8Array;
    }
  | {
      readonly kind: 'uv';
      readonly set: number;
      readonly corners: Uint32Array;
      /** `2 × corners.length`. */
      readonly before: Float64Array;
      readonly after: Float64Array;
    };

export function applyPatch(document: HemDocument, patch: Patch): HemDocument {
  return patch.changes.reduce(applyChange, document);
}

/** The patch that takes this one back. */
export function inverse(patch: Patch): Patch {
  const changes = patch.changes
    .map((change) => ({ ...change, before: change.after, after: change.before }) as Change)
    .reverse();
  return { changes, notes: [] };
}

function applyChange(document: HemDocument, change: Change): HemDocument {
  if (change.kind === 'remesh') {
    return { ...document, ...change.after, model: { ...document.model, ...change.after.model } };
  }
  if (change.kind === 'marks') {
    const marks = document[change.field].slice();
    for (let i = 0; i < change.index.length; i++) marks[change.index[i]] = change.after[i];
    return { ...document, [change.field]: marks };
  }
  const uv = document.uvSets[change.set].uv.slice();
  for (let i = 0; i < change.corners.length; i++) {
    uv[2 * change.corners[i]] = change.after[2 * i];
    uv[2 * change.corners[i] + 1] = change.after[2 * i + 1];
  }
  const uvSets = document.uvSets.map((set, i) => (i === change.set ? { ...set, uv } : set));
  return { ...document, uvSets };
}

/** The change that leads from a document to one of another mesh. */
export function remeshChange(from: HemDocument, to: HemDocument): Change {
  const keys = (Object.keys({ ...from.model, ...to.model }) as (keyof Model)[]).filter(
    (key) => from.model[key] !== to.model[key],
  );
  const remake = ({ model, seams, uvSets, hidden, stale, relaxed }: HemDocument): Remake => ({
    model: Object.fromEntries(keys.map((key) => [key, model[key]])),
    seams,
    uvSets,
    hidden,
    stale,
    relaxed,
  });
  return { kind: 'remesh', before: remake(from), after: remake(to) };
}

/** Marks set to one value; those that have it already are left out. */
export function markChange(
  document: HemDocument,
  field: MarkField,
  index: Iterable<number>,
  value: 0 | 1,
): Change {
  const marks = document[field];
  const changed = Uint32Array.from(new Set([...index].filter((i) => marks[i] !== value)));
  return {
    kind: 'marks',
    field,
    index: changed,
    before: Uint8Array.from(changed, () => 1 - value),
    after: new Uint8Array(changed.length).fill(value),
  };
}

/**
 * New UVs for whole shells of a document.
 *
 * @param uvOf  for each shell, UV per shell vertex
 */
export function uvChange(document: HemDocument, uvOf: ReadonlyMap<number, Float64Array>): Change {
  const { mesh } = document.model;
  const shells = shellsOf(document);
  const current = document.uvSets[document.currentUv].uv;
  let count = 0;
  const eachCorner = (visit: (corner: number, uv: Float64Array, vertex: number) => void) => {
    for (const [shell, uv] of uvOf) {
      for (const f of facesOfShell(shells, shell)) {
        for (let c = mesh.faceStart[f]; c < mesh.faceStart[f + 1]; c++) {
          visit(c, uv, shells.cornerWedge[c] - shells.wedgeStart[shell]);
        }
      }
    }
  };
  eachCorner(() => count++);
  const corners = new Uint32Array(count);
  const before = new Float64Array(2 * count);
  const after = new Float64Array(2 * count);
  let at = 0;
  eachCorner((c, uv, v) => {
    corners[at] = c;
    before[2 * at] = current[2 * c];
    before[2 * at + 1] = current[2 * c + 1];
    after[2 * at] = uv[2 * v];
    after[2 * at + 1] = uv[2 * v + 1];
    at++;
  });
  return { kind: 'uv', set: document.currentUv, corners, before, after };
}
