import { type HemDocument, shellsOf, topologyOf } from '../document/document.ts';
import { knownFaces } from '../document/known.ts';
import type { ShellPicture } from '../document/shellPicture.ts';
import { touchAt } from '../jobs/brushShell.ts';
import { singularValues } from '../measure/singularValues.ts';
import { brushParams, underBrush } from '../operations/unfold/brush.ts';
import { type BrushedShell, brushedShell, dab } from '../relax/brush.ts';
import { facesOfShell } from '../surface/shells.ts';
import { question } from './question.ts';

/** How a shell lies under the brush: the triangles that were touched so far, with their stretch. */
export interface BrushPicture extends ShellPicture {
  /** Of each of those triangles; see `ShellStretch`. */
  readonly logArea: Float32Array;
  readonly angle: Float32Array;
}

/** A stroke on its way: a hand holds one brush, and asks again and again for one touch more. */
interface Stroke {
  readonly s: number;
  readonly brush: string;
  /** Touches that were done. */
  readonly dabs: readonly number[];
  readonly shell: BrushedShell;
  readonly positions: Float64Array;
  /** Triangles of the model, in the order of those of the shell. */
  readonly names: Uint32Array;
  readonly uv: Float64Array;
  /** Triangles that were touched, and 1 for each of them. */
  readonly touched: number[];
  readonly isTouched: Uint8Array;
}

/**
 * The flat as the operation of the same name would leave it. Asked without any touch, it makes ready, which costs more than many of
 * them.
 */
export const brushed = question({
  name: 'brushed',
  params: brushParams,
  byHand: true,
  answer(document, params, { cache }): BrushPicture {
    const { face, brush, dabs } = params;
    knownFaces(document.model.mesh, [face]);
    const last = cache?.get('brushed', document) as Stroke | undefined;
    const goesOn =
      last?.s === shellsOf(document).faceShell[face] &&
      (last.brush === brush || last.dabs.length === 0) &&
      last.dabs.length <= dabs.length &&
      last.dabs.every((x, i) => x === dabs[i]);
    const stroke: Stroke = goesOn && last ? { ...last, brush } : begun(document, params);
    for (let i = stroke.dabs.length; i < dabs.length; i += 6)
      touch(stroke, dab(stroke.shell, stroke.uv, brush, touchAt(dabs, i)));
    const value = { ...stroke, dabs };
    cache?.put('brushed', { document, value });
    return pictureOf(value);
  },
});

function begun(document: HemDocument, params: Parameters<typeof underBrush>[1]): Stroke {
  const { s, shell, uv, held } = underBrush(document, params);
  const { triangleStart } = topologyOf(document.model);
  const names: number[] = [];
  for (const f of facesOfShell(shellsOf(document), s))
    for (let t = triangleStart[f]; t < triangleStart[f + 1]; t++) names.push(t);
  return {
    s,
    brush: params.brush,
    dabs: [],
    shell: brushedShell(shell, uv, held),
    positions: shell.positions,
    names: Uint32Array.from(names),
    uv: uv.slice(),
    touched: [],
    isTouched: new Uint8Array(names.length),
  };
}

function touch({ shell: { at }, touched, isTouched }: Stroke, vertices: readonly number[]): void {
  for (const v of vertices)
    for (let k = at.start[v]; k < at.start[v + 1]; k++) {
      const t = Math.floor(at.items[k] / 3);
      if (!isTouched[t]) touched.push(t);
      isTouched[t] = 1;
    }
}

function pictureOf({ shell, positions, names, uv, touched }: Stroke): BrushPicture {
  const { triangles, rest, scale } = shell;
  const count = touched.length;
  const corners = new Uint32Array(3 * count);
  for (let i = 0; i < count; i++)
    for (let k = 0; k < 3; k++) corners[3 * i + k] = triangles[3 * touched[i] + k];
  const places = new Float32Array(2 * corners.length);
  for (let i = 0; i < corners.length; i++) {
    places[2 * i] = uv[2 * corners[i]];
    places[2 * i + 1] = uv[2 * corners[i] + 1];
  }
  const sv = singularValues(positions, corners, uv);
  const logArea = new Float32Array(count);
  const angle = new Float32Array(count);
  for (let i = 0; i < count; i++) {
    const [most, least] = [sv[3 * i] * scale, sv[3 * i + 1] * scale];
    logArea[i] = Math.log(Math.max(1e-9, Math.abs(sv[3 * i + 2]) / (rest.area[touched[i]] * scale * scale)));
    angle[i] = (360 / Math.PI) * Math.asin(Math.min(1, (most - least) / (most + least)));
  }
  return { triangles: Uint32Array.from(touched, (t) => names[t]), uv: places, logArea, angle };
}
