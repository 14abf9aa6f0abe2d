import { keyText } from './commands/command.ts';
import { COMMANDS } from './commands/index.ts';
import { STAGE_VIEWS } from './stages/index.ts';
import { TOOLS } from './tools/index.ts';

/** Keys and what they do, as Help tells them: what the lists say, and what hands do on the panes. */
export const keyTable = (): readonly (readonly [keys: string, act: string])[] => [
  [`1 … ${STAGE_VIEWS.length}`, 'Open a stage'],
  ...TOOLS.map(({ key, help }) => [keyText(key), help] as const),
  ...COMMANDS.flatMap(({ key, help }) => (key && help ? [[keyText(key), help] as const] : [])),
  ['Tab', 'The other pane'],
  ['?', 'This page'],
  ['Enter', 'On a pane: pick what is pointed at'],
  ['Space held', 'Only move the view'],
  ['Shift click', 'Add to the selection'],
  ['Alt click', 'Take from the selection'],
  ['Ctrl drag', 'Pick with a box'],
  ['Double-click', 'The whole loop; of faces, the whole piece'],
];
