import { foldsOf } from '../measure/folds.ts';
import { measureStretch, type ShellStretch } from '../measure/stretch.ts';
import { sumStretch } from '../measure/sumStretch.ts';
import { facesOfShell } from '../surface/shells.ts';
import { type ShellTopology, shellTopology } from '../surface/shellTopology.ts';
import { boxOf, type UvBox } from '../surface/uvBox.ts';
import { METHODS, type Method } from '../unfold/unfold.ts';
import { current, type HemDocument, shellOf, shellsOf, shellUv } from './document.ts';
import { weightOfFaces } from './patchWeights.ts';

/** What is marked on a shell. */
export interface ShellMarks {
  /** Cut or sewn and not unfolded since. */
  readonly stale: boolean;
  readonly relaxed: boolean;
  /** How it was unfolded last. */
  readonly method: Method;
  /** Whether any of it is flattened as it looks smoothed. */
  readonly smoothed: boolean;
  /** Whether it is finished. */
  readonly locked: boolean;
  /** The group in which it is packed; 0 for none. */
  readonly group: number;
  /** How much finer than the rest its texture is to be. */
  readonly weight: number;
}

/** What is known of one shell. */
export interface ShellFigures extends ShellMarks {
  readonly shell: number;
  readonly faces: number;
  readonly firstFace: number;
  readonly topology: ShellTopology;
  /** Undefined while the shell has no UVs. */
  readonly stretch: ShellStretch | undefined;
  /** Faces that are not valid under every diagonal, and those that cannot be, being concave on the model. */
  readonly folded: number;
  readonly concave: number;
  /** Smallest and greatest u and v: `[minU, minV, maxU, maxV]`; undefined while it has no UVs. */
  readonly box: UvBox | undefined;
}

export function figuresOf(document: HemDocument, shell: number): ShellFigures {
  const piece = shellOf(document, shell);
  const uv = shellUv(document, piece);
  const faces = facesOfShell(shellsOf(document), shell);
  const { folded, concave } = uv
    ? foldsOf(document.model.mesh, current(document).uv, faces)
    : { folded: [], concave: 0 };
  return {
    shell,
    faces: faces.length,
    firstFace: faces[0],
    ...shellMarks(document, faces),
    topology: shellTopology(piece),
    stretch: uv && measureStretch(piece, uv),
    folded: folded.length,
    concave,
    box: uv && boxOf(uv),
  };
}

export const shellMarks = (document: HemDocument, faces: Uint32Array): ShellMarks => {
  const { stale, relaxed, method, smoothed, locked, groups } = document;
  return {
    stale: isAnyMarked(stale, faces),
    relaxed: isAnyMarked(relaxed, faces),
    method: METHODS[method[faces[0]]],
    smoothed: isAnyMarked(smoothed, faces),
    locked: isAnyMarked(locked, faces),
    group: groups[faces[0]],
    weight: weightOfFaces(document, faces),
  };
};

/** Hot: asked for every face of a model after every act. */
function isAnyMarked(marks: Uint8Array, faces: Uint32Array): boolean {
  for (let i = 0; i < faces.length; i++) if (marks[faces[i]] === 1) return true;
  return false;
}

/** Figures of all shells together. */
export interface Totals {
  readonly shells: number;
  readonly unfolded: number;
  readonly l2: number;
  readonly linf: number;
  readonly angleMean: number;
  readonly areaMean: number;
  readonly flipped: number;
  readonly collapsed: number;
  readonly folded: number;
  /** Flat length per model length, averaged by area; times the texture size it is the texel density. */
  readonly density: number;
  /** Greatest density of a shell for its weight over the least; infinite where one has no area in the flat, 1 where none has. */
  readonly densitySpread: number;
}

/** Sums up shells, each weighing as much as its surface. Each shell's stretch stays scale-free by itself. */
export function totalsOf(figures: readonly ShellFigures[]): Totals {
  let [unfolded, folds, least, most] = [0, 0, Infinity, 0];
  for (const { stretch, folded, weight } of figures) {
    if (!stretch) continue;
    folds += folded;
    unfolded++;
    const density = Math.sqrt(stretch.uvArea / stretch.area) / weight;
    least = Math.min(least, density);
    most = Math.max(most, density);
  }
  const { area, uvArea, ...sum } = sumStretch(figures.flatMap(({ stretch }) => stretch ?? []));
  return {
    ...sum,
    shells: figures.length,
    unfolded,
    folded: folds,
    density: area > 0 ? Math.sqrt(uvArea / area) : 0,
    densitySpread: most > 0 ? most / least : 1,
  };
}
