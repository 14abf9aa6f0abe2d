import type { HemDocument } from '../document/document.ts';
import type { Patch } from '../document/patch.ts';
import { HemError } from '../errors.ts';
import { unattended } from '../progress.ts';
import { cut } from './cut.ts';
import { deleteFaces } from './deleteFaces.ts';
import { hide } from './hide.ts';
import { localSolvers } from './localSolvers.ts';
import { nameParts } from './nameParts.ts';
import { openPieces } from './openPieces.ts';
import type { Operation, OperationContext } from './operation.ts';
import { pack } from './pack.ts';
import { relax } from './relax.ts';
import { repair } from './repair.ts';
import { repairSafe } from './repairSafe.ts';
import { sew } from './sew.ts';
import { transformShells } from './transformShells.ts';
import { unfold } from './unfold.ts';

const operations = [
  cut,
  sew,
  openPieces,
  unfold,
  relax,
  pack,
  transformShells,
  hide,
  nameParts,
  repair,
  repairSafe,
  deleteFaces,
];

/** Every operation by name. */
export const catalogue: ReadonlyMap<string, Operation<unknown>> = new Map(
  operations.map((operation) => [operation.name, operation as Operation<unknown>]),
);

/** An operation with its parameters: plain JSON, enough to do it again on another document. */
export interface Request {
  readonly operation: string;
  readonly params: unknown;
}

export interface Outcome {
  readonly patch: Patch;
  readonly label: string;
  /** With defaults filled in. */
  readonly params: unknown;
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
  const operation = catalogue.get(name);
  if (!operation) throw new HemError('no-such-operation', `There is no operation “${name}”.`);
  const { value, error } = operation.schema.validate(params ?? {}, { convert: false });
  if (error) throw new HemError('wrong-parameters', `${name}: ${error.message}.`);
  const patch = await operation.run(document, value, context);
  return { patch, label: operation.label(value, document), params: value };
}

/** Nobody watches, nobody stops, everything is solved here. */
export const localContext: OperationContext = {
  ...unattended,
  solvers: localSolvers,
};
