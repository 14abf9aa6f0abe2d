import type { Parameter } from '@blunt-hem/core/parameters';
import PARAMETERS from './parameters.json' with { type: 'json' };

/** What a form needs to know of one number. */
interface NumberParameter {
  /** Its least and its most, and what it is, a sentence. */
  readonly range: { readonly min?: number; readonly max?: number; readonly title: string };
  readonly unit?: string;
}

type Told = Pick<Parameter, 'about' | 'unit' | 'least' | 'most' | 'positive'>;
type Owner = keyof typeof PARAMETERS;

/**
 * One number that an operation, a question or a selector takes, as the core tells it: the list is written from its schemas by
 * `npm run docs`, for the schemas themselves stay with the worker.
 *
 * @param of  the name of the operation or question, or “edges by rule”
 */
export function parameterOf<O extends Owner>(of: O, name: keyof (typeof PARAMETERS)[O]): NumberParameter {
  const { least, most, positive, unit, about } = PARAMETERS[of][name] as Told;
  const title = `${about[0].toUpperCase()}${about.slice(1)}.`;
  return { range: { min: least ?? (positive ? 0 : undefined), max: most, title }, unit };
}
