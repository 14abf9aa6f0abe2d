import { useEffect } from 'react';
import { type BenchStore, useBench } from '../store/bench.ts';
import { imagesOf } from '../store/select.ts';
import { bench } from '../store/worker.ts';

/** How long a selection must rest before what a cut along it would bring is worked out, milliseconds. */
const REST = 180;
/** Larger models take too long for a glance. */
const MOST_FACES = 100_000;

/** What would be cut: what is selected, else the route that is drawn, else what a double click would take. */
function candidate({ edges, route, hover, target, symmetry }: BenchStore): readonly number[] {
  if (edges.size > 0) return [...edges];
  if (route) return [...route.edges, ...route.ahead];
  if (!hover?.whole || target !== 'edges') return [];
  const taken = hover.whole;
  return symmetry ? imagesOf(symmetry, 'edges', taken) : taken;
}

const same = (a: readonly number[], b: readonly number[]): boolean =>
  a.length === b.length && a.every((e, i) => e === b[i]);

/** Shows as a ghost on the Board what a cut would bring along the edges that are selected, drawn or pointed at. */
export function useGhost(loaded: boolean): void {
  useEffect(() => {
    if (!loaded) return;
    let timer: ReturnType<typeof setTimeout> | undefined;
    let newest = 0;
    const stop = useBench.subscribe((state, before) => {
      const edges = candidate(state);
      if (same(edges, candidate(before)) && state.flat === before.flat) return;
      clearTimeout(timer);
      const mine = ++newest;
      if (state.ghost) useBench.setState({ ghost: undefined });
      const { flat } = state;
      if (edges.length === 0 || !flat || flat.faceShell.length > MOST_FACES) {
        void bench.clearPreview('hover');
        return;
      }
      timer = setTimeout(async () => {
        const ghost = await bench.preview('hover', 'cut', { edges: [...edges] });
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
