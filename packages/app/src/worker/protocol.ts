import type { Totals } from '@blunt-hem/core/document/figures';
import type { Severity } from '@blunt-hem/core/health/check';
import type { ModelFigures } from '@blunt-hem/core/health/modelFigures';
import type { ShellStretch } from '@blunt-hem/core/measure/stretch';
import type { ModelSource } from '@blunt-hem/core/mesh/model';
import type { PartKind, Parts } from '@blunt-hem/core/mesh/parts';
import type { Request } from '@blunt-hem/core/operations/catalogue';
import type { Verdict } from '@blunt-hem/core/surface/verdict';

/** What the main thread and the document worker say to each other. */

export interface PartList extends Parts {
  readonly kind: PartKind;
  /** Faces of each part. */
  readonly faces: readonly number[];
}

/** The model as it is drawn: one vertex for every corner of every triangle. */
export interface ModelBuffers {
  readonly name: string;
  /** The format whose file an export repeats; none once the mesh was changed, or where it cannot. */
  readonly repeats: ModelSource['format'];
  /** `9 × triangleCount`. */
  readonly positions: Float32Array;
  readonly normals: Float32Array;
  readonly triangleFace: Uint32Array;
  /** Parts of each kind of which there is more than one, and of the main kind. */
  readonly parts: readonly PartList[];
  /** xyz of both ends of every edge: `6 × edgeCount`. */
  readonly edgePositions: Float32Array;
  readonly joined: Uint8Array;
  /** Two faces at each edge, the same one twice at a border: `2 × edgeCount`. */
  readonly edgeFaces: Uint32Array;
  readonly edgeVertices: Uint32Array;
  readonly box: Float64Array;
}

/** What is drawn of the UVs; sent anew when they or the seams change. */
export interface FlatBuffers {
  /** u and v of every triangle corner, `6 × triangleCount`; `NO_UV` where there is none. */
  readonly uv: Float32Array;
  /** Logarithm of area stretch and angular deformation in degrees, of every triangle corner: `6 × triangleCount`. */
  readonly stretch: Float32Array;
  /** u and v of both ends of an edge, as it lies on one side and on the other: `8 × edgeCount`. */
  readonly edgeUv: Float32Array;
  /** Lines ready to draw, xyz of both ends each: seams on the model, borders and inner edges in the flat. */
  readonly seamLines: Float32Array;
  readonly borderLines: Float32Array;
  readonly innerLines: Float32Array;
  readonly faceShell: Uint32Array;
}

/** Stands for a missing UV in buffers. */
export const NO_UV = -1e6;

/** One row of the shell table. */
export interface ShellRow extends Omit<ShellStretch, 'logArea' | 'angle'> {
  readonly shell: number;
  readonly faces: number;
  /** Least face of the shell: tells it from others when shells are numbered anew. */
  readonly firstFace: number;
  readonly verdict: Verdict;
  readonly unfolded: boolean;
  readonly stale: boolean;
  readonly box: readonly [number, number, number, number] | undefined;
}

export interface Histogram {
  readonly from: number;
  readonly to: number;
  readonly counts: readonly number[];
}

/** Everything that may have changed after an act. */
export interface BenchState {
  readonly flat: FlatBuffers;
  /** 1 per hidden face. */
  readonly hidden: Uint8Array;
  readonly shells: readonly ShellRow[];
  readonly totals: Totals;
  readonly areaHistogram: Histogram;
  readonly angleHistogram: Histogram;
  /** Labels of what can be undone and redone, the nearest first. */
  readonly undoable: readonly string[];
  readonly redoable: readonly string[];
}

export type BenchEvent =
  /** The mesh is another one; the state that belongs to it follows at once. */
  | { readonly kind: 'model'; readonly model: ModelBuffers }
  | { readonly kind: 'state'; readonly state: BenchState }
  | { readonly kind: 'overlaps'; readonly faces: Uint32Array; readonly atLeast: boolean }
  /** What is running; absent fields mean nothing is. */
  | { readonly kind: 'busy'; readonly label?: string; readonly fraction?: number; readonly figure?: number }
  /** A moving picture of one shell: UV of the triangle corners of its triangles. */
  | { readonly kind: 'moving'; readonly triangles: Uint32Array; readonly uv: Float32Array }
  | { readonly kind: 'saved'; readonly saved: boolean };

export interface Done {
  readonly label: string;
  readonly notes: readonly string[];
}

/** A failure in words an artist reads; errors do not keep their class between threads. */
export interface Failure {
  readonly code: string;
  readonly sentence: string;
  readonly ids: readonly number[];
}

export type Answer<T> = { readonly ok: T } | { readonly failure: Failure };

export interface Pick {
  readonly face: number;
  readonly edge: number;
  readonly shell: number;
  /** Where the ray met the surface; on the Board u, v, 0. */
  readonly point: readonly [number, number, number];
}

/** What a hand picks. */
export type Target = 'edges' | 'faces' | 'shells';

export interface BoxQuery {
  /** Column-major, model to clip space. */
  readonly matrix: readonly number[];
  /** In clip space: left, bottom, right, top. */
  readonly rectangle: readonly [number, number, number, number];
  readonly eye: readonly [number, number, number];
  readonly visibleOnly: boolean;
}

export type ExportKind = 'obj' | 'glb' | 'template' | 'project';

export interface Exported {
  readonly fileName: string;
  readonly bytes: Uint8Array;
}

export interface TemplateChoice {
  readonly size: number;
  readonly fills: boolean;
  readonly edges: boolean;
  readonly numbers: boolean;
}

/** One thing the health check found. */
export interface FindingRow {
  readonly kind: string;
  readonly severity: Severity;
  /** “14 open crack points”. */
  readonly title: string;
  readonly count: number;
  /** What it does to the UVs. */
  readonly effect: string;
  readonly faces: Uint32Array;
  readonly edges: Uint32Array;
  readonly repair?: { readonly label: string; readonly safe: boolean; readonly ofFaces: boolean };
}

export interface HealthReport {
  readonly findings: readonly FindingRow[];
  readonly figures: ModelFigures;
}

export interface OpenedFile {
  readonly name: string;
  readonly bytes: Uint8Array;
}

/** What a file holds, before it is decided what of it is kept. */
export interface ReadFile {
  readonly faces: number;
  /** Names of the UV sets of a model; a project keeps its own. */
  readonly uvSets: readonly string[];
}

/** What the document worker offers. */
export interface BenchApi {
  /**
   * Reads a model or a project, apart from everything else; what came of it waits for `create`.
   *
   * @param files  the model first, then what it names
   * @returns undefined when it was cancelled
   */
  read(
    files: readonly OpenedFile[],
    report: (fraction: number) => void,
  ): Promise<Answer<ReadFile> | undefined>;
  cancelReading(): Promise<void>;
  /** Makes a project of what was read last. */
  create(keepUvs: boolean): Promise<Answer<string>>;
  addDemos(): Promise<void>;
  open(id: string, listen: (event: BenchEvent) => void): Promise<Answer<ModelBuffers>>;
  close(): Promise<void>;
  perform(request: Request): Promise<Answer<Done>>;
  undo(): Promise<Answer<Done | undefined>>;
  redo(): Promise<Answer<Done | undefined>>;
  stop(): Promise<void>;
  /** Undefined when a newer examination, or the end of the project, has ended this one. */
  examine(tolerance: number, report: (fraction: number) => void): Promise<HealthReport | undefined>;
  /** A picture of faces, and of the faces at edges, where they are on the model. */
  pictureOf(faces: Uint32Array, edges: Uint32Array): Promise<Blob | undefined>;
  /** How many one check counts, at once. */
  countOf(kind: string, tolerance: number): Promise<number>;
  pickModel(origin: readonly number[], direction: readonly number[]): Promise<Pick | undefined>;
  pickBoard(u: number, v: number): Promise<Pick | undefined>;
  loop(edge: number): Promise<number[]>;
  inBox(query: BoxQuery, target: Target): Promise<number[]>;
  exportAs(kind: ExportKind, template?: TemplateChoice): Promise<Answer<Exported>>;
  exportProject(id: string): Promise<Answer<Exported>>;
}
