import type { BenchStore } from './bench.ts';

/** What the Bench still waits for: that a model is open, acts that were asked for are answered and kept, nothing runs, and every figure is that of what is drawn. */
export function waitsFor({
  asked,
  answered,
  running,
  saved,
  unsaved,
  measured,
  model,
}: BenchStore): readonly string[] {
  const waits = {
    model: model === undefined,
    answer: asked !== answered,
    run: running !== undefined,
    save: !saved && !unsaved,
    figures: !measured,
  };
  return Object.entries(waits).flatMap(([what, isMissing]) => (isMissing ? [what] : []));
}

export const isAtRest = (state: BenchStore): boolean => waitsFor(state).length === 0;

/** Tells the page itself, so that whoever waits for the Bench need not guess, and sees for what it waits. */
export function tellRest(state: BenchStore): void {
  const waits = waitsFor(state);
  tell('rest', String(waits.length === 0));
  tell('waits', waits.join(' '));
  tell('occlusion', String(state.occlusion !== undefined));
}

/** What is written anew has the whole page styled anew, though it says the same. */
function tell(name: 'rest' | 'waits' | 'occlusion', value: string): void {
  const { dataset } = document.documentElement;
  if (dataset[name] !== value) dataset[name] = value;
}
