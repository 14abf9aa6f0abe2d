import { useHotkeys } from 'react-hotkeys-hook';
import { useBench } from '../store/bench.ts';
import { handle } from './panes/rendererHandle.ts';
import { isTaken } from './useBenchKeys.ts';

/** While its key is held both panes show the flat as it was before the last act, with its stretch. */
export const BEFORE_KEY = 'u';

export function useBefore(): void {
  const options = { enableOnFormTags: true, ignoreEventWhen: isTaken } as const;
  useHotkeys(
    BEFORE_KEY,
    ({ repeat }) => {
      const { before, flat, running } = useBench.getState();
      if (repeat || running || !before || before.uv.length !== flat?.uv.length) return;
      const triangles = Uint32Array.from({ length: before.uv.length / 6 }, (_, t) => t);
      handle.renderer?.drawn.show('before', { triangles, uv: before.uv });
      if (before.figures) handle.renderer?.showStretch({ triangles, ...before.figures });
    },
    options,
  );
  useHotkeys(
    BEFORE_KEY,
    () => {
      handle.renderer?.drawn.clear('before');
      handle.renderer?.showStretch(undefined);
    },
    { ...options, keyup: true, keydown: false },
  );
}
