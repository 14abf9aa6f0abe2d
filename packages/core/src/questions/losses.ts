import { WRITTEN_ENDINGS, type WrittenEnding } from '../formats/formats.ts';
import { lossesOf } from '../formats/losses.ts';
import { record } from '../params.ts';
import { question } from './question.ts';

/** What of the model a file of each format that is written would not hold, in words. */
export const losses = question({
  name: 'losses',
  params: record({}),
  several: true,
  answer({ model, uvSets }): Readonly<Record<WrittenEnding, readonly string[]>> {
    return Object.fromEntries(
      WRITTEN_ENDINGS.map((ending) => [ending, lossesOf(model, ending, uvSets.length)]),
    ) as unknown as Readonly<Record<WrittenEnding, readonly string[]>>;
  },
});
