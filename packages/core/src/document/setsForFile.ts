import { toFile } from '../surface/tiles.ts';
import { current, type HemDocument } from './document.ts';

/** UV sets as files have them, in their order, and which of them is worked on. */
export function setsForFile(document: HemDocument): {
  readonly sets: readonly Float64Array[];
  readonly at: number;
} {
  const { uvSets, tiles } = document;
  return {
    sets: uvSets.map(({ uv, away }) => toFile(uv, away?.tiles ?? tiles)),
    at: uvSets.indexOf(current(document)),
  };
}
