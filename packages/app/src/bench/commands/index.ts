import { STAGE_VIEWS } from '../stages/index.ts';
import type { Command } from './command.ts';
import { checker, followBoard, frame, letGoOrStop, nextOverlay, nextTarget, redo, undo } from './looking.ts';
import { deleteFaces, hide, isolate } from './showing.ts';
import { compare, keep, tryBoth } from './trying.ts';

/** Commands that belong to no stage. */
const EVERYWHERE: readonly Command[] = [
  frame,
  followBoard,
  isolate,
  hide,
  deleteFaces,
  checker,
  nextOverlay,
  nextTarget,
  keep,
  tryBoth,
  compare,
  letGoOrStop,
  undo,
  redo,
];

/** Every command, those of the stages first. */
export const COMMANDS: readonly Command[] = [
  ...new Set([...STAGE_VIEWS.flatMap(({ commands }) => commands), ...EVERYWHERE]),
];
