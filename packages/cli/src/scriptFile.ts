import { OPERATIONS, type OperationName } from '@blunt-hem/core/operations/catalogue';
import Joi from 'joi';
import { readJson } from './jsonFile.ts';

/** What is done to shells and points on the Board. */
const ALLOWED: readonly string[] = OPERATIONS.filter(({ stage }) => stage === 'arrange').map(
  ({ name }) => name,
);

const SHAPE =
  'It should read {"acts": [{"operation": "align-shells", "params": {…}}, …]}, with operations of the stage Arrange.';

const schema = Joi.object({
  acts: Joi.array()
    .items(
      Joi.object({
        operation: Joi.string()
          .valid(...ALLOWED)
          .required(),
        params: Joi.object().default({}),
      }),
    )
    .min(1)
    .required(),
});

/** One act of a script; its parameters are checked where it is carried out. */
export interface Act {
  readonly operation: OperationName;
  readonly params: object;
}

/**
 * Reads acts, one after the other.
 *
 * @throws FileError when the text is no such list
 */
export function readScript(text: string, fileName: string): Act[] {
  return readJson(text, fileName, schema, SHAPE).acts;
}
