import type { Connectivity } from '../mesh/connectivity.ts';
import type { MeshEdit } from '../mesh/edit.ts';
import type { Mesh } from '../mesh/mesh.ts';
import type { Model } from '../mesh/model.ts';
import type { Triangulation } from '../mesh/triangulate.ts';
import { plural } from '../plural.ts';
import type { Context } from '../progress.ts';

/** What a check looks at. */
export interface Patient {
  readonly model: Model;
  readonly mesh: Mesh;
  readonly connectivity: Connectivity;
  readonly triangulation: Triangulation;
}

/** How bad it is for the UVs: they are spoilt, or it is worth knowing. */
export type Severity = 'spoils' | 'hint';

/** What is wrong where; at least one of the lists says where to look. */
export interface Finding {
  /** How many, of what the check counts. */
  readonly count: number;
  readonly faces: Uint32Array;
  readonly edges: Uint32Array;
  readonly vertices: Uint32Array;
}

export interface CheckOptions {
  /** Distance at which points count as one, as a part of the mean length of the border edges. */
  readonly tolerance: number;
}

export const DEFAULT_OPTIONS: CheckOptions = { tolerance: 0.01 };

/** One thing that may be wrong with a model. */
export interface Check {
  /** Stable name. */
  readonly kind: string;
  readonly severity: Severity;
  /** What is counted, one and many: “open crack point”, “open crack points”. */
  readonly thing: readonly [one: string, many: string];
  /** How it is found, for whoever wants to know: “no face uses them”. */
  readonly when: string;
  /** What it does to the UVs, one sentence. */
  readonly effect: string;
  find(patient: Patient, options: CheckOptions, context: Context): Finding | undefined;
  readonly repair?: Repair;
}

export interface Repair {
  /** On the button: “Join them”. */
  readonly label: string;
  /** Whether it may be done unseen: it changes no shape that an artist made. */
  readonly safe: boolean;
  /** Whether it works on the faces of a finding alone, so that some of them, or those found before, can be repaired. */
  readonly ofFaces?: true;
  /** Leaves alone what it cannot repair. */
  run(patient: Patient, finding: Finding, options: CheckOptions): MeshEdit | ModelEdit;
}

/** A repair of what a file said beside the mesh. */
export interface ModelEdit {
  readonly model: Partial<Omit<Model, 'mesh'>>;
}

const NONE = new Uint32Array(0);

/** A finding, or nothing where nothing was found. */
export function findingOf(
  lists: { faces?: Iterable<number>; edges?: Iterable<number>; vertices?: Iterable<number> },
  count?: number,
): Finding | undefined {
  const list = (items?: Iterable<number>) => (items ? Uint32Array.from(items) : NONE);
  const [faces, edges, vertices] = [list(lists.faces), list(lists.edges), list(lists.vertices)];
  const total = count ?? Math.max(faces.length, edges.length, vertices.length);
  return total > 0 ? { count: total, faces, edges, vertices } : undefined;
}

/** “1 loose point”, “14 loose points”. */
export const describeCount = ({ thing }: Check, count: number): string => plural(count, ...thing);
