import type { Icon } from '@tabler/icons-react';
import type { BenchStore } from '../../store/bench.ts';

/** Something that is done at once, by a button or a key. */
export interface Command {
  readonly name: string;
  /** On the button: what it would do now. */
  label(state: BenchStore): string;
  /** What it does, for Help; where the button alone says it, absent. */
  readonly help?: string;
  /** As the key library names it: `shift+a`. */
  readonly key?: string;
  readonly icon: Icon;
  /** The first thing to do at its stage. */
  readonly main?: true;
  /** One of several that are much alike: a button without words on it, beside the others. */
  readonly small?: true;
  /** Whether a switch that it is, is on. */
  pressed?(state: BenchStore): boolean;
  act(state: BenchStore): void;
  /** What its key does where that is not the same: pressed once, and held. */
  tap?(): void;
  hold?(): void;
}

/** What keys are called on the screen: `shift+a` is ⇧A. */
export const keyText = (key: string): string =>
  key
    .split('+')
    .map((part) => KEY_NAMES[part] ?? part.toUpperCase())
    .join('');

const KEY_NAMES: Readonly<Record<string, string>> = {
  shift: '⇧',
  mod: 'Ctrl ',
  slash: '/',
  escape: 'Escape',
  delete: 'Delete',
  tab: 'Tab',
};
