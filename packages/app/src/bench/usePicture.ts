import { useEffect } from 'react';
import { useBench } from '../store/bench.ts';
import { isAtRest } from '../store/rest.ts';
import { bench } from '../store/worker.ts';
import { handle } from './panes/rendererHandle.ts';

/** How long the Bench must rest before a picture is taken for the Rack, milliseconds. */
const REST = 1200;

/** Keeps the picture on the Rack that of the model as it is drawn here, checker, seams and all. */
export function usePicture(loaded: boolean): void {
  useEffect(() => {
    if (!loaded) return;
    let timer: ReturnType<typeof setTimeout> | undefined;
    let taken: readonly unknown[] = [];
    const stop = useBench.subscribe((state, before) => {
      if (
        state.flat === before.flat &&
        state.occlusion === before.occlusion &&
        isAtRest(state) === isAtRest(before)
      )
        return;
      clearTimeout(timer);
      if (!isAtRest(state) || !state.occlusion || !state.flat) return;
      const about = [state.projectId, state.flat, state.occlusion, state.hidden];
      if (about.every((value, i) => value === taken[i])) return;
      timer = setTimeout(async () => {
        taken = about;
        const { projectId } = useBench.getState();
        const picture = await handle.renderer?.picture();
        // A picture that cannot be kept is no reason to say anything.
        if (picture && projectId && projectId === useBench.getState().projectId)
          await bench.keepPicture(projectId, picture).catch(() => undefined);
      }, REST);
    });
    return () => {
      clearTimeout(timer);
      stop();
    };
  }, [loaded]);
}
