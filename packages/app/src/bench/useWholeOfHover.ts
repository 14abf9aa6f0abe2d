import { useEffect } from 'react';
import { useBench } from '../store/bench.ts';
import { ask } from '../store/worker.ts';
import { toolNamed } from './tools/index.ts';
import { byClick } from './tools/picking.ts';
import { imagesByPlace } from './useImagesByPlace.ts';

/** How long the pointer must rest on an edge, milliseconds. */
const REST = 150;

/** Whether a double click by a tool takes the whole loop or ring: others show what they do themselves. */
const takesWhole = (tool: string): boolean => toolNamed(tool).double === byClick.double;

/** What a loop becomes on the other side, where that is looked for by place: those that are known by number are added where they are drawn. */
async function imagesOfLoop(edges: readonly number[]): Promise<readonly number[]> {
  const { symmetry } = useBench.getState();
  if (!symmetry?.byPlace || edges.length < 2) return [];
  return (await imagesByPlace(symmetry, { edges }))?.edges ?? [];
}

/** Shows what a double click on the edge that is pointed at would take, before it is done. */
export function useWholeOfHover(loaded: boolean): void {
  useEffect(() => {
    if (!loaded) return;
    let timer: ReturnType<typeof setTimeout> | undefined;
    // One at a time: on a large model a ring takes longer than the pointer rests.
    let asking = false;
    const show = async (edge: number): Promise<void> => {
      if (asking) return;
      asking = true;
      const { flat } = useBench.getState();
      const found = await ask('edge-loop', { edge }).catch(() => undefined);
      const whole = found && [...found.edges, ...(await imagesOfLoop(found.edges))];
      asking = false;
      const { hover: now, flat: still, target, tool } = useBench.getState();
      if (!now || target !== 'edges' || !takesWhole(tool)) return;
      // The pointer went on meanwhile, or a change of seams may have made it another loop.
      if (now.edge !== edge || still !== flat) timer = setTimeout(() => void show(now.edge), REST);
      else if (whole && whole.length > 1) useBench.setState({ hover: { ...now, whole } });
    };
    const stop = useBench.subscribe(({ hover, target, flat, tool }, before) => {
      if (hover === before.hover || (hover && hover.edge === before.hover?.edge)) return;
      clearTimeout(timer);
      if (!hover || target !== 'edges' || !flat || !takesWhole(tool)) return;
      timer = setTimeout(() => void show(hover.edge), REST);
    });
    return () => {
      clearTimeout(timer);
      stop();
    };
  }, [loaded]);
}
