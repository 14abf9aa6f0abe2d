import { useEffect } from 'react';
import { useBench } from '../store/bench.ts';
import { bench } from '../store/worker.ts';

/** How long a selection must rest before what a cut along it would bring is worked out, milliseconds. */
const REST = 180;
/** Larger models take too long for a glance. */
const MOST_FACES = 100_000;

/** Shows as a ghost on the Board what a cut along the selected edges would bring. */
export function useGhost(loaded: boolean): void {
  useEffect(() => {
    if (!loaded) return;
    let timer: ReturnType<typeof setTimeout> | undefined;
    let newest = 0;
    const stop = useBench.subscribe((state, before) => {
      if (state.edges === before.edges && state.flat === before.flat) return;
      clearTimeout(timer);
      const mine = ++newest;
      if (state.ghost) useBench.setState({ ghost: undefined });
      const { edges, flat } = state;
      if (edges.size === 0 || !flat || flat.faceShell.length > MOST_FACES) {
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
