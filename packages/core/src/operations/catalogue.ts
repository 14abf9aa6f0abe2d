import type { Delta } from '../document/delta.ts';
import type { HemDocument } from '../document/document.ts';
import { heedLocks, LockedError, leftLocked, lockedOf } from '../document/locks.ts';
import type { Request } from '../document/request.ts';
import { namedShells, nameOfShell } from '../document/shellChoice.ts';
import { HemError } from '../errors.ts';
import type { Given, WhichShells } from '../params.ts';
import { resolveChosen, type Selectable } from '../selectors/index.ts';
import { alignPoints } from './arrange/alignPoints.ts';
import { alignShells } from './arrange/alignShells.ts';
import { evenDensity } from './arrange/evenDensity.ts';
import { fitShells } from './arrange/fitShells.ts';
import { gatherShells } from './arrange/gatherShells.ts';
import { giveUvs } from './arrange/giveUvs.ts';
import { grainAlongShells } from './arrange/grainAlongShells.ts';
import { groupShells } from './arrange/groupShells.ts';
import { joinHalves } from './arrange/joinHalves.ts';
import { keepPlaces } from './arrange/keepPlaces.ts';
import { layBorder } from './arrange/layBorder.ts';
import { levelEdges } from './arrange/levelEdges.ts';
import { lockShells } from './arrange/lockShells.ts';
import { matchShells } from './arrange/matchShells.ts';
import { mirrorInPlace } from './arrange/mirrorInPlace.ts';
import { moveClear } from './arrange/moveClear.ts';
import { movePoints } from './arrange/movePoints.ts';
import { pack } from './arrange/pack.ts';
import { setApart } from './arrange/setApart.ts';
import { setGrain } from './arrange/setGrain.ts';
import { setLimits } from './arrange/setLimits.ts';
import { setTiles } from './arrange/setTiles.ts';
import { sewOver } from './arrange/sewOver.ts';
import { splitOff } from './arrange/splitOff.ts';
import { spreadShells } from './arrange/spreadShells.ts';
import { squareGrid } from './arrange/squareGrid.ts';
import { straightenRow } from './arrange/straightenRow.ts';
import { swapShells } from './arrange/swapShells.ts';
import { transformPoints } from './arrange/transformPoints.ts';
import { transformShells } from './arrange/transformShells.ts';
import { turnUpright } from './arrange/turnUpright.ts';
import { weldSeams } from './arrange/weldSeams.ts';
import { carryToCopies } from './cut/carryToCopies.ts';
import { cut } from './cut/cut.ts';
import { openPieces } from './cut/openPieces.ts';
import { sew } from './cut/sew.ts';
import { shiftSeam } from './cut/shiftSeam.ts';
import { straightenSeams } from './cut/straightenSeams.ts';
import { deleteFaces } from './intake/deleteFaces.ts';
import { hide } from './intake/hide.ts';
import { nameParts } from './intake/nameParts.ts';
import { repair } from './intake/repair.ts';
import { repairSafe } from './intake/repairSafe.ts';
import { standUp } from './intake/standUp.ts';
import type { Operation, OperationContext } from './operation.ts';
import { namePatch } from './patches/namePatch.ts';
import { paintPatch } from './patches/paintPatch.ts';
import { patchShells } from './patches/patchShells.ts';
import { removePatch } from './patches/removePatch.ts';
import { weighPatch } from './patches/weighPatch.ts';
import { addSet } from './sets/addSet.ts';
import { removeSet } from './sets/removeSet.ts';
import { renameSet } from './sets/renameSet.ts';
import { useSet } from './sets/useSet.ts';
import { brush } from './unfold/brush.ts';
import { movePin } from './unfold/movePin.ts';
import { project } from './unfold/project.ts';
import { relax } from './unfold/relax.ts';
import { setPins } from './unfold/setPins.ts';
import { setStays } from './unfold/setStays.ts';
import { setSurface } from './unfold/setSurface.ts';
import { straightStrip } from './unfold/straightStrip.ts';
import { takeTrial } from './unfold/takeTrial.ts';
import { unfold } from './unfold/unfold.ts';
import { unfoldFolds } from './unfold/unfoldFolds.ts';

/** Every operation, by stage. */
export const OPERATIONS = [
  repair,
  repairSafe,
  deleteFaces,
  hide,
  nameParts,
  standUp,
  cut,
  sew,
  openPieces,
  shiftSeam,
  straightenSeams,
  carryToCopies,
  paintPatch,
  patchShells,
  namePatch,
  weighPatch,
  removePatch,
  unfold,
  relax,
  setPins,
  movePin,
  setStays,
  setSurface,
  takeTrial,
  straightStrip,
  project,
  brush,
  unfoldFolds,
  transformShells,
  alignShells,
  spreadShells,
  matchShells,
  swapShells,
  fitShells,
  gatherShells,
  levelEdges,
  movePoints,
  transformPoints,
  alignPoints,
  straightenRow,
  layBorder,
  squareGrid,
  sewOver,
  weldSeams,
  giveUvs,
  setApart,
  joinHalves,
  pack,
  keepPlaces,
  moveClear,
  splitOff,
  mirrorInPlace,
  evenDensity,
  turnUpright,
  setGrain,
  grainAlongShells,
  lockShells,
  groupShells,
  setLimits,
  setTiles,
  addSet,
  renameSet,
  removeSet,
  useSet,
] as const;

type AnyOperation = (typeof OPERATIONS)[number];
export type OperationName = AnyOperation['name'];
/** What a caller gives with an operation. */
export type ParamsOf<N extends OperationName> = Selectable<
  Given<Extract<AnyOperation, { readonly name: N }>['params']>
>;

// biome-ignore lint/suspicious/noExplicitAny: each of them checks its own parameters
const byName = new Map<string, Operation<string, any, any>>(OPERATIONS.map((each) => [each.name, each]));

/** A request whose parameters the compiler has checked. */
export const request = <N extends OperationName>(operation: N, params: ParamsOf<N>): Request => ({
  operation,
  params,
});

/** @throws HemError when there is no such operation */
// biome-ignore lint/suspicious/noExplicitAny: each of them checks its own parameters
export function operationNamed(name: string): Operation<string, any, any> {
  const found = byName.get(name);
  if (!found) throw new HemError('no-such-operation', `There is no operation “${name}”.`);
  return found;
}

export interface Outcome {
  readonly delta: Delta;
  readonly label: string;
  /** With defaults filled in, and numbers for what was told by what it is. */
  readonly params: unknown;
  /** As they are kept: with what was told, where it was. */
  readonly kept: unknown;
}

/**
 * Checks a request against the catalogue and carries it out.
 *
 * @throws HemError when there is no such operation, its parameters are wrong or it cannot be done
 */
export async function carryOut(
  document: HemDocument,
  { operation: name, params }: Request,
  context: OperationContext,
): Promise<Outcome> {
  const operation = operationNamed(name);
  const chosen = await resolveChosen(document, params ?? {}, context);
  const { value, error } = operation.params.validate(chosen.params, { convert: false });
  if (error) throw new HemError('wrong-parameters', `${name}: ${error.message}.`);
  const left = operation.onLocked ? 0 : lockedAmong(document, value.shells);
  const patch = await operation.run(document, value, context);
  if (!operation.onLocked) heedLocks(document, patch.changes);
  const notes = [...patch.notes, ...leftLocked(left)];
  const label = operation.label(value, document);
  return {
    delta: { ...patch, notes },
    label: chosen.words ? `${label}: ${chosen.words}` : label,
    params: value,
    kept: { ...value, ...chosen.kept },
  };
}

/**
 * How many of the shells that are meant are locked.
 *
 * @throws LockedError when all are
 */
function lockedAmong(document: HemDocument, which: WhichShells | undefined): number {
  if (which === undefined || which === 'stale' || !document.locked.includes(1)) return 0;
  const named = namedShells(document, which);
  const locked = lockedOf(document, named);
  if (locked.length > 0 && locked.length === named.length)
    throw new LockedError(locked.map((s) => nameOfShell(document, s)));
  return locked.length;
}
