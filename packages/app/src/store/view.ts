import type { Stage } from '@blunt-hem/core/operations/operation';
import type { CheckerUnit, ScaleAgainst } from '../storage/looks.ts';

/** How the artist looks at things; kept with the project. */
export interface ViewSlice {
  readonly stage: Stage;
  /** Name of the tool in hand. */
  readonly tool: string;
  /** Name of the overlay; none when undefined. */
  readonly overlay: string | undefined;
  readonly checker: boolean;
  /** Name of the checker that is shown while it is on. */
  readonly checkerKind: string;
  /** From 0, unseen, to 1, opaque. */
  readonly checkerStrength: number;
  /** What the size of a square is told in. */
  readonly checkerUnit: CheckerUnit;
  /** Texels of a square; and its side in units of the model. */
  readonly squareTexels: number;
  readonly squareUnits: number;
  /** Whether Tissot's ellipses are drawn. */
  readonly ellipsesOn: boolean;
  /** How far out the ends of the overlay's ramp are, as a part of the usual. */
  readonly mapReach: number;
  readonly scaleAgainst: ScaleAgainst;
  /** Texels to a unit of the model. */
  readonly chosenScale: number;
  /** Whether an overlay shows every face by itself, not evened out over the shell. */
  readonly byFace: boolean;
  /** Squares across the tile. */
  readonly repeats: number;
  readonly visibleOnly: boolean;
  /** Whether the Model is drawn without perspective. */
  readonly parallel: boolean;
  /** Part of the middle that the Model takes, percent. */
  readonly split: number;
  readonly detailsOpen: boolean;
  /** Pixels; as the window has it when absent. */
  readonly detailsWidth: number | undefined;
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
  checkerKind: 'gingham',
  checkerStrength: 1,
  checkerUnit: 'repeats',
  squareTexels: 64,
  squareUnits: 1,
  ellipsesOn: false,
  mapReach: 1,
  scaleAgainst: 'shell',
  chosenScale: 100,
  byFace: false,
  repeats: 24,
  visibleOnly: true,
  parallel: false,
  split: 52,
  detailsOpen: true,
  detailsWidth: undefined,
  notches: false,
  seamWeight: 1,
  dark: false,
  helpOpen: false,
};
