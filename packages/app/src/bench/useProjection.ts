import { useEffect } from 'react';
import { fail } from '../store/acts.ts';
import { useBench } from '../store/bench.ts';
import { ask } from '../store/worker.ts';
import { handle } from './panes/rendererHandle.ts';
import { projectionAsked } from './tools/project/taking.ts';

/** Shows on both panes how faces would lie by the projection in hand. */
export function useProjection(loaded: boolean): void {
  const inHand = useBench((s) => s.tool === 'project');
  const kind = useBench((s) => s.projectionKind);
  const each = useBench((s) => s.projectionEach);
  const caps = useBench((s) => s.projectionCaps);
  const sweep = useBench((s) => s.projectionSweep);
  const size = useBench((s) => s.projectionSize);
  const frame = useBench((s) => s.projectionFrame);
  const faces = useBench((s) => s.faces);
  const chosen = useBench((s) => s.chosen);
  const flat = useBench((s) => s.flat);
  // biome-ignore lint/correctness/useExhaustiveDependencies: what is asked is read from the store
  useEffect(() => {
    if (!loaded || !inHand) return;
    let current = true;
    const asked = projectionAsked(useBench.getState());
    if (asked)
      void ask('projection', asked)
        .then((projectionPreview) => {
          if (!current || !projectionPreview) return;
          useBench.setState({ projectionPreview });
          handle.renderer?.drawn.show('drag', projectionPreview);
        })
        .catch((error) => current && fail(error));
    return () => {
      current = false;
    };
  }, [loaded, inHand, kind, each, caps, sweep, size, frame, faces, chosen, flat]);
  useEffect(() => {
    if (!inHand) return;
    return () => handle.renderer?.drawn.clear('drag');
  }, [inHand]);
}
