import { type Comparison, compareStretch } from '@blunt-hem/core/measure/compareStretch';
import { useEffect, useMemo, useState } from 'react';
import { fail } from '../store/acts.ts';
import { useBench } from '../store/bench.ts';
import { bench, unwrap } from '../store/worker.ts';
import { type ModelBuffers, NO_UV, type TrialPicture } from '../worker/protocol.ts';

/** Pictures of two trials, and how they compare; undefined while they are on their way. */
export interface Pair {
  readonly pictures: readonly [TrialPicture, TrialPicture];
  readonly comparison: Comparison;
  /** Surface of every triangle. */
  readonly area: Float32Array;
  /** 1 for triangles that lie flat in both. */
  readonly both: Uint8Array;
}

export function useTrials(model: ModelBuffers, [a, b]: readonly number[]): Pair | undefined {
  const one = usePictureOf(a);
  const other = usePictureOf(b);
  return useMemo(() => {
    if (!one || !other || one.uv.length !== other.uv.length) return undefined;
    const area = areasOf(model.positions);
    const both = new Uint8Array(area.length);
    for (let t = 0; t < both.length; t++)
      both[t] = one.uv[6 * t] !== NO_UV && other.uv[6 * t] !== NO_UV ? 1 : 0;
    return { pictures: [one, other], comparison: compareStretch(area, both, [one, other]), area, both };
  }, [model, one, other]);
}

function usePictureOf(id: number): TrialPicture | undefined {
  const flat = useBench((s) => s.flat);
  const [known, setKnown] = useState<{ readonly id: number; readonly picture: TrialPicture }>();
  // Other seams make other shells of it.
  // biome-ignore lint/correctness/useExhaustiveDependencies: asked anew when what lies flat changes
  useEffect(() => {
    let current = true;
    void (async () => {
      try {
        const picture = unwrap(await bench.trialPicture(id));
        if (current) setKnown({ id, picture });
      } catch (error) {
        if (current) fail(error);
      }
    })();
    return () => {
      current = false;
    };
  }, [id, flat]);
  return known?.id === id ? known.picture : undefined;
}

/** @param positions  `9 × triangleCount` */
function areasOf(p: Float32Array): Float32Array {
  const area = new Float32Array(p.length / 9);
  for (let t = 0, i = 0; t < area.length; t++, i += 9) {
    const [ux, uy, uz] = [p[i + 3] - p[i], p[i + 4] - p[i + 1], p[i + 5] - p[i + 2]];
    const [vx, vy, vz] = [p[i + 6] - p[i], p[i + 7] - p[i + 1], p[i + 8] - p[i + 2]];
    area[t] = 0.5 * Math.hypot(uy * vz - uz * vy, uz * vx - ux * vz, ux * vy - uy * vx);
  }
  return area;
}
