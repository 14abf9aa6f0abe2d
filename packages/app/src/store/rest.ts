import type { BenchStore } from './bench.ts';

/** Whether the Bench rests: every act that was asked for is answered and kept, nothing runs, and every figure is that of what is drawn. */
export const isAtRest = ({
  asked,
  answered,
  running,
  saved,
  unsaved,
  measured,
  model,
}: BenchStore): boolean =>
  model !== undefined && asked === answered && !running && (saved || unsaved) && measured;

/** Tells the page itself, so that whoever waits for the Bench need not guess. */
export function tellRest(state: BenchStore): void {
  tell('rest', isAtRest(state));
  tell('occlusion', state.occlusion !== undefined);
}

/** What is written anew has the whole page styled anew, though it says the same. */
function tell(name: 'rest' | 'occlusion', value: boolean): void {
  const { dataset } = document.documentElement;
  if (dataset[name] !== String(value)) dataset[name] = String(value);
}
