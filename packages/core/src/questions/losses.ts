import { WRITTEN_ENDINGS, type WrittenEnding } from '../formats/formats.ts';
import { lossesOf } from '../formats/losses.ts';
import { about, flag, otherwise, record } from '../params.ts';
import { question } from './question.ts';

/** What of the model a file of each format that is written would not hold, in words. */
export const losses = question({
  name: 'losses',
  params: record({
    composed: about(
      'whether the file is composed anew, as that of chosen parts is',
      otherwise(flag(), false),
    ),
  }),
  several: true,
  answer({ model, uvSets }, { composed }): Readonly<Record<WrittenEnding, readonly string[]>> {
    const written = composed ? { ...model, altered: true } : model;
    return Object.fromEntries(
      WRITTEN_ENDINGS.map((ending) => [ending, lossesOf(written, ending, uvSets.length)]),
    ) as unknown as Readonly<Record<WrittenEnding, readonly string[]>>;
  },
});
