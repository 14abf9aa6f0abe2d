import type { HemDocument } from '../document/document.ts';
import { HemError } from '../errors.ts';
import type { Given } from '../params.ts';
import { edgesByRule } from './edgesByRule.ts';
import { edgesRound, facesOf, shellsOfNamed } from './named.ts';
import { CHOSEN_KINDS, type ChosenKind, type Selector } from './selector.ts';
import { shellsWhere } from './shellsWhere.ts';

/** Every selector. */
export const SELECTORS = [edgesByRule, edgesRound, facesOf, shellsOfNamed, shellsWhere] as const;

type ByOf<S> = S extends { readonly params: infer P } ? Given<P> : never;
type EdgesBy = ByOf<typeof edgesByRule> | ByOf<typeof edgesRound>;
type FacesBy = ByOf<typeof facesOf>;
type ShellsBy = ByOf<typeof shellsOfNamed> | ByOf<typeof shellsWhere>;

/**
 * What is meant by what it is, in place of a list of numbers. Where the numbers that it gave are told as well, they hold: a history is
 * done again as it was, and on another model without them.
 */
export interface Chosen<By> {
  readonly by: By;
  readonly indices?: readonly number[];
}
interface ChosenBy {
  readonly edges: Chosen<EdgesBy>;
  readonly faces: Chosen<FacesBy>;
  readonly shells: Chosen<ShellsBy>;
}

/** Parameters of which edges, faces and shells may be told by what they are. */
export type Selectable<P> = {
  readonly [K in keyof P]: K extends ChosenKind ? P[K] | ChosenBy[K] : P[K];
};

const isChosen = (value: unknown): value is Chosen<object> =>
  typeof value === 'object' && value !== null && !Array.isArray(value) && 'by' in value;

// biome-ignore lint/suspicious/noExplicitAny: each of them checks what it is given
const LIST: readonly Selector<any, any>[] = SELECTORS;

const findSelector = (of: ChosenKind, by: object): (typeof LIST)[number] => {
  const found = LIST.find((each) => each.of === of && each.key in by);
  if (found) return found;
  const keys = LIST.filter((each) => each.of === of).map(({ key }) => `“${key}”`);
  throw new HemError('wrong-parameters', `${of}: they can be told by ${keys.join(' or ')}.`);
};

/** Parameters with numbers for all that was told by what it is. */
export interface Resolved {
  readonly params: unknown;
  /** The same as they are kept: with what was told, and the numbers it gave. */
  readonly kept: Readonly<Record<string, Chosen<object>>>;
  /** “creases of 60° or more”; empty where all was told by numbers. */
  readonly words: string;
}

/** @throws HemError when a selector is wrong, or finds nothing */
export function resolveChosen(document: HemDocument, params: unknown): Resolved {
  if (typeof params !== 'object' || params === null) return { params, kept: {}, words: '' };
  const resolved: Record<string, unknown> = { ...params };
  const kept: Record<string, Chosen<object>> = {};
  const told: string[] = [];
  for (const kind of CHOSEN_KINDS) {
    const chosen = resolved[kind];
    if (!isChosen(chosen)) continue;
    const { params: schema, words, resolve } = findSelector(kind, chosen.by);
    const { value: by, error } = schema.validate(chosen.by, { convert: false });
    if (error) throw new HemError('wrong-parameters', `${kind}: ${error.message}.`);
    const indices = chosen.indices ?? resolve(document, by);
    if (indices.length === 0) throw new HemError('nothing-chosen', `There are no ${words(by)} here.`);
    resolved[kind] = indices;
    kept[kind] = { by, indices };
    told.push(words(by));
  }
  return { params: resolved, kept, words: told.join(', ') };
}
