import type { Stage } from '@blunt-hem/core/operations/operation';
import { useEffect } from 'react';
import { type BenchStore, useBench } from '../store/bench.ts';
import { imagesOf } from '../store/select.ts';
import { bench } from '../store/worker.ts';

/** How long a selection must rest before what a cut along it would bring is worked out, milliseconds. */
const REST = 180;
/** Larger models take too long for a glance. */
const MOST_FACES = 100_000;

/** Stages in which nothing is cut: what is selected there is looked at, or moved. */
const WITHOUT: ReadonlySet<Stage> = new Set<Stage>(['inspect', 'arrange', 'deliver']);

/** What would be cut: what is selected, else the route that is drawn, else what a double click would take. */
const candidate = ({ edges, route, hover, target, stage }: BenchStore) => {
  if (WITHOUT.has(stage)) return undefined;
  return edges.size > 0 ? edges : (route ?? (target === 'edges' ? hover?.whole : undefined));
};

function edgesOf(taken: ReturnType<typeof candidate>, symmetry: BenchStore['symmetry']): readonly number[] {
  if (!taken) return [];
  if ('size' in taken) return [...taken];
  const edges = 'points' in taken ? [...taken.edges, ...taken.ahead] : taken;
  return symmetry ? imagesOf(symmetry, 'edges', edges) : edges;
}

/** Shows as a ghost on the Board what a cut would bring along the edges that are selected, drawn or pointed at. */
export function useGhost(loaded: boolean): void {
  useEffect(() => {
    if (!loaded) return;
    let timer: ReturnType<typeof setTimeout> | undefined;
    let newest = 0;
    const stop = useBench.subscribe((state, before) => {
      // By what they are, not by what is in them: the pointer moves often, and a selection may be large.
      const taken = candidate(state);
      const { flat, symmetry } = state;
      if (taken === candidate(before) && flat === before.flat && symmetry === before.symmetry) return;
      clearTimeout(timer);
      const mine = ++newest;
      if (state.ghost) useBench.setState({ ghost: undefined });
      if (!taken || !flat || flat.faceShell.length > MOST_FACES) {
        void bench.clearPreview('hover');
        return;
      }
      timer = setTimeout(async () => {
        const edges = edgesOf(taken, symmetry);
        const ghost =
          edges.length === 0 ? undefined : await bench.preview('hover', 'cut', { edges: [...edges] });
        if (mine === newest) useBench.setState({ ghost });
      }, REST);
    });
    return () => {
      clearTimeout(timer);
      newest++;
      stop();
    };
  }, [loaded]);
}
