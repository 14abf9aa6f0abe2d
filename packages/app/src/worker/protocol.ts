import type { ShellMarks, Totals } from '@blunt-hem/core/document/figures';
import type { Limits } from '@blunt-hem/core/document/limits';
import type { Severity } from '@blunt-hem/core/health/check';
import type { ModelFigures } from '@blunt-hem/core/health/modelFigures';
import type { LayoutReport } from '@blunt-hem/core/jobs/inspectLayout';
import type { StretchPicture } from '@blunt-hem/core/jobs/stretchPicture';
import type { ShellStretch } from '@blunt-hem/core/measure/stretch';
import type { StretchFigures } from '@blunt-hem/core/measure/sumStretch';
import type { ModelSource } from '@blunt-hem/core/mesh/model';
import type { PartKind, Parts } from '@blunt-hem/core/mesh/parts';
import type { Stance } from '@blunt-hem/core/mesh/stance';
import type { OperationName, ParamsOf } from '@blunt-hem/core/operations/catalogue';
import type { WhichShells } from '@blunt-hem/core/params';
import type { AnswerOf, AskedOf, QuestionName } from '@blunt-hem/core/questions/index';
import type { Done } from '@blunt-hem/core/session/done';
import type { ShellTopology } from '@blunt-hem/core/surface/shellTopology';
import type { Tile } from '@blunt-hem/core/surface/tiles';
import type { UvBox } from '@blunt-hem/core/surface/uvBox';
import type { Method } from '@blunt-hem/core/unfold/unfold';
import type { RackRow } from '../storage/rack.ts';
import type { Restored } from '../storage/rackBackup.ts';
import type { Room } from '../storage/room.ts';

/** What the main thread and the document worker say to each other. */

export interface PartList extends Parts {
  readonly kind: PartKind;
  /** Faces of each part. */
  readonly faces: readonly number[];
}

/** The model as it is drawn: one vertex for every corner of every triangle. */
export interface ModelBuffers {
  readonly name: string;
  /** The format whose file an export repeats; none once the model was altered, or where it cannot. */
  readonly repeats: ModelSource['format'];
  /** `9 × triangleCount`. */
  readonly positions: Float32Array;
  /** Of unit vectors, as parts of 32 767. */
  readonly normals: Int16Array;
  readonly triangleFace: Uint32Array;
  /** Parts of each kind of which there is more than one, and of the main kind. */
  readonly parts: readonly PartList[];
  /**
   * Drawn vertices at both ends of every edge, on one side and on the other, `NOWHERE` where there is none: `4 × edgeCount`. Through
   * them an edge finds its place on the model and in the flat.
   */
  readonly edgeEnds: Uint32Array;
  /** A drawn vertex at each corner of a face. */
  readonly cornerDrawn: Uint32Array;
  /** Vertex of the model that each drawn vertex is. */
  readonly cornerVertex: Uint32Array;
  /** Vertices of the model at both ends of every edge. */
  readonly edgeVertices: Uint32Array;
  /** Edges where the mesh ends. */
  readonly borders: Uint32Array;
  readonly box: Float64Array;
}

export const NOWHERE = 0xffffffff;

/** Stands for a missing UV in buffers. */
export const NO_UV = -1e6;

/** What is drawn of the UVs; sent anew when they or the seams change. */
export interface FlatBuffers {
  /** u and v of every triangle corner, `6 × triangleCount`; `NO_UV` where there is none. */
  readonly uv: Float32Array;
  readonly faceShell: Uint32Array;
  /** Seams, chained one to the next, with 1 for each that begins a chain. */
  readonly seams: Uint32Array;
  readonly seamBreaks: Uint8Array;
  /** A drawn vertex of every place that is pinned. */
  readonly pins: Uint32Array;
  /** Edges of stays, and of grain lines. */
  readonly stays: Uint32Array;
  readonly grain: Uint32Array;
  /** How each of those runs: see `GRAIN`. */
  readonly grainMarks: Uint8Array;
}

/** One row of the shell table. */
export interface ShellRow extends ShellMarks {
  /** The least face of the shell: its name while seams stay as they are. */
  readonly name: number;
  readonly faces: number;
  readonly unfolded: boolean;
  /** Faces not valid under every diagonal, and those that cannot be. Undefined while it is being measured. */
  readonly folded?: number;
  readonly concave?: number;
  readonly box: UvBox | undefined;
  /** Undefined while it is being measured. */
  readonly topology?: ShellTopology;
  /** Undefined while it is being measured, and without UVs. */
  readonly stretch?: Omit<ShellStretch, 'logArea' | 'angle'>;
}

/** Patches of the model; those whose name is empty are none. */
export interface PatchList {
  readonly names: readonly string[];
  /** Faces of each. */
  readonly faces: readonly number[];
  /** How much finer than the rest the texture is to be on each. */
  readonly weights: readonly number[];
  /** The patch of every triangle, counted from 1; 0 for none. */
  readonly triangles: Float32Array;
}

export interface SetName {
  readonly id: number;
  readonly name: string;
}

/** What has changed after an act; what is absent is as it was. */
export interface BenchState {
  /** What is absent in it is as it was. */
  readonly flat?: Partial<FlatBuffers>;
  /** 1 per hidden face. */
  readonly hidden?: Uint8Array;
  readonly patches?: PatchList;
  /** In the order of shells in `faceShell`. */
  readonly shells: readonly ShellRow[];
  /** Every UV set by its lasting id, in the order in which files hold them, and the one that is shown. */
  readonly uvSets: readonly SetName[];
  readonly currentUv: number;
  /** Whether shells keep their places. */
  readonly placed: boolean;
  /** Which axis of the model points up: 0 for y, 1 for z. */
  readonly upAxis: number;
  /** Which way the model looks: see `Stance`. */
  readonly front: number;
  /** How much is put up with in the flat. */
  readonly limits: Limits;
  /** Of the current UV set. */
  readonly tiles: readonly Tile[];
  /** Labels of what can be undone and redone, the nearest first. */
  readonly undoable: readonly string[];
  readonly redoable: readonly string[];
}

/** What was measured once the picture was on its way. */
export interface BenchFigures extends StretchPicture {
  readonly shells: readonly ShellRow[];
  readonly totals: Totals;
  /** Before the artist's last act. */
  readonly before: Totals;
}

/** How the shells lie together. */
export interface Layout extends LayoutReport {
  /** Part of each tile that is covered, now and before the artist's last act. */
  readonly covered: readonly number[];
  readonly coveredBefore: readonly number[] | undefined;
}

/** What an act would lead to on the Board. */
export interface Ghost {
  /** u and v of both ends of every border of the shells it would change. */
  readonly lines: Float32Array;
  readonly shells: number;
  /** Stretch of those shells, and of what they are cut from where that lies flat now. */
  readonly l2: number;
  readonly before?: number;
}

/** How the sky falls on the model as it is drawn. */
export interface OcclusionBuffers {
  /** 0 hidden to 255 open, of every drawn vertex. */
  readonly corners: Uint8Array;
  /** The same of a square of the ground, row by row, and where that lies in the model's own axes. */
  readonly ground: Uint8Array;
  readonly middle: readonly [number, number, number];
  readonly side: number;
}

/** A kept result of an unfold or relax, for a list. */
export interface TrialRow {
  readonly id: number;
  readonly name: string;
  /** Kept by hand: the last to go. */
  readonly kept: boolean;
  /** Milliseconds since 1970. */
  readonly made: number;
  /** The UV set that it is of, by its lasting id, where that is known. */
  readonly set?: number;
  readonly seconds?: number;
  readonly shells: number;
  /** The method that all of its shells share. */
  readonly method?: Method;
  readonly relaxed: boolean;
  readonly figures: StretchFigures;
}

/** How a trial lies, as it is drawn. */
export interface TrialPicture {
  /** u and v of every triangle corner, `6 × triangleCount`; `NO_UV` where the trial has none. */
  readonly uv: Float32Array;
  /** Of every triangle, as in `BenchFigures`. */
  readonly logArea: Float32Array;
  readonly angle: Float32Array;
  /** Its shells that are no more, or are cut otherwise now. */
  readonly gone: number;
}

export type BenchEvent =
  /** The mesh is another one, or only its places are; the state that belongs to it follows at once. */
  | { readonly kind: 'model'; readonly model: ModelBuffers; readonly sameMesh?: true }
  | { readonly kind: 'state'; readonly state: BenchState }
  | { readonly kind: 'figures'; readonly figures: BenchFigures }
  | ({ readonly kind: 'layout' } & Layout)
  | ({ readonly kind: 'occlusion' } & OcclusionBuffers)
  /** What is running, “Unfolding”; without it nothing is. */
  | {
      readonly kind: 'running';
      readonly doing?: string;
      readonly fraction?: number;
      /** By its name: “energy 4.42, 4 is perfect”. */
      readonly figure?: string;
    }
  /** A moving picture of one shell: UV of the triangle corners of its triangles. */
  | { readonly kind: 'moving'; readonly triangles: Uint32Array; readonly uv: Float32Array }
  | { readonly kind: 'saved'; readonly saved: boolean }
  /** All of them, from the oldest on. */
  | { readonly kind: 'trials'; readonly trials: readonly TrialRow[] }
  /** What lies flat could not be measured: the figures are not those of what is drawn. */
  | { readonly kind: 'unmeasured'; readonly sentence: string }
  /** The project itself could not be stored: what is here is all there is. */
  | { readonly kind: 'unsaved'; readonly sentence: string };

/** A failure in words an artist reads; errors do not keep their class between threads. */
export interface Failure {
  readonly code: string;
  readonly sentence: string;
  readonly ids: readonly number[];
}

export type Answer<T> = { readonly ok: T } | { readonly failure: Failure };

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
  /** Whether a model looks as if z pointed up in it; a project says so itself, and glTF models stand along y. */
  readonly mayLie: boolean;
  /** Some of its faces, to draw it small: see `sampleFaces`. */
  readonly sample: Float32Array;
  /** What of the file is damaged, for the artist. */
  readonly loss?: string;
}

export interface FileBytes {
  readonly fileName: string;
  readonly bytes: Uint8Array;
  /** What of the project is not in it, being damaged. */
  readonly loss?: string;
}

/** A project that was opened. */
export interface OpenedProject {
  readonly name: string;
  readonly model: ModelBuffers;
  /** How it was looked at last. */
  readonly view: unknown;
}

/** Reading files, apart from everything else. */
export interface ReadingApi {
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
  /**
   * Makes a project of what was read last.
   *
   * @param stance  how the model stands
   * @param anyway  even if there is no room to keep it
   * @returns undefined when it was cancelled
   */
  create(keepUvs: boolean, stance: Stance, anyway: boolean): Promise<Answer<string> | undefined>;
  /** Puts the projects of a backup on the Rack beside what is there; undefined when it was cancelled. */
  restore(file: File, report: (fraction: number) => void): Promise<Answer<Restored> | undefined>;
}

/** What is on the Rack. */
export interface RackApi {
  /** @param dense  the one dense sculpt instead of all others */
  addDemos(dense: boolean): Promise<Answer<void>>;
  /** Tells what is on the Rack now and whenever that changes, from whatever tab, until the Rack is left. */
  watchRack(listen: (rows: readonly RackRow[]) => void, fail: (sentence: string) => void): Promise<void>;
  leaveRack(): Promise<void>;
  takeOff(id: string): Promise<Answer<void>>;
  putBack(id: string): Promise<Answer<void>>;
  deleteForGood(id: string): Promise<Answer<void>>;
  /** Removes for good what was taken off the Rack; all of it, or what has been off for thirty days. */
  emptyOff(all: boolean): Promise<Answer<void>>;
  /** Makes a project of what is whole of a damaged one, which stays as it is. */
  rescue(id: string): Promise<Answer<string>>;
  /** Undefined where the browser does not tell. */
  room(): Promise<Room | undefined>;
  /** The whole Rack as one file; with how many projects are in it, and what of it is damaged. */
  backUp(
    report: (fraction: number) => void,
  ): Promise<Answer<{ file: Blob; projects: number; losses: readonly string[] }>>;
  keepView(id: string, view: unknown): Promise<Answer<void>>;
}

/** The project that is open, as a whole. */
export interface ProjectApi {
  open(id: string, listen: (event: BenchEvent) => void, patience?: number): Promise<Answer<OpenedProject>>;
  close(): Promise<void>;
  /** Makes a new project of the open one, whose own is lost. */
  keepAsNew(): Promise<Answer<string>>;
  /** Keeps a picture of the open project for the Rack. */
  keepPicture(id: string, picture: Blob): Promise<Answer<void>>;
  exportProject(id: string): Promise<Answer<FileBytes>>;

  /** @param patience  milliseconds to wait for a project that was open until now */
}

/** What is done to the open project, kept beside it and asked of it. */
export interface SessionApi {
  perform<N extends OperationName>(operation: N, params: ParamsOf<N>): Promise<Answer<Done>>;
  undo(): Promise<Answer<Done | undefined>>;
  redo(): Promise<Answer<Done | undefined>>;
  stop(): Promise<void>;
  /** Keeps what lies flat now, of the shells of some faces or of all. */
  keepTrial(name: string | undefined, which: WhichShells): Promise<Answer<TrialRow>>;
  nameTrial(id: number, name: string): Promise<Answer<void>>;
  dropTrial(id: number): Promise<Answer<void>>;
  /** Lays shells as they lay in a trial: those of some faces, or all that are still there. */
  takeTrial(id: number, faces?: readonly number[]): Promise<Answer<Done>>;
  /** Unfolds shells by each method; the document stays as it is. Back come the numbers of the trials. */
  tryMethods(which: WhichShells): Promise<Answer<readonly number[]>>;
  trialPicture(id: number): Promise<Answer<TrialPicture>>;
  /** Undefined when something newer took the place of the question. */
  ask<N extends QuestionName>(
    name: N,
    params: AskedOf<N>,
    report?: (fraction: number) => void,
  ): Promise<Answer<AnswerOf<N> | undefined>>;
  /** Ends a question; it answers with the best it has, or with nothing. */
  stopAsking(name: QuestionName): Promise<void>;
  /** What an act would lead to; undefined when something newer took its place, or it cannot be done. */
  preview<N extends OperationName>(operation: N, params: ParamsOf<N>): Promise<Ghost | undefined>;
  clearPreview(): Promise<void>;
  /** Undefined when a newer examination, or the end of the project, has ended this one. */
  examine(tolerance: number, report: (fraction: number) => void): Promise<HealthReport | undefined>;
  /** A picture of the model, PNG; with faces or edges, of where those are. */
  pictureOf(faces: Uint32Array, edges: Uint32Array): Promise<Blob | undefined>;
}

/** What the document worker offers. It alone reads and writes the database. */
export interface BenchApi extends ReadingApi, RackApi, ProjectApi, SessionApi {
  /** Answers at once, unless nothing will be answered any more. */
  ping(): Promise<void>;
}
