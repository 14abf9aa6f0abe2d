import { useEffect } from 'react';
import { useHotkeys } from 'react-hotkeys-hook';
import { useBench } from '../store/bench.ts';
import { COMMANDS } from './commands/index.ts';
import { STAGE_VIEWS } from './stages/index.ts';
import { TOOLS, takeTool, toolNamed } from './tools/index.ts';

/** What each key of the Bench does: stages by number, tools and commands by theirs. */
const ACTS: Readonly<Record<string, (held: boolean) => void>> = {
  ...Object.fromEntries(
    STAGE_VIEWS.map(({ name }, i) => [String(i + 1), () => useBench.setState({ stage: name })]),
  ),
  ...Object.fromEntries(TOOLS.map(({ name, key }) => [key, () => takeTool(name)])),
  ...Object.fromEntries(
    COMMANDS.flatMap(({ key, act, tap, hold }) => {
      if (!key) return [];
      const once = tap ?? (() => act(useBench.getState()));
      return [[key, (held: boolean) => (held && hold ? hold() : once())]];
    }),
  ),
};

/** Where letters and figures are typed; lists to choose from have fields that nothing is typed into. */
const TYPED =
  ':is(input:not([type]), textarea, [contenteditable="true"], input:is([type=text], [type=number], [type=search])):not([readonly])';
/** Where some keys are of the control that has the focus. */
const CONTROL = 'a, button, input, select, [role=slider], [role=menuitem], [role=option], [role=tab]';
const OWN_KEYS = new Set(['Enter', ' ', 'ArrowLeft', 'ArrowRight', 'ArrowUp', 'ArrowDown', 'Home', 'End']);

/** Whether a key is not for the Bench: text is being typed, or the control that has the focus means it. */
export function isTaken({ target, key }: Pick<KeyboardEvent, 'target' | 'key'>): boolean {
  if (!(target instanceof Element)) return false;
  // A box that is ticked by the space bar has no use for Enter.
  if (key === 'Enter' && target.matches('input:is([type=checkbox], [type=radio])')) return false;
  return target.matches(TYPED) || (OWN_KEYS.has(key) && target.closest(CONTROL) !== null);
}

/** The Bench's keys work wherever the focus is, after a click on any control as well. */
const ANYWHERE = { enableOnFormTags: true, ignoreEventWhen: isTaken } as const;

/** A key that the tool in hand takes for itself. */
const byTool = (key: string): boolean => toolNamed(useBench.getState().tool).keys?.[key]?.() === true;

/** Keys that were pressed before the Bench was there, the first of them: they are done once it is. */
const early: string[] = [];
const MOST_EARLY = 8;

export function useBenchKeys(loaded: boolean): void {
  useEffect(() => {
    if (!loaded) return;
    for (const key of early.splice(0)) ACTS[key](false);
  }, [loaded]);
  useHotkeys(
    Object.keys(ACTS),
    ({ repeat }, { hotkey }) => {
      if (!loaded) {
        if (!repeat && early.length < MOST_EARLY) early.push(hotkey);
      } else if (!byTool(hotkey)) ACTS[hotkey](repeat);
    },
    { ...ANYWHERE, preventDefault: true },
    [loaded],
  );
  useHotkeys(
    'backspace, enter',
    ({ target }, { hotkey }) => {
      // On a pane Enter picks what keys have walked to: the pane asks the tool itself.
      const onPane = target instanceof Element && target.matches('.pane-hands');
      if (hotkey !== 'enter' || !onPane) byTool(hotkey);
    },
    ANYWHERE,
  );
  useHotkeys('shift+slash', () => useBench.setState((s) => ({ helpOpen: !s.helpOpen })), ANYWHERE);
  // Tab goes on as everywhere, but for the way from pane to pane: from the Board it leads on to the details.
  useHotkeys('tab', toNextPane, { preventDefault: beforePane, enabled: beforePane });
}

const panes = (): HTMLElement[] => [...document.querySelectorAll<HTMLElement>('.pane-hands')];

const beforePane = (): boolean => [document.body, panes()[0]].includes(document.activeElement as HTMLElement);

function toNextPane(): void {
  const [model, board] = panes();
  (document.activeElement === model ? board : model)?.focus();
}
