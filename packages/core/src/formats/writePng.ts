import { encode } from 'fast-png';

export interface Picture16 {
  readonly width: number;
  readonly height: number;
  readonly channels: 1 | 3;
  /** Bits of a value in the file. */
  readonly depth: 8 | 16;
  /** 0 to 65535, row by row from the top. */
  readonly values: Uint16Array;
}

/** A picture as PNG, without a colour space: its values are no light. */
export const writePng = ({ values, depth, ...picture }: Picture16): Uint8Array =>
  encode({
    ...picture,
    depth,
    data: depth === 16 ? values : Uint8Array.from(values, (value) => Math.round(value / 257)),
  });
