import { keepsPlaces, pinsOf } from '../../document/constraints.ts';
import { markChange } from '../../document/delta.ts';
import { type HemDocument, shellOf, shellsOf, uvOfShell } from '../../document/document.ts';
import { hasGrain, turnedAlongGrain } from '../../document/grain.ts';
import { densityOf } from '../../document/layout.ts';
import { chosenShells, nameOfShell, shellsLabel } from '../../document/shellChoice.ts';
import { lostByRounding } from '../../measure/lostByRounding.ts';
import {
  about,
  choice,
  list,
  optional,
  otherwise,
  record,
  surfaceChoice,
  whichShells,
} from '../../params.ts';
import { plural } from '../../plural.ts';
import { surfaceArea } from '../../surface/areas.ts';
import { signedArea } from '../../surface/flatArea.ts';
import type { Shell } from '../../surface/shell.ts';
import { facesOfShell } from '../../surface/shells.ts';
import { transformUv } from '../../surface/similarity.ts';
import { CannotUnfoldError, METHODS, type Method } from '../../unfold/unfold.ts';
import { nearOldPlace, onBoard } from '../arrange/boardLayout.ts';
import { placedChange, placingNotes } from '../arrange/keepPlaces.ts';
import { operation } from '../operation.ts';
import { solveAll } from './batches.ts';
import { pin, stay } from './handles.ts';
import { toTile, wishesOf } from './wishes.ts';

/**
 * Lays shells flat, at one texture scale. Until shells have been placed all of them are laid out afresh; from then on one that had UVs
 * comes out where it was and as it was turned. A shell with pins lies where they say.
 */
export const unfold = operation({
  name: 'unfold',
  stage: 'unfold',
  params: record({
    shells: whichShells,
    method: about('the solver; as each shell was unfolded last when absent', optional(choice(...METHODS))),
    pins: about('places that hold, beside what is pinned where it lies', otherwise(list(pin), [])),
    stays: about('chains of vertices that lie straight at true length', otherwise(list(stay), [])),
    surface: surfaceChoice,
    relaxedNext: about(
      'which of them are relaxed next, so that what is nearly closed is laid out as that would begin',
      otherwise(choice('none', 'again', 'all'), 'none'),
    ),
  }),
  label({ shells, method }, document) {
    const methods = new Set(chosenShells(document, shells).map((s) => method ?? lastMethod(document, s)));
    return `Unfold ${shellsLabel(document, shells)}, ${methods.size === 1 ? [...methods][0] : 'each as before'}`;
  },
  doing: 'Unfolding',
  trial: (document, { shells }) => chosenShells(document, shells),
  async run(document, { shells: which, method, pins, stays, surface, relaxedNext }, context) {
    const chosen = chosenShells(document, which).map((s) => ({ s, shell: shellOf(document, s, surface) }));
    const known = densityOf(document);
    const wishes = wishesOf(document, new Map(chosen.map(({ s, shell }) => [s, shell])), known, pins, stays);
    const all = await solveAll(
      'unfold',
      chosen,
      (batch) =>
        batch.map(({ s, shell }) => ({
          shell,
          method: method ?? lastMethod(document, s),
          options: {
            ...wishes.get(s)?.options,
            upAxis: document.upAxis,
            relaxedNext:
              relaxedNext === 'all' ||
              (relaxedNext === 'again' && document.relaxed[nameOfShell(document, s)] === 1),
          },
        })),
      context,
      ({ s, shell }, uv) => context.show?.(new Map([[s, onItsWay(document, shell, uv, known)]])),
    );
    const results = all.flatMap(([task, laid]) => ('refused' in laid ? [] : [[task, laid] as const]));
    const refused = all.flatMap(([{ s }, laid]) =>
      'refused' in laid ? [{ s, topology: laid.refused }] : [],
    );
    if (refused.length > 0 && (Array.isArray(which) || results.length === 0)) {
      throw new CannotUnfoldError(
        refused[0].topology,
        refused.map(({ s }) => nameOfShell(document, s)),
      );
    }
    const asked = [...wishes.values()].find(({ options }) => options.pins);
    const density = known ?? asked?.density ?? 1;
    const keeps = keepsPlaces(document) || asked !== undefined;
    const solved = new Map<number, Float64Array>();
    const pinned = new Map<number, Float64Array>();
    let [mended, closed] = [0, 0];
    for (const [{ s, shell }, result] of results) {
      if (result.closed) closed++;
      else if (result.repaired) mended++;
      const wish = wishes.get(s);
      if (wish?.options.pins) pinned.set(s, toTile(result.uv, wish));
      else {
        const uv = wish ? atTrueSize(shell, result.uv) : result.uv;
        const laid = keeps ? nearOldPlace(document, shell, uv, density) : uv.map((x) => density * x);
        solved.set(s, hasGrain(document, s) ? turnedAlongGrain(document, s, shell, laid) : laid);
      }
    }
    const { change, corners, notes: placing } = onBoard(document, solved, pinned);
    let lost = 0;
    for (const [{ s, shell }] of results) {
      const uv = uvOfShell(shell, corners);
      // The picture first: to measure and to keep takes a while.
      if (results.length <= SHOWN) context.show?.(new Map([[s, uv]]));
      lost += lostByRounding(shell.triangles, uv);
    }
    const faces = [...solved.keys(), ...pinned.keys()].flatMap((s) => [
      ...facesOfShell(shellsOf(document), s),
    ]);
    const notes = [...placing];
    if (closed > 0) {
      notes.push(
        `Nearly closed: ${plural(closed, 'shell')}, kept from flipping and from shrinking to nothing at the cost of stretch. A lengthwise cut would help.`,
      );
    }
    if (lost > 0) {
      notes.push(
        `${plural(lost, 'face')} came out smaller than an export can tell from nothing, and may lie flipped in other programs: relax the shell, or cut it.`,
      );
    }
    if (mended > 0) {
      notes.push(`${plural(mended, 'shell')} came out with flipped or folded faces, which were mended.`);
    }
    if (refused.length > 0) {
      notes.push(`${plural(refused.length, 'piece')} left as they are: ${refused[0].topology.sentence}`);
    }
    const marks = (['stale', 'relaxed'] as const).map((field) => markChange(document, field, faces, 0));
    if (method) marks.push(markChange(document, 'method', faces, METHODS.indexOf(method)));
    // Pins that do not last place a shell as a hand does.
    const places = [...pinned.keys()].some((s) => pinsOf(document, shellOf(document, s)).length === 0);
    if (!places) return { changes: [change, ...marks], notes };
    return {
      changes: [change, ...marks, placedChange(document, 1)],
      notes: [...notes, ...placingNotes(document)],
    };
  },
});

/** A map as large as its surface: one with a stay at true length may be far larger or smaller elsewhere. */
function atTrueSize({ positions, triangles }: Shell, uv: Float64Array): Float64Array {
  const scale = Math.sqrt(surfaceArea(positions, triangles) / signedArea(triangles, uv));
  return scale > 0 && Number.isFinite(scale) ? uv.map((x) => scale * x) : uv;
}

/** How a shell was unfolded last; conformally where it never was. */
const lastMethod = (document: HemDocument, shell: number): Method =>
  METHODS[document.method[nameOfShell(document, shell)]];

/** So many shells are shown before they are kept; more come with all the rest. */
const SHOWN = 8;

/** A solver's map on its way, roughly where it will lie. */
function onItsWay(
  document: HemDocument,
  shell: Shell,
  uv: Float64Array,
  density: number | undefined,
): Float64Array {
  const area = surfaceArea(shell.positions, shell.triangles);
  const scale = Math.sqrt(area / Math.abs(signedArea(shell.triangles, uv) || 1));
  const sized = transformUv(uv, [scale, 0, 0, scale, 0, 0]);
  if (density !== undefined) return nearOldPlace(document, shell, sized, density);
  const fit = 0.8 / Math.sqrt(area || 1);
  return transformUv(sized, [fit, 0, 0, fit, 0.5, 0.5]);
}
