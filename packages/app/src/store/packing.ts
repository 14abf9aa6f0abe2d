import type { ParamsOf } from '@blunt-hem/core/operations/catalogue';

type Params = ParamsOf<'pack'>;

/** How long a layout is made better. */
export type PackEffort = 'at once' | 'briefly' | '10 s' | 'a minute' | 'until stopped';

/** How shells are going to be packed. */
export interface PackingSlice {
  readonly packTurning: NonNullable<Params['turning']>;
  readonly packSpread: NonNullable<Params['spread']>;
  readonly packEffort: PackEffort;
  /** Texels a unit of the model; as large as they go where undefined. */
  readonly packDensity: number | undefined;
}

export const packingSlice: PackingSlice = {
  packTurning: 'quarter',
  packSpread: 'stay',
  packEffort: 'briefly',
  packDensity: undefined,
};
