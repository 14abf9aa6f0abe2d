import { keyText } from './commands/command.ts';
import { COMMANDS } from './commands/index.ts';
import { STAGE_VIEWS } from './stages/index.ts';
import { TOOLS } from './tools/index.ts';
import { BEFORE_KEY } from './useBefore.ts';

/** Keys and what they do, as Help tells them: what the lists say, and what hands do on the panes. */
export const keyTable = (): readonly (readonly [keys: string, act: string])[] => [
  [`1 … ${STAGE_VIEWS.length}`, 'Open a stage'],
  ...TOOLS.map(({ key, help }) => [keyText(key), help] as const),
  ...COMMANDS.flatMap(({ key, help }) => (key && help ? [[keyText(key), help] as const] : [])),
  ['Tab', 'From the Model to the Board, and on to the details'],
  ['← → ↑ ↓', 'On a pane: to the neighbour that way'],
  ['⇧ ← → ↑ ↓', 'On a pane: turn the Model, move the Board'],
  ['Alt ← → ↑ ↓', 'On the Board: move the selected shells by a texel, with Shift by ten'],
  [
    'Enter',
    'On a pane: pick what is pointed at; with Shift add, with Alt remove, with Ctrl the whole loop or piece',
  ],
  ['Space held', 'Only move the view'],
  [`${keyText(BEFORE_KEY)} held`, 'The flat as it was before the last act, with its stretch'],
  ['?', 'Help'],
];

/** What mouse and pen do. */
export const handTable = (): readonly (readonly [hand: string, act: string])[] => [
  ['Click', 'Pick what lights up'],
  ['Double click', 'The whole loop of an edge; of a face, the whole piece'],
  ['Shift, Alt', 'Held at a click or a box: add to the selection, take from it'],
  [
    'Drag',
    'On the Model turn it, on the Board move the view; with shells or points selected there, move them',
  ],
  ['Drag with the box in hand, or Ctrl', 'Pick all that lies in the rectangle, on either pane'],
  ['Right drag', 'Move the view'],
  ['Wheel', 'Zoom to the pointer'],
  [
    'Frame on the Board',
    'Corners scale, sides scale along one way, the knob turns: about the middle, or the cross once it is drawn somewhere; each takes arrow keys, with Shift large steps',
  ],
  ['Wheel at a drag of points', 'More or less of what lies near goes along'],
  ['Ctrl at a drag of shells', 'Nothing takes hold of them'],
  ['Divider between the panes', 'Drag it, or move it with the arrow keys'],
  ['Click on a figure of the strip', 'Select what causes it and show its map'],
  ['Shift click in a list', 'Add to what is picked there'],
];
