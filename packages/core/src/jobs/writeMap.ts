import { MOST } from '../bake/bakeRows.ts';
import { bleed } from '../bake/bleed.ts';
import { type Picture16, writePng } from '../formats/writePng.ts';
import type { Job } from './job.ts';

export interface MapTask extends Picture16 {
  /** 1 for texels of which a shell covers some. */
  readonly covered: Uint8Array;
  /** How far shells are carried outward, texels. */
  readonly reach: number;
  /** What lies beyond, each 0 to 1. */
  readonly ground: readonly number[];
}

/** A map as PNG, with its shells carried outward and the ground round them. */
export const writeMap: Job<'write-map', MapTask, Uint8Array> = {
  name: 'write-map',
  run({ covered, reach, ground, ...picture }) {
    const { channels, width } = picture;
    const values = picture.values.slice();
    const filled = bleed(values, channels, covered, width, reach);
    filled.forEach((yes, i) => {
      if (!yes) for (let k = 0; k < channels; k++) values[channels * i + k] = Math.round(MOST * ground[k]);
    });
    return writePng({ ...picture, values });
  },
};
