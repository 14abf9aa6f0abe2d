import { basename } from 'node:path';
import { bakeMap } from '@blunt-hem/core/derived/bakeMap';
import { FileError } from '@blunt-hem/core/errors';
import { unattended } from '@blunt-hem/core/progress';
import { type BakeAsked, tileAsked } from '@blunt-hem/core/questions/bake';
import { sessionOver, sessionOverUvs } from '../asking.ts';
import { replaceFile } from '../replaceFile.ts';
import { threadJobs } from '../threads/threadJobs.ts';

export interface BakeOptions extends BakeAsked {
  readonly out: string;
  readonly set?: string;
  /** Another model from which the map is made. */
  readonly from?: string;
  /** How far the two lie apart at most, as a part of the size of the model. */
  readonly distance: number;
  readonly jobs?: number;
}

/** Makes a map for painters from the UVs a file has, or from a denser model onto them. */
export async function run(
  input: string,
  { out, set, from, distance, jobs: width, ...asked }: BakeOptions,
): Promise<object> {
  const jobs = threadJobs(width);
  try {
    const { document } = await sessionOverUvs(input, set, { jobs });
    const other = from === undefined ? undefined : (await sessionOver(from, { keepUvs: false })).document;
    const settings = tileAsked(document, asked);
    if (asked.tile !== undefined && settings.tile.number !== asked.tile)
      throw new FileError(
        basename(input),
        `nothing lies in tile ${asked.tile}.`,
        `There ${document.tiles.length === 1 ? 'is' : 'are'} ${document.tiles.map(({ number }) => number).join(', ')}.`,
      );
    const { bytes, ...told } = await bakeMap(
      document,
      { ...settings, ...(other && { from: { document: other, distance } }) },
      { ...unattended, jobs },
    );
    await replaceFile(out, bytes);
    return { file: basename(input), out: basename(out), tile: settings.tile.number, ...told };
  } finally {
    await jobs.end();
  }
}
