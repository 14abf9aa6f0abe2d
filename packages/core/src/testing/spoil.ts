import fc from 'fast-check';

/** Places are counted in so many parts of all there are. */
const PARTS = 2 ** 20;

/** One thing gone wrong with kept data: where, and what. */
export interface Fault {
  readonly at: number;
  readonly kind: number;
  readonly value: number;
}

export const faults: fc.Arbitrary<Fault[]> = fc.array(
  fc.record({
    at: fc.noBias(fc.nat(PARTS - 1)),
    kind: fc.nat(5),
    value: fc.oneof(fc.nat(12), fc.constantFrom(-1, 2 ** 31, 2 ** 32 - 1, 1e300, Number.NaN, 0.5)),
  }),
  { minLength: 1, maxLength: 4 },
);

type Holder = Record<string | number, unknown>;

/** A copy of plain data in which things have gone wrong: values changed, lost, cut short, of another kind. */
export function spoilt<T>(data: T, list: readonly Fault[]): T {
  const copy = structuredClone(data);
  for (const { at, kind, value } of list) {
    const places = [...placesIn(copy)];
    const [holder, key] = places[Math.floor((at / PARTS) * places.length)];
    holder[key] = wrong(holder[key], kind, value);
  }
  return copy;
}

function* placesIn(value: unknown): Generator<[Holder, string | number]> {
  if (typeof value !== 'object' || value === null || ArrayBuffer.isView(value)) return;
  for (const key of Object.keys(value)) {
    yield [value as Holder, key];
    yield* placesIn((value as Holder)[key]);
  }
}

function wrong(old: unknown, kind: number, value: number): unknown {
  if (ArrayBuffer.isView(old) && kind < 4) {
    const array = (old as Uint32Array).slice();
    const some = Math.abs(Math.trunc(value) || 0) % 12;
    if (kind === 0) return array.slice(0, some);
    if (kind === 1) return new (old.constructor as typeof Float64Array)(array.length + some);
    array[Math.abs(Math.floor(value * 7919)) % array.length] = value;
    return array;
  }
  if (Array.isArray(old) && kind < 3) return kind === 0 ? old.slice(0, -1) : [...old].reverse();
  if (typeof old === 'number' && kind < 4) return value;
  return [undefined, null, '', {}, value, 'x'][kind];
}
