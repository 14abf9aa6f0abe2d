import { arrange } from './arrange.tsx';
import { cut } from './cut.ts';
import { deliver } from './deliver.tsx';
import { inspect } from './inspect.ts';
import { intake } from './intake.tsx';
import type { StageView } from './stage.ts';
import { unfold } from './unfold.tsx';

/** The six stages, in working order: the keys 1 to 6. */
export const STAGE_VIEWS: readonly StageView[] = [intake, cut, unfold, inspect, arrange, deliver];

export const stageNamed = (name: string): StageView =>
  STAGE_VIEWS.find((stage) => stage.name === name) ?? cut;
