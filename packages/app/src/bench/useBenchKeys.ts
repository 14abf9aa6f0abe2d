import { useHotkeys } from 'react-hotkeys-hook';
import { useNavigate } from 'react-router';
import {
  cut,
  deleteFaces,
  hideSelected,
  isolate,
  relax,
  selectNothing,
  sew,
  stop,
  travel,
  unfold,
} from '../store/actions.ts';
import { type Overlay, STAGES, useBench } from '../store/benchStore.ts';
import type { Target } from '../worker/protocol.ts';
import { frameSelection } from './panes/framing.ts';

const TARGETS: readonly Target[] = ['edges', 'faces', 'shells'];
const OVERLAYS: readonly Overlay[] = ['none', 'area', 'angle'];

/** What each key of the Bench does; `keys.ts` says it in words. */
const ACTS: Readonly<Record<string, () => void>> = {
  ...Object.fromEntries(STAGES.map((stage, i) => [String(i + 1), () => useBench.setState({ stage })])),
  q: () => useBench.setState({ tool: 'pick' }),
  z: () => useBench.setState({ tool: 'box' }),
  'shift+q': () =>
    useBench.setState((s) => ({ target: TARGETS[(TARGETS.indexOf(s.target) + 1) % TARGETS.length] })),
  a: () => void cut(),
  'shift+a': () => void sew(),
  s: () => void unfold(),
  d: () => void relax(),
  f: frameSelection,
  g: () => void isolate(),
  x: () => void hideSelected(),
  delete: () => void deleteFaces(),
  v: () => useBench.setState((s) => ({ checker: !s.checker })),
  b: () =>
    useBench.setState((s) => ({ overlay: OVERLAYS[(OVERLAYS.indexOf(s.overlay) + 1) % OVERLAYS.length] })),
  escape: () => (useBench.getState().busy ? void stop() : selectNothing()),
  'mod+z': () => void travel('undo'),
  'mod+shift+z': () => void travel('redo'),
};

export function useBenchKeys(): void {
  const navigate = useNavigate();
  useHotkeys(Object.keys(ACTS), (_, { hotkey }) => ACTS[hotkey](), { preventDefault: true });
  useHotkeys('shift+slash', () => navigate('/help'));
  // Between controls Tab goes on as everywhere; from pane to pane where the hands are on the panes.
  useHotkeys('tab', toOtherPane, { preventDefault: onPanes, enabled: onPanes });
}

const panes = (): HTMLElement[] => [...document.querySelectorAll<HTMLElement>('.pane-hands')];

const onPanes = (): boolean =>
  document.activeElement === document.body || panes().includes(document.activeElement as HTMLElement);

function toOtherPane(): void {
  const [model, board] = panes();
  (document.activeElement === model ? board : model)?.focus();
}
