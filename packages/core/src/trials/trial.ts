import { type HemDocument, shellOf, shellsOf, shellUv, topologyOf } from '../document/document.ts';
import type { StretchFigures } from '../measure/sumStretch.ts';
import type { Mesh } from '../mesh/mesh.ts';
import { facesOfShell } from '../surface/shells.ts';
import { METHODS, type Method } from '../unfold/unfold.ts';

/** One shell as an unfold or relax left it. */
export interface TrialShell {
  /** How many faces it had. */
  readonly faces: number;
  /** A corner of each of its vertices: what they hang together by. */
  readonly corners: Uint32Array;
  /** UV of each of its vertices, tile units, `2 × corners.length`. */
  readonly uv: Float64Array;
  readonly method: Method;
  readonly relaxed: boolean;
}

/** A kept result of an unfold or relax. */
export interface Trial {
  /** Numbered from 0 on as they are made; the number of one that is gone is not given again. */
  readonly id: number;
  /** What the artist calls it, or else what was done. */
  readonly name: string;
  /** Kept by hand: the last to go when there is no room. */
  readonly kept: boolean;
  /** Milliseconds since 1970. */
  readonly made: number;
  /** The UV set that it is of, by its lasting id; undefined in what was kept before trials told that. */
  readonly set?: number;
  /** What it took; undefined where nothing was solved for it. */
  readonly seconds?: number;
  /** Of the mesh that its corners are of: see `meshMark`. */
  readonly mesh: number;
  readonly shells: readonly TrialShell[];
  /** One a shell. */
  readonly figures: readonly StretchFigures[];
}

/** Some shells of a document as they lie flat now; those of which not all does are left out. */
export function trialShells(document: HemDocument, shells: readonly number[]): TrialShell[] {
  return shells.flatMap((s) => {
    const shell = shellOf(document, s);
    const uv = shellUv(document, shell);
    if (!uv) return [];
    const faces = facesOfShell(shellsOf(document), s);
    return [
      {
        faces: faces.length,
        corners: Uint32Array.from(shell.vertexCorner),
        uv,
        method: METHODS[document.method[faces[0]]],
        relaxed: faces.some((f) => document.relaxed[f] === 1),
      },
    ];
  });
}

/**
 * The shell of a document that a shell of a trial was: of the same faces, cut alike.
 *
 * @returns its number, or undefined where there is none any more
 */
export function shellNow(document: HemDocument, { faces, corners }: TrialShell): number | undefined {
  const { faceShell, wedgeStart, cornerWedge } = shellsOf(document);
  const s = faceShell[topologyOf(document.model).connectivity.cornerFace[corners[0]]];
  const first = wedgeStart[s];
  if (wedgeStart[s + 1] - first !== corners.length) return undefined;
  if (facesOfShell(shellsOf(document), s).length !== faces) return undefined;
  return corners.every((c, i) => cornerWedge[c] === first + i) ? s : undefined;
}

/** The shells of a trial that are still there, with their numbers in a document. */
export function placesOf(
  document: HemDocument,
  { mesh, shells }: Trial,
): (TrialShell & { readonly s: number })[] {
  if (mesh !== meshMark(document.model.mesh)) return [];
  return shells.flatMap((each) => {
    const s = shellNow(document, each);
    return s === undefined ? [] : [{ ...each, s }];
  });
}

const marks = new WeakMap<Uint32Array, number>();

/** A number that two meshes share when their polygons are the same: FNV-1a over their corners (Fowler, Noll, Vo 1991), 32 bits. */
export function meshMark({ cornerVertex, faceStart }: Mesh): number {
  let mark = marks.get(cornerVertex);
  if (mark === undefined) {
    mark = 0x811c9dc5;
    for (const list of [cornerVertex, faceStart])
      for (let i = 0; i < list.length; i++) mark = Math.imul(mark ^ list[i], 0x01000193);
    mark >>>= 0;
    marks.set(cornerVertex, mark);
  }
  return mark;
}
