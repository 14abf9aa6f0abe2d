import type { HealthReport } from '../worker/protocol.ts';

/** What the last health check found; nothing while there has been none of this mesh. */
export interface HealthSlice {
  readonly health: HealthReport | undefined;
  readonly reportOpen: boolean;
  /** Part of a running health check that is done. */
  readonly examining: number | undefined;
  /** Distance at which points count as one, as a part of the edges' length. */
  readonly tolerance: number;
}

export const healthSlice: HealthSlice = {
  health: undefined,
  reportOpen: false,
  examining: undefined,
  tolerance: 0.01,
};
