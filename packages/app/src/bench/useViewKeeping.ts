import { useEffect } from 'react';
import { KEPT_LOOKS } from '../storage/looks.ts';
import { useBench } from '../store/bench.ts';
import type { ViewSlice } from '../store/view.ts';
import { bench } from '../store/worker.ts';
import type { PaneViews } from './panes/renderer.ts';
import { handle } from './panes/rendererHandle.ts';
import { onViewChange } from './panes/viewChange.ts';

/** How long the view must rest before it is kept, milliseconds. */
const REST = 400;

/** How a project was looked at: cameras, stage and looks. */
export type KeptView = Pick<ViewSlice, (typeof KEPT_LOOKS)[number]> & { readonly cameras: PaneViews };

/** Brings the cameras of a project back, and keeps its view from then on. */
export function useViewKeeping(kept: KeptView | undefined): void {
  // biome-ignore lint/correctness/useExhaustiveDependencies: once, when the panes are there
  useEffect(() => {
    const { renderer } = handle;
    if (!renderer) return;
    if (kept) renderer.setViews(kept.cameras);
    else renderer.board.frame();
    let timer: ReturnType<typeof setTimeout> | undefined;
    const { dataset } = document.documentElement;
    const keep = () => {
      clearTimeout(timer);
      dataset.view = 'moved';
      timer = setTimeout(() => {
        const state = useBench.getState();
        if (!state.projectId) return;
        const looks = Object.fromEntries(KEPT_LOOKS.map((key) => [key, state[key]]));
        void bench.keepView(state.projectId, { ...looks, cameras: renderer.views() }).then((kept) => {
          if ('ok' in kept) dataset.view = 'kept';
        });
      }, REST);
    };
    const stopViews = onViewChange(keep);
    const stopLooks = useBench.subscribe((state, before) => {
      if (KEPT_LOOKS.some((key) => state[key] !== before[key])) keep();
    });
    return () => {
      clearTimeout(timer);
      stopViews();
      stopLooks();
    };
  }, []);
}
