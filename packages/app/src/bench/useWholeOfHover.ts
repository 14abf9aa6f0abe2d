import { useEffect } from 'react';
import { useBench } from '../store/bench.ts';
import { ask } from '../store/worker.ts';

/** How long the pointer must rest on an edge, milliseconds. */
const REST = 150;
/** Rings on more faces than this take longer than a glance; a double click finds them all the same. */
const MOST_FACES = 40_000;

/** Shows what a double click on the edge that is pointed at would take, before it is done. */
export function useWholeOfHover(loaded: boolean): void {
  useEffect(() => {
    if (!loaded) return;
    let timer: ReturnType<typeof setTimeout> | undefined;
    const stop = useBench.subscribe(({ hover, target, flat }, before) => {
      if (hover === before.hover || (hover && hover.edge === before.hover?.edge)) return;
      clearTimeout(timer);
      if (!hover || target !== 'edges' || !flat) return;
      timer = setTimeout(async () => {
        const rings = flat.faceShell.length <= MOST_FACES;
        const found = await ask('edge-loop', { edge: hover.edge, rings }).catch(() => undefined);
        const { hover: now, flat: still } = useBench.getState();
        // A change of seams meanwhile may have made it another loop.
        if (!found || found.edges.length < 2 || now?.edge !== hover.edge || still !== flat) return;
        useBench.setState({ hover: { ...now, whole: found.edges } });
      }, REST);
    });
    return () => {
      clearTimeout(timer);
      stop();
    };
  }, [loaded]);
}
