import type { Connectivity } from '../mesh/connectivity.ts';
import type { Mesh } from '../mesh/mesh.ts';
import type { Triangulation } from '../mesh/triangulate.ts';
import type { Symmetry } from '../symmetry/findSymmetry.ts';

/** A model for some of whose shells seams are to be proposed. */
export interface ProposalTask {
  readonly mesh: Mesh;
  readonly connectivity: Connectivity;
  readonly triangulation: Triangulation;
  readonly triangleStart: Uint32Array;
  /** Seams that stay, 1 for each cut edge. */
  readonly seams: Uint8Array;
  /** Shells that are to be cut, by number; the others are left as they are. */
  readonly shells: readonly number[];
  /** How much is seen of every vertex. */
  readonly visibility: Float32Array;
  /** A mirror plane; seams on one side have their image on the other. */
  readonly symmetry?: Symmetry;
}
