import type { ParamsOf } from '@blunt-hem/core/operations/catalogue';
import type { UvBox } from '@blunt-hem/core/surface/uvBox';

type Params = ParamsOf<'pack'>;

/** How long a layout is made better. */
export type PackEffort = 'at once' | 'briefly' | '10 s' | 'a minute' | 'until stopped';

/** How shells are going to be packed. */
export interface PackingSlice {
  readonly packTurning: NonNullable<Params['turning']>;
  readonly packSpread: NonNullable<Params['spread']>;
  /** Which shells are laid near each other. */
  readonly packNear: NonNullable<Params['near']>;
  readonly packEffort: PackEffort;
  /** Texels a unit of the model; as large as they go where undefined. */
  readonly packDensity: number | undefined;
  /** What is filled instead of tiles: a box on the Board, heights of a tile. */
  readonly packRegion: UvBox | undefined;
}

export const packingSlice: PackingSlice = {
  packTurning: 'quarter',
  packSpread: 'stay',
  packNear: 'none',
  packEffort: 'briefly',
  packDensity: undefined,
  packRegion: undefined,
};
