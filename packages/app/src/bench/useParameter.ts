import { useBench } from '../store/bench.ts';

/** What a form needs to know of one number. */
interface NumberParameter {
  /** Its least and its most, and what it is, a sentence. */
  readonly range: { readonly min?: number; readonly max?: number; readonly title?: string };
  readonly unit?: string;
}

/**
 * One number that an operation, a question or a selector takes, as the core tells it.
 *
 * @param of  the name of the operation or question, or “edges by rule”
 */
export function useParameter(of: string, name: string): NumberParameter {
  const parameter = useBench((s) => s.parameters[of]?.[name]);
  if (!parameter) return { range: {} };
  const { least, most, positive, unit, about } = parameter;
  const title = about && `${about[0].toUpperCase()}${about.slice(1)}.`;
  return { range: { min: least ?? (positive ? 0 : undefined), max: most, title }, unit };
}
