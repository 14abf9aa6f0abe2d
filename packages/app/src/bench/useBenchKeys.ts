import { useHotkeys } from 'react-hotkeys-hook';
import { useNavigate } from 'react-router';
import { useBench } from '../store/bench.ts';
import { COMMANDS } from './commands/index.ts';
import { STAGE_VIEWS } from './stages/index.ts';
import { TOOLS } from './tools/index.ts';

/** What each key of the Bench does: stages by number, tools and commands by theirs. */
const ACTS: Readonly<Record<string, () => void>> = {
  ...Object.fromEntries(
    STAGE_VIEWS.map(({ name }, i) => [String(i + 1), () => useBench.setState({ stage: name })]),
  ),
  ...Object.fromEntries(TOOLS.map(({ name, key }) => [key, () => useBench.setState({ tool: name })])),
  ...Object.fromEntries(
    COMMANDS.flatMap(({ key, act }) => (key ? [[key, () => act(useBench.getState())]] : [])),
  ),
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
