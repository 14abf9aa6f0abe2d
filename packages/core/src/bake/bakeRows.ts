import type { BakeMap, Sampler } from './maps.ts';
import type { Projection } from './projection.ts';
import { middleOfTexel, NO_TRIANGLE, type TexelRows, trianglesAtTexels, weightsAt } from './texels.ts';
import type { Weights } from './vectors.ts';

/** Some rows of a map. */
export interface BakedRows {
  /** `channels × width × rows`, 0 to 65535. */
  readonly values: Uint16Array;
  /** 1 for texels of which a shell covers some. */
  readonly covered: Uint8Array;
  /** Places at which the other model was not met. */
  readonly missed: number;
}

/** Largest value of a map. */
export const MOST = 65_535;
/** Samples between two looks at whether to stop. */
const STRETCH = 256;

/**
 * Values of a map in some rows of a texture: the mean of what it is at places spread evenly over each texel.
 *
 * @param uv  `6 × triangleCount`
 * @param samples  along a side of a texel; of labels there is one
 * @param project  where the map is made from another model: the place of it that lies over a place of this one
 * @param heed  called now and then; may throw to stop
 */
export function bakeRows(
  uv: ArrayLike<number>,
  rows: TexelRows,
  map: Pick<BakeMap, 'channels' | 'isLabel'>,
  sampler: Sampler,
  samples: number,
  project: Projection | undefined,
  heed: () => void,
): BakedRows {
  const { width, from, to } = rows;
  const { channels } = map;
  const fine = map.isLabel ? 1 : samples;
  const places: TexelRows = {
    ...rows,
    width: fine * width,
    height: fine * rows.height,
    from: fine * from,
    to: fine * to,
  };
  const triangles = trianglesAtTexels(uv, places);
  const sums = new Float64Array(channels * width * (to - from));
  const counts = new Uint16Array(width * (to - from));
  let missed = 0;
  let since = 0;
  triangles.forEach((t, i) => {
    if (t === NO_TRIANGLE) return;
    if (++since % STRETCH === 0) heed();
    const [x, y] = [i % places.width, Math.floor(i / places.width)];
    const weights = weightsAt(uv, t, ...middleOfTexel(places, x, y + places.from));
    const place: readonly [number, Weights] | undefined = project ? project(t, weights) : [t, weights];
    if (!place) {
      missed++;
      return;
    }
    const texel = Math.floor(y / fine) * width + Math.floor(x / fine);
    const value = sampler(...place, turnAt(x, y + places.from));
    for (let k = 0; k < channels; k++) sums[channels * texel + k] += value[k];
    counts[texel]++;
  });
  const values = new Uint16Array(sums.length);
  for (let i = 0; i < sums.length; i++) {
    const count = counts[Math.floor(i / channels)];
    if (count > 0) values[i] = Math.round((MOST * Math.max(0, Math.min(count, sums[i]))) / count);
  }
  return { values, covered: Uint8Array.from(counts, (count) => (count > 0 ? 1 : 0)), missed };
}

/** An angle that differs from texel to texel, the same each time (interleaved gradient noise; Jimenez 2014). */
const turnAt = (x: number, y: number): number =>
  2 * Math.PI * ((52.9829189 * ((0.06711056 * x + 0.00583715 * y) % 1)) % 1);
