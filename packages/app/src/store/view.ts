import type { Stage } from '@blunt-hem/core/operations/operation';

/** How the artist looks at things; kept with the project. */
export interface ViewSlice {
  readonly stage: Stage;
  /** Name of the tool in hand. */
  readonly tool: string;
  /** Name of the overlay; none when undefined. */
  readonly overlay: string | undefined;
  readonly checker: boolean;
  /** Whether an overlay shows every face by itself, not evened out over the shell. */
  readonly byFace: boolean;
  readonly repeats: number;
  readonly visibleOnly: boolean;
  /** Whether the Model is drawn without perspective. */
  readonly parallel: boolean;
  /** Part of the middle that the Model takes, percent. */
  readonly split: number;
  readonly detailsOpen: boolean;
  /** Whether notches on the Board show which border meets which. */
  readonly notches: boolean;
  /** How heavy seams are drawn, as a part of the usual. */
  readonly seamWeight: number;
  readonly dark: boolean;
  readonly helpOpen: boolean;
}

export const viewSlice: ViewSlice = {
  stage: 'cut',
  tool: 'pick',
  overlay: undefined,
  checker: true,
  byFace: false,
  repeats: 24,
  visibleOnly: true,
  parallel: false,
  split: 52,
  detailsOpen: true,
  notches: false,
  seamWeight: 1,
  dark: false,
  helpOpen: false,
};

/** What of it a project keeps. */
export const KEPT_LOOKS = [
  'stage',
  'overlay',
  'checker',
  'repeats',
  'visibleOnly',
  'parallel',
  'split',
  'notches',
  'seamWeight',
] as const satisfies readonly (keyof ViewSlice)[];
