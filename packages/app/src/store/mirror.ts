import { LIMIT_PRESETS, type Limits } from '@blunt-hem/core/document/limits';
import type { LayoutFinding } from '@blunt-hem/core/inspect/inspection';
import { FIRST_TILE, type Tile } from '@blunt-hem/core/surface/tiles';
import type {
  BenchFigures,
  FlatBuffers,
  Layout,
  ModelBuffers,
  OcclusionBuffers,
  PatchList,
  SetName,
  ShellRow,
} from '../worker/protocol.ts';

/** What mirrors the document: buffers to draw and rows to read, as the worker sent them last. */
export interface MirrorSlice {
  readonly projectId: string | undefined;
  readonly projectName: string;
  readonly model: ModelBuffers | undefined;
  readonly flat: FlatBuffers | undefined;
  /** 1 per hidden face. */
  readonly hidden: Uint8Array;
  readonly patches: PatchList;
  /** In the order of shells in `flat.faceShell`. */
  readonly shells: readonly ShellRow[];
  readonly uvSets: readonly SetName[];
  readonly currentUv: number;
  /** Whether shells keep their places; until then every act lays them out afresh. */
  readonly placed: boolean;
  /** Which axis of the model points up: 0 for y, 1 for z. */
  readonly upAxis: number;
  readonly front: number;
  readonly limits: Limits;
  readonly tiles: readonly Tile[];
  /** Figures of the document as it is, or was before the act that is being measured. */
  readonly figures: BenchFigures | undefined;
  /** The flat before the last act, and its stretch where it was measured. */
  readonly before:
    | { readonly uv: Float32Array; readonly figures: Pick<BenchFigures, 'logArea' | 'angle'> | undefined }
    | undefined;
  /** Whether figures and layout are those of what is drawn. */
  readonly measured: boolean;
  readonly layout: Layout | undefined;
  /** Seams that run where much is seen; undefined where none do, or nobody looked. */
  readonly seamsShown: LayoutFinding | undefined;
  /** How the sky falls on the model; undefined until it was worked out. */
  readonly occlusion: OcclusionBuffers | undefined;
  readonly undoable: readonly string[];
  readonly redoable: readonly string[];
}

export const mirrorSlice: MirrorSlice = {
  projectId: undefined,
  projectName: '',
  model: undefined,
  flat: undefined,
  hidden: new Uint8Array(0),
  patches: { names: [], faces: [], weights: [], triangles: new Float32Array(0) },
  shells: [],
  uvSets: [],
  currentUv: 0,
  placed: false,
  upAxis: 0,
  front: 0,
  limits: LIMIT_PRESETS.usual,
  tiles: [FIRST_TILE],
  figures: undefined,
  before: undefined,
  measured: false,
  layout: undefined,
  seamsShown: undefined,
  occlusion: undefined,
  undoable: [],
  redoable: [],
};
