import { OPERATIONS } from '@blunt-hem/core/operations/catalogue';
import { parametersOf } from '@blunt-hem/core/parameters';
import { QUESTIONS } from '@blunt-hem/core/questions/index';
import { SELECTORS } from '@blunt-hem/core/selectors/index';
import type { Parameters } from './protocol.ts';

const NAMED = [
  ...[...OPERATIONS, ...QUESTIONS].map(({ name, params }) => [name, params] as const),
  ...SELECTORS.map(({ of, key, params }) => [`${of} by ${key}`, params] as const),
];

/** What every operation and question takes, and what things may be told by, for the forms of the page. */
export const parameters = (): Parameters =>
  Object.fromEntries(
    NAMED.map(([name, params]) => [
      name,
      Object.fromEntries(parametersOf(params).map((parameter) => [parameter.name, parameter])),
    ]),
  );
