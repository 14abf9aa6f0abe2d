import { useEffect } from 'react';
import { type BenchStore, useBench } from '../store/benchStore.ts';
import { database } from '../store/database.ts';
import type { BoardView, ModelView } from './panes/paneRenderer.ts';
import { handle } from './panes/rendererHandle.ts';

/** How long the view must rest before it is kept, milliseconds. */
const REST = 400;

type KeptView = Pick<
  BenchStore,
  'stage' | 'target' | 'overlay' | 'checker' | 'repeats' | 'split' | 'visibleOnly' | 'parallel'
> & {
  readonly cameras: { readonly model: ModelView; readonly board: BoardView };
};

/** Keeps cameras, stage and looks of a project, and brings them back when it is opened again. */
export function ViewKeeper() {
  const projectId = useBench((s) => s.projectId) as string;

  useEffect(() => {
    const { renderer } = handle;
    if (!renderer) return;
    let timer: ReturnType<typeof setTimeout> | undefined;
    let ready = false;
    const keep = () => {
      clearTimeout(timer);
      if (!ready) return;
      timer = setTimeout(() => {
        const { stage, target, overlay, checker, repeats, split, visibleOnly, parallel } =
          useBench.getState();
        const view: KeptView = {
          stage,
          target,
          overlay,
          checker,
          repeats,
          split,
          visibleOnly,
          parallel,
          cameras: renderer.view(),
        };
        void database.views.put({ projectId, view }).catch(() => undefined);
      }, REST);
    };
    void database.views.get(projectId).then((row) => {
      if (row) {
        const { cameras, ...looks } = row.view as KeptView;
        useBench.setState(looks);
        renderer.setView(cameras);
      } else renderer.frameBoard();
      ready = true;
    });
    renderer.onViewChange(keep);
    const unsubscribe = useBench.subscribe(keep);
    return () => {
      clearTimeout(timer);
      unsubscribe();
      renderer.onViewChange(() => undefined);
    };
  }, [projectId]);
  return null;
}
