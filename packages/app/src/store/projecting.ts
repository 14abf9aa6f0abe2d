import type { Projection } from '@blunt-hem/core/projections/projectFaces';
import type { ProjectionPreview } from '@blunt-hem/core/questions/projection';

/** Where a projection stands, in the model's own axes. */
export type ProjectionFrame = ProjectionPreview['frame'];

/** What the handle on the Model does. */
export type HandleMode = 'translate' | 'rotate' | 'scale';

/** A projection that is being placed. */
export interface ProjectingSlice {
  readonly projectionKind: Projection;
  /** By one projection, or by one for each shell or part. */
  readonly projectionEach: 'together' | 'shells' | 'parts';
  /** Whether caps, which are seen edge-on, get planes of their own. */
  readonly projectionCaps: 'along' | 'apart';
  /** Degrees that a wrap covers. */
  readonly projectionSweep: number;
  readonly projectionSize: number;
  /** Where the hand has put it; where it fits by itself when undefined. */
  readonly projectionFrame: ProjectionFrame | undefined;
  readonly handleMode: HandleMode;
  /** How faces would lie; undefined while nothing is asked. */
  readonly projectionPreview: ProjectionPreview | undefined;
}

export const projectingSlice: ProjectingSlice = {
  projectionKind: 'cylinder',
  projectionEach: 'together',
  projectionCaps: 'along',
  projectionSweep: 360,
  projectionSize: 1,
  projectionFrame: undefined,
  handleMode: 'translate',
  projectionPreview: undefined,
};
