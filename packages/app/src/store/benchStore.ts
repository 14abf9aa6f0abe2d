import type { Totals } from '@blunt-hem/core/document/figures';
import { create } from 'zustand';
import type {
  BenchEvent,
  BenchState,
  FlatBuffers,
  HealthReport,
  ModelBuffers,
  Target,
} from '../worker/protocol.ts';

export const STAGES = ['intake', 'cut', 'unfold', 'inspect', 'arrange', 'deliver'] as const;
export type Stage = (typeof STAGES)[number];
export type Tool = 'pick' | 'box';
export type Overlay = 'none' | 'area' | 'angle';
export type Pane = 'model' | 'board';

export interface Hover {
  readonly pane: Pane;
  readonly edge: number;
  readonly face: number;
  readonly shell: number;
}

export interface Notice {
  readonly tone: 'note' | 'error';
  readonly text: string;
  /** What could be done about it. */
  readonly offer?: { readonly label: string; readonly act: () => void };
}

export interface Busy {
  readonly label: string;
  readonly fraction?: number;
  readonly figure?: number;
}

export interface BenchStore {
  projectId?: string;
  projectName: string;
  model?: ModelBuffers;
  flat?: FlatBuffers;
  state?: BenchState;
  /** Figures before the last act. */
  before?: Totals;
  overlaps: { faces: Uint32Array; atLeast: boolean };
  busy?: Busy;
  saved: boolean;
  notice?: Notice;
  stage: Stage;
  tool: Tool;
  target: Target;
  visibleOnly: boolean;
  /** Whether the Model is drawn without perspective. */
  parallel: boolean;
  overlay: Overlay;
  checker: boolean;
  repeats: number;
  /** What the last health check found; nothing while there has been none of this mesh. */
  health?: HealthReport;
  reportOpen: boolean;
  /** Part of a running health check that is done. */
  examining?: number;
  /** Distance at which points count as one, as a part of the edges' length. */
  tolerance: number;
  edges: ReadonlySet<number>;
  faces: ReadonlySet<number>;
  shells: ReadonlySet<number>;
  hover?: Hover;
  /** Part of the middle that the Model takes, 0 to 1. */
  split: number;
  detailsOpen: boolean;
  dark: boolean;
}

export const useBench = create<BenchStore>()(() => ({
  projectName: '',
  overlaps: { faces: new Uint32Array(0), atLeast: false },
  saved: true,
  stage: 'cut',
  tool: 'pick',
  target: 'edges',
  visibleOnly: true,
  parallel: false,
  overlay: 'none',
  checker: true,
  repeats: 24,
  reportOpen: false,
  tolerance: 0.01,
  edges: new Set(),
  faces: new Set(),
  shells: new Set(),
  split: 0.52,
  detailsOpen: true,
  dark: false,
}));

/** Forgets one project before another is opened. */
export function resetBench(): void {
  useBench.setState({
    projectId: undefined,
    model: undefined,
    flat: undefined,
    state: undefined,
    before: undefined,
    busy: undefined,
    notice: undefined,
    hover: undefined,
    stage: 'cut',
    health: undefined,
    reportOpen: false,
    examining: undefined,
    tolerance: 0.01,
    edges: new Set(),
    faces: new Set(),
    shells: new Set(),
    overlaps: { faces: new Uint32Array(0), atLeast: false },
  });
}

/** A new mesh waits for the state that belongs to it. */
let nextModel: ModelBuffers | undefined;

/** Takes in what the worker says. Moving pictures go to the renderer alone. */
export function receive(event: BenchEvent): void {
  switch (event.kind) {
    case 'model':
      nextModel = event.model;
      return;
    case 'state':
      useBench.setState((s) => ({
        ...(nextModel && {
          model: nextModel,
          health: undefined,
          edges: new Set<number>(),
          faces: new Set<number>(),
        }),
        state: event.state,
        before: s.state?.totals ?? event.state.totals,
        flat: event.state.flat,
        shells: renumbered(s, event.state),
        hover: undefined,
      }));
      nextModel = undefined;
      return;
    case 'overlaps':
      useBench.setState({ overlaps: event });
      return;
    case 'busy':
      useBench.setState({
        busy: event.label
          ? { label: event.label, fraction: event.fraction, figure: event.figure }
          : undefined,
      });
      return;
    case 'saved':
      useBench.setState({ saved: event.saved });
      return;
    case 'moving':
      return;
  }
}

/** Shells are numbered anew after a cut; the chosen ones stay chosen. */
function renumbered({ shells, state }: BenchStore, next: BenchState): ReadonlySet<number> {
  const { flat } = next;
  if (!state || shells.size === 0) return shells;
  if (nextModel) return new Set();
  return new Set(
    [...shells].flatMap((s) => (state.shells[s] ? [flat.faceShell[state.shells[s].firstFace]] : [])),
  );
}
