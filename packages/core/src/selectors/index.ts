import type { HemDocument } from '../document/document.ts';
import { HemError } from '../errors.ts';
import type { Jobs } from '../jobs/index.ts';
import type { Given } from '../params.ts';
import type { Context } from '../progress.ts';
import { edgesByRule } from './edgesByRule.ts';
import { edgesInMiddle } from './edgesInMiddle.ts';
import { edgesProposed } from './edgesProposed.ts';
import { edgesRound, facesOf, shellsOfNamed } from './named.ts';
import { CHOSEN_KINDS, type ChosenKind, type Selector } from './selector.ts';
import { shellsWhere, shellWorst } from './shellsByFigure.ts';

/** Every selector. */
export const SELECTORS = [
  edgesByRule,
  edgesRound,
  edgesProposed,
  edgesInMiddle,
  facesOf,
  shellsOfNamed,
  shellsWhere,
  shellWorst,
] as const;

type ByOf<S> = S extends { readonly params: infer P } ? Given<P> : never;
type EdgesBy =
  | ByOf<typeof edgesByRule>
  | ByOf<typeof edgesRound>
  | ByOf<typeof edgesProposed>
  | ByOf<typeof edgesInMiddle>;
type FacesBy = ByOf<typeof facesOf>;
type ShellsBy = ByOf<typeof shellsOfNamed> | ByOf<typeof shellsWhere> | ByOf<typeof shellWorst>;

/**
 * What is meant by what it is, in place of a list of numbers. Where the numbers that it gave are told as well, they hold: a history is
 * done again as it was, and on another model without them.
 */
export interface Chosen<By = object> {
  readonly by: By;
  readonly indices?: readonly number[];
}
/** What edges, faces and shells may be told by. */
export interface SelectorsOf {
  readonly edges: EdgesBy;
  readonly faces: FacesBy;
  readonly shells: ShellsBy;
}
type ChosenBy = { readonly [K in ChosenKind]: Chosen<SelectorsOf[K]> };

/** Parameters of which edges, faces and shells may be told by what they are. */
export type Selectable<P> = {
  readonly [K in keyof P]: K extends ChosenKind ? P[K] | ChosenBy[K] : P[K];
};

const isChosen = (value: unknown): value is Chosen =>
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
  readonly kept: Readonly<Record<string, Chosen>>;
  /** “creases of 60° or more”; empty where all was told by numbers. */
  readonly words: string;
}

/**
 * What one selector means: what it gave already, where that is told, or what is found now.
 *
 * @throws HemError when the selector is wrong
 */
export async function resolveOne(
  document: HemDocument,
  of: ChosenKind,
  chosen: Chosen,
  context: Context & { readonly jobs: Jobs },
): Promise<{ readonly by: object; readonly indices: readonly number[]; readonly words: string }> {
  const { params: schema, words, resolve } = findSelector(of, chosen.by);
  const { value: by, error } = schema.validate(chosen.by, { convert: false });
  if (error) throw new HemError('wrong-parameters', `${of}: ${error.message}.`);
  return { by, indices: chosen.indices ?? (await resolve(document, by, context)), words: words(by) };
}

/** @throws HemError when a selector is wrong, or finds nothing */
export async function resolveChosen(
  document: HemDocument,
  params: unknown,
  context: Context & { readonly jobs: Jobs },
): Promise<Resolved> {
  if (typeof params !== 'object' || params === null) return { params, kept: {}, words: '' };
  const resolved: Record<string, unknown> = { ...params };
  const kept: Record<string, Chosen> = {};
  const told: string[] = [];
  for (const kind of CHOSEN_KINDS) {
    const chosen = resolved[kind];
    if (!isChosen(chosen)) continue;
    const { by, indices, words } = await resolveOne(document, kind, chosen, context);
    if (indices.length === 0) throw new HemError('nothing-chosen', `There are no ${words} here.`);
    resolved[kind] = indices;
    kept[kind] = { by, indices };
    told.push(words);
  }
  return { params: resolved, kept, words: told.join(', ') };
}
