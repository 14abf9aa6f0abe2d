import { useHotkeys } from 'react-hotkeys-hook';
import { cut, relax, selectNothing, sew, stop, travel, unfold } from '../store/actions.ts';
import { type Overlay, STAGES, useBench } from '../store/benchStore.ts';
import { frameSelection } from './panes/framing.ts';

export const OVERLAYS: readonly Overlay[] = ['none', 'area', 'angle'];

/** The keys of the Bench; Help lists them. */
export function useBenchKeys(): void {
  const on = (keys: string, act: () => void) => {
    // biome-ignore lint/correctness/useHookAtTopLevel: called the same number of times on every render
    useHotkeys(keys, act, { preventDefault: true });
  };
  STAGES.forEach((stage, i) => {
    on(String(i + 1), () => useBench.setState({ stage }));
  });
  on('q', () => useBench.setState({ tool: 'pick' }));
  on('z', () => useBench.setState({ tool: 'box' }));
  on('a', () => void cut());
  on('shift+a', () => void sew());
  on('s', () => void unfold());
  on('d', () => void relax());
  on('f', frameSelection);
  on('v', () => useBench.setState((s) => ({ checker: !s.checker })));
  on('b', () =>
    useBench.setState((s) => ({ overlay: OVERLAYS[(OVERLAYS.indexOf(s.overlay) + 1) % OVERLAYS.length] })),
  );
  on('tab', () => useBench.setState((s) => ({ target: s.target === 'edges' ? 'shells' : 'edges' })));
  on('escape', () => (useBench.getState().busy ? void stop() : selectNothing()));
  on('mod+z', () => void travel('undo'));
  on('mod+shift+z', () => void travel('redo'));
}
