import { pinsOf, staysOf } from '../../document/constraints.ts';
import { markChange } from '../../document/delta.ts';
import { type HemDocument, shellOf, shellsOf, shellUv } from '../../document/document.ts';
import { LockedError, leftLocked, lockedOf } from '../../document/locks.ts';
import { chosenShells, nameOfShell, shellsLabel } from '../../document/shellChoice.ts';
import { HemError } from '../../errors.ts';
import { distance } from '../../mesh/distance.ts';
import {
  about,
  flag,
  indices,
  list,
  number,
  optional,
  otherwise,
  positive,
  record,
  surfaceChoice,
  type Taken,
  whichShells,
  whole,
} from '../../params.ts';
import { plural } from '../../plural.ts';
import { within } from '../../progress.ts';
import { FlippedStartError, isFlippedStart, scaleToArea } from '../../relax/loosen.ts';
import { fixedBorder, fixedOutside } from '../../relax/region.ts';
import type { RelaxOptions } from '../../relax/relax.ts';
import { RELAX_STEPS } from '../../relax/steps.ts';
import type { Shell } from '../../surface/shell.ts';
import { facesOfShell } from '../../surface/shells.ts';
import { bestTurn, transformUv } from '../../surface/similarity.ts';
import { onBoard } from '../arrange/boardLayout.ts';
import { operation } from '../operation.ts';
import { solveAll } from './batches.ts';
import { findInShells, heldVertex, stay } from './handles.ts';

const params = record({
  shells: whichShells,
  seconds: about('when it stops and keeps the best so far', optional(positive()), 's'),
  steps: about('most steps a shell takes', otherwise(whole(1, 10_000), 100)),
  balance: about('from 0, angles alone, to 1, area above all', otherwise(number(0, 1), 0.5)),
  faces: about('faces that may loosen, by number, all else stays; all faces when absent', optional(indices)),
  keepBorder: about('whether borders stay where they are', otherwise(flag(), false)),
  held: about('vertices that stay where they are', otherwise(list(heldVertex), [])),
  stays: about('chains that keep their shape and only move as a whole', otherwise(list(stay), [])),
  surface: surfaceChoice,
});

/** Evens out stretch inside shells, and keeps them from lying on themselves; each stays as large as it is, and where it is once shells have been placed. */
export const relax = operation({
  name: 'relax',
  stage: 'unfold',
  params,
  label: ({ shells, faces }, document) =>
    faces ? `Relax ${plural(faces.length, 'face')}` : `Relax ${shellsLabel(document, shells)}`,
  doing: 'Relaxing',
  trial: (document, { shells, faces }) => chosenShells(document, faces ?? shells),
  figure: (energy) => `energy ${energy.toFixed(3)}, 4 is perfect`,
  async run(document, given, context) {
    const signal = given.seconds === undefined ? context.signal : within(context.signal, given.seconds);
    const found = workOf(document, given);
    const locked = given.faces ? lockedOf(document, shellsOfFaces(document, given.faces)) : [];
    if (found.length === 0 && locked.length > 0)
      throw new LockedError(locked.map((s) => nameOfShell(document, s)));
    if (found.length === 0) throw new HemError('nothing-unfolded', 'Nothing to relax: unfold a shell first.');
    const work = found.filter(({ shell, start, options }) => !isFlippedStart(shell, start, options.fixed));
    if (work.length === 0) throw new FlippedStartError();
    const results = await solveAll(
      'relax',
      work,
      (batch) => batch.map(({ shell, start, options }) => ({ shell, start, options })),
      { ...context, signal },
      ({ s }, uv) => context.show?.(new Map([[s, uv]])),
    );
    const uvOf = new Map<number, Float64Array>();
    const firm = new Map<number, Float64Array>();
    const even: number[] = [];
    let [stopped, kept, onItself] = [0, 0, 0];
    const falling: number[] = [];
    for (const [{ s, shell, start, options }, result] of results) {
      if (result.onItself === 'kept from it') kept++;
      if (result.onItself === 'yes' && given.steps > GENTLE) onItself++;
      if (
        result.energyAfter < result.energyBefore ||
        (result.onItself === 'kept from it' && result.steps > 0)
      )
        if (options.fixed.includes(1)) firm.set(s, atItsSize(shell, result.uv, start, options));
        else uvOf.set(s, whereItLay(shell, result.uv, start));
      else if (result.converged) even.push(s);
      if (!result.converged && signal.aborted) stopped++;
      else if (!result.converged && result.lately > WORTH && given.steps > RELAX_STEPS)
        falling.push(result.lately);
    }
    const notes = leftLocked(locked.length);
    const flipped = found.length - work.length;
    if (flipped > 0)
      notes.push(
        `${plural(flipped, 'shell')} with flipped or collapsed faces left alone: unfold anew before relaxing.`,
      );
    if (stopped > 0) notes.push(`Stopped early on ${plural(stopped, 'shell')}; the best so far is kept.`);
    if (falling.length > 0)
      notes.push(
        `${plural(falling.length, 'shell')} not as even as can be yet: the last ten steps took ${percent(Math.max(...falling))} off the energy. Relax again.`,
      );
    if (kept > 0)
      notes.push(`${plural(kept, 'shell')} kept from lying on ${kept === 1 ? 'itself' : 'themselves'}.`);
    if (onItself > 0)
      notes.push(
        `Still lying on ${onItself === 1 ? 'itself' : 'themselves'}: ${plural(onItself, 'shell')}. Split a side off, or cut further.`,
      );
    const moved = [...uvOf.keys(), ...firm.keys()];
    if (moved.length === 0 && stopped === 0)
      notes.push('Nothing to gain: this is as even as it gets without another cut.');
    // A shell that is as even as it gets was relaxed, too.
    const faces = [...moved, ...even].flatMap((s) => [...facesOfShell(shellsOf(document), s)]);
    const { change, notes: placing } = onBoard(document, uvOf, firm);
    return {
      changes: [change, markChange(document, 'relaxed', faces, 1)],
      notes: [...notes, ...placing],
    };
  },
});

/** A map as large as the start, turned and moved to where that lies. */
function whereItLay({ triangles }: Shell, uv: Float64Array, start: Float64Array): Float64Array {
  const scale = scaleToArea(triangles, uv, start);
  return transformUv(uv, bestTurn(uv, start, scale > 0 ? scale : 1));
}

/** A map of which one place alone is held, as large as the start; where more is held, that says how large it is. */
function atItsSize(
  { triangles }: Shell,
  uv: Float64Array,
  start: Float64Array,
  { fixed, rigid }: Work['options'],
): Float64Array {
  const pin = fixed.indexOf(1);
  if (rigid.length > 0 || fixed.lastIndexOf(1) !== pin) return uv;
  const scale = scaleToArea(triangles, uv, start);
  const [u, v] = [start[2 * pin], start[2 * pin + 1]];
  return scale > 0 ? transformUv(uv, [scale, 0, 0, scale, u - scale * u, v - scale * v]) : uv;
}

/** Part of the energy that ten steps take off for which more are worth it. */
const WORTH = 1e-4;

const percent = (part: number): string => `${Number((100 * part).toPrecision(2))} %`;

/** So few steps are taken to be watched, one after the other: nothing is begun anew for them. */
const GENTLE = 10;

const shellsOfFaces = (document: HemDocument, faces: readonly number[]): Set<number> =>
  new Set(faces.map((f) => shellsOf(document).faceShell[f]));

interface Work {
  readonly s: number;
  readonly shell: Shell;
  readonly start: Float64Array;
  readonly options: RelaxOptions & { readonly fixed: Uint8Array; readonly rigid: readonly Uint32Array[] };
}

/** The shells that have UVs and something that may loosen, each with what must stay. */
function workOf(document: HemDocument, given: Taken<typeof params>): Work[] {
  const loose = given.faces && new Set(given.faces);
  const touched = given.faces && shellsOfFaces(document, given.faces);
  const found = chosenShells(document, given.shells).flatMap((s) => {
    if (touched && !touched.has(s)) return [];
    const shell = shellOf(document, s, given.surface);
    const start = shellUv(document, shell);
    return start ? [{ s, shell, start }] : [];
  });
  const shells = new Map(found.map(({ s, shell }) => [s, shell]));
  const held = given.held.map(({ vertex, face }) => findInShells(document, shells, [vertex], face));
  const stays = given.stays.map(({ vertices, face }) => findInShells(document, shells, vertices, face));
  return found.map(({ s, shell, start }) => {
    const fixed = loose
      ? fixedOutside(
          shell,
          Uint8Array.from(shell.triangleFace, (f) => (loose.has(f) ? 1 : 0)),
        )
      : new Uint8Array(start.length / 2);
    if (given.keepBorder)
      fixedBorder(shell).forEach((f, v) => {
        fixed[v] |= f;
      });
    for (const v of pinsOf(document, shell)) fixed[v] = 1;
    for (const { shell: at, vertices } of held) if (at === s) for (const v of vertices) fixed[v] = 1;
    const rigid = [
      ...staysOf(document, s).map(({ vertices }) => Uint32Array.from(vertices)),
      ...stays.filter(({ shell: at }) => at === s).map(({ vertices }) => vertices),
    ];
    const options = {
      fixed,
      rigid,
      balance: given.balance,
      clear: given.steps > GENTLE ? ('anew' as const) : ('kept' as const),
      steps: given.steps,
      scale: rigid.length > 0 ? trueScale(shell, rigid[0], start) : undefined,
    };
    return { s, shell, start, options };
  });
}

/** Model units per UV unit along a stay, which is at true length. */
function trueScale({ positions }: Shell, stay: Uint32Array, uv: Float64Array): number | undefined {
  let [long, flat] = [0, 0];
  for (let i = 1; i < stay.length; i++) {
    const [a, b] = [stay[i - 1], stay[i]];
    long += distance(positions, a, b);
    flat += Math.hypot(uv[2 * a] - uv[2 * b], uv[2 * a + 1] - uv[2 * b + 1]);
  }
  return flat > 0 && long > 0 ? long / flat : undefined;
}
