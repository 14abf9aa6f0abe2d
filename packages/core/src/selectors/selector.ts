import type { HemDocument } from '../document/document.ts';
import type { Jobs } from '../jobs/index.ts';
import type { Param } from '../params.ts';
import type { Context } from '../progress.ts';

/** What operations are told by numbers, and can be told by what it is. */
export const CHOSEN_KINDS = ['edges', 'faces', 'shells'] as const;
export type ChosenKind = (typeof CHOSEN_KINDS)[number];

/** A way to say which edges, faces or shells are meant that holds on another model too. */
export interface Selector<By extends object, In = By> {
  readonly of: ChosenKind;
  /** The field that only it has, by which it is told from the others of its kind. */
  readonly key: keyof By & string;
  readonly params: Param<By, In>;
  /** “creases of 60° or more”. */
  words(by: By): string;
  /** Numbers of edges or faces; of shells one of their faces each. */
  resolve(
    document: HemDocument,
    by: By,
    context: Context & { readonly jobs: Jobs },
  ): readonly number[] | Promise<readonly number[]>;
}

/** Lets the type of a selector follow from its schema. */
export const selector = <By extends object, In>(spec: Selector<By, In>): Selector<By, In> => spec;
