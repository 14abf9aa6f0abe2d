import { strToU8 } from 'fflate';

const ZERO = 48;
const MINUS = 45;
const POINT = 46;
/** Decimals of a place in the tile: finer than a hundred-thousandth of a texel on the largest texture. */
const PLACES = 9;
const UNIT = 10 ** PLACES;
/** Numbers with more before the point are too large to have all their billionths. */
const MOST = 1e6;
/** Digits and sign of any number that `whole` and `units` write. */
const LONGEST = 32;
/** Up to here copying byte by byte is quicker than making a view. */
const FEW = 64;

/** A number in billionths, as `units` writes it. */
export const inUnits = (value: number): number => Math.round(value * UNIT);

export type ByteWriter = ReturnType<typeof byteWriter>;

/** Bytes of a text file, put one behind the other: text joined from strings takes several times as long. */
export function byteWriter(capacity: number) {
  let bytes = new Uint8Array(Math.max(capacity, LONGEST));
  let at = 0;

  const ensure = (more: number): void => {
    if (at + more <= bytes.length) return;
    const grown = new Uint8Array(Math.max(2 * bytes.length, at + more));
    grown.set(bytes.subarray(0, at));
    bytes = grown;
  };
  /** The last so many digits of a whole number below 10⁹. */
  const digits = (value: number, count: number): void => {
    let rest = value | 0;
    at += count;
    for (let i = at - 1; i >= at - count; i--) {
      const tens = (rest / 10) | 0;
      bytes[i] = ZERO + rest - 10 * tens;
      rest = tens;
    }
  };
  const lengthOf = (value: number): number => {
    let count = 1;
    for (let power = 10; power <= value; power *= 10) count++;
    return count;
  };
  const copy = (from: Uint8Array, start = 0, end = from.length): void => {
    ensure(end - start);
    if (end - start > FEW) bytes.set(from.subarray(start, end), at);
    else for (let i = start; i < end; i++) bytes[at + i - start] = from[i];
    at += end - start;
  };
  const text = (letters: string): void => copy(strToU8(letters));
  const latin = (letters: string): void => {
    ensure(letters.length);
    for (let i = 0; i < letters.length; i++) bytes[at++] = letters.charCodeAt(i);
  };

  return {
    copy,
    text,
    byte(value: number): void {
      ensure(1);
      bytes[at++] = value;
    },
    /** A number with as many digits as tell it from every other. */
    decimal: (value: number): void => latin(String(value)),
    /** A whole number, from 0 to below 10⁹. */
    whole(value: number): void {
      ensure(LONGEST);
      digits(value, lengthOf(value));
    },
    /** A number given in billionths, without zeros at its end. */
    units(value: number): void {
      const size = Math.abs(value);
      if (!(size < MOST * UNIT)) {
        latin(String(value / UNIT));
        return;
      }
      ensure(LONGEST);
      if (value < 0) bytes[at++] = MINUS;
      const full = Math.floor(size / UNIT);
      const part = size - full * UNIT;
      digits(full, lengthOf(full));
      if (part === 0) return;
      bytes[at++] = POINT;
      digits(part, PLACES);
      while (bytes[at - 1] === ZERO) at--;
    },
    finish: (): Uint8Array => bytes.slice(0, at),
  };
}
