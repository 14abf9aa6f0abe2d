import { basename } from 'node:path';
import { freePatches } from '@blunt-hem/core/document/facePatches';
import type { ParamsOf } from '@blunt-hem/core/operations/catalogue';
import { type SessionOptions, sessionOverUvs } from '../asking.ts';
import { carried } from '../carried.ts';
import { readFaces } from '../faceFile.ts';
import { fileText } from '../files.ts';
import type { TextureSize } from '../options.ts';
import { setTexture } from '../setTexture.ts';
import { threadJobs } from '../threads/threadJobs.ts';
import { readWeights } from '../weightsFile.ts';

export interface PackCommandOptions
  extends Pick<
    ParamsOf<'pack'>,
    'turning' | 'density' | 'spread' | 'near' | 'start' | 'region' | 'steps' | 'seconds' | 'seed'
  > {
  readonly out: string;
  readonly size?: TextureSize;
  readonly padding?: number;
  readonly tiles?: number;
  readonly lock?: string;
  readonly weights?: string;
  readonly set?: string;
  readonly jobs?: number;
}

/** Steps that no run comes to within the seconds it is given. */
const ENDLESS = 1_000_000;

/** Packs the UVs a file has, writes the model, and tells how full each tile is. */
export async function run(
  input: string,
  {
    out,
    size,
    padding,
    tiles,
    lock,
    weights,
    set,
    jobs: width,
    steps,
    seconds,
    spread,
    ...rest
  }: PackCommandOptions,
): Promise<object> {
  let made = 0;
  const emit: SessionOptions['emit'] = (event) => {
    if (event.kind === 'running' && event.rounds) made = event.rounds;
  };
  const jobs = threadJobs(width);
  try {
    const session = await sessionOverUvs(input, set, { emit, jobs });
    await setTexture(session, { size, padding, tiles });
    if (lock !== undefined)
      await session.perform('lock-shells', {
        shells: readFaces(await fileText(lock), basename(lock)),
        locked: true,
      });
    if (weights !== undefined)
      for (const { name, faces, times } of readWeights(
        await fileText(weights),
        basename(weights),
        session.document,
      )) {
        const [patch] = freePatches(session.document, 1);
        await session.perform('paint-patch', { faces, patch: 'new', name });
        await session.perform('weigh-patch', { patch, times });
      }
    const told = await carried(session, input, out, 'pack', {
      ...rest,
      seconds,
      steps: steps ?? (seconds === undefined ? undefined : ENDLESS),
      spread: spread ?? (tiles === undefined ? 'stay' : 'even'),
    });
    return { ...told, steps: made };
  } finally {
    await jobs.end();
  }
}
