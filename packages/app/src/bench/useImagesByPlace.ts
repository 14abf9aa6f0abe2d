import type { FoundSymmetry } from '@blunt-hem/core/jobs/symmetry';
import type { AnswerOf } from '@blunt-hem/core/questions/index';
import { useEffect } from 'react';
import { afterPick, note } from '../store/acts.ts';
import { type BenchStore, useBench } from '../store/bench.ts';
import { selectImages } from '../store/select.ts';
import { ask } from '../store/worker.ts';

/** What edges and faces become where the sides are triangulated differently; undefined where it could not be found. */
export const imagesByPlace = (
  { symmetry: { kind, direction, through, fold } }: FoundSymmetry,
  { edges = [], faces = [] }: { readonly edges?: readonly number[]; readonly faces?: readonly number[] },
): Promise<AnswerOf<'images-by-place'> | undefined> =>
  ask('images-by-place', {
    symmetry: { kind, direction: [...direction], through: [...through], fold },
    edges: [...edges],
    faces: [...faces],
  }).catch(() => undefined);

/** Lets what is picked take along what lies on the other side, where that is meshed differently. */
export function useImagesByPlace(loaded: boolean): void {
  useEffect(() => {
    if (!loaded) return;
    return useBench.subscribe(({ imaging }, before) => {
      if (imaging && imaging !== before.imaging && imaging.items.length > 0) afterPick(takeAlong(imaging));
    });
  }, [loaded]);
}

async function takeAlong(imaging: NonNullable<BenchStore['imaging']>): Promise<void> {
  const { symmetry } = useBench.getState();
  const { target, items, how } = imaging;
  const found = symmetry && (await imagesByPlace(symmetry, { [target]: items }));
  // Something else was picked meanwhile, or symmetry was put off.
  if (!found || useBench.getState().symmetry !== symmetry || useBench.getState().imaging !== imaging) return;
  selectImages(target, found[target], how);
  if (found[target].length > 0)
    note(
      `The other side is meshed differently: it is taken by place, at most ${found.off.toFixed(1)} edges off.`,
    );
}
