import { type OperationName, operationNamed, type ParamsOf } from '@blunt-hem/core/operations/catalogue';
import { InvalidArgumentError, Option } from 'commander';

/** What Joi tells of one parameter. */
interface Described {
  readonly type?: string;
  readonly flags?: { readonly default?: unknown };
  readonly allow?: readonly unknown[];
  readonly rules?: readonly { readonly name: string; readonly args?: { readonly limit?: number } }[];
}

/** An option for one parameter of an operation: its choices, bounds and default are those of the catalogue. */
export function optionOf<N extends OperationName>(
  operation: N,
  parameter: keyof ParamsOf<N> & string,
  description: string,
): Option {
  const { keys } = operationNamed(operation).params.describe() as { keys: Record<string, Described> };
  const described = keys[parameter];
  const flag = `--${parameter.replace(/[A-Z]/g, (letter) => `-${letter.toLowerCase()}`)}`;
  const choices = (described.allow ?? []).filter((value) => typeof value === 'string');
  const option = new Option(`${flag} <${described.type === 'number' ? 'n' : 'choice'}>`, description);
  if (described.flags && 'default' in described.flags) option.default(described.flags.default);
  if (described.type === 'number') option.argParser((word) => numberWithin(word, described));
  else option.choices(choices as string[]);
  return option;
}

function numberWithin(word: string, { rules = [] }: Described): number {
  const value = Number(word);
  if (word.trim() === '' || !Number.isFinite(value)) throw new InvalidArgumentError('It must be a number.');
  const limit = (name: string) => rules.find((rule) => rule.name === name)?.args?.limit;
  const [least, most] = [limit('min'), limit('max')];
  if (rules.some(({ name }) => name === 'integer') && !Number.isInteger(value))
    throw new InvalidArgumentError('It must be a whole number.');
  if (rules.some(({ name }) => name === 'sign') && value <= 0)
    throw new InvalidArgumentError('It must be greater than 0.');
  if (least !== undefined && value < least) throw new InvalidArgumentError(`It must be at least ${least}.`);
  if (most !== undefined && value > most) throw new InvalidArgumentError(`It must be at most ${most}.`);
  return value;
}

/** Where the result goes; the ending says in which format. */
export const outOption = (): Option =>
  new Option('--out <file>', 'where the result goes, a name ending in .obj or .glb')
    .makeOptionMandatory()
    .argParser((word) => {
      if (!/\.(obj|glb)$/i.test(word)) throw new InvalidArgumentError('It must end in .obj or .glb.');
      return word;
    });
