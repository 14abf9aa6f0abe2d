import { adoptTopology, knownTopology } from '@blunt-hem/core/document/document';
import type { Mesh } from '@blunt-hem/core/mesh/mesh';

/**
 * How the inputs of jobs reach workers. Large arrays lie in memory that threads share, into which each is copied once, so that posting
 * it costs nothing. Meshes and the arrays of documents are kept by the workers under a number and told by it from then on: what a worker has
 * worked out about one it need not work out again. A mesh brings its topology along. Where the page may share no memory, arrays are copied,
 * those that a worker keeps once.
 */

/** The input of a job as it is posted. */
export interface Parcel {
  /** The input; what the worker keeps is there as `Kept`. */
  readonly input: unknown;
  /** What it is to keep from now on, by number. */
  readonly arrivals: readonly (readonly [number: number, value: unknown])[];
  /** What it need not keep any more. */
  readonly departures: readonly number[];
}

/** Something that the worker has, or gets along with this. */
interface Kept {
  readonly '~kept': number;
}

/** A document on its way. */
interface SentDocument {
  readonly document: unknown;
}

/** A mesh on its way, with what follows from it. */
interface SentMesh {
  readonly mesh: Mesh;
  readonly topology?: object;
}

/** Arrays of fewer bytes are copied: they cost less than what is shared. */
const SMALL = 4096;
/** What was part of none of so many jobs of a worker is forgotten by it. */
const JOBS_KEPT = 8;

/** The fields of inputs whose arrays last: the same ones come with many jobs. */
const LASTING = new Set(['document', 'model', 'tree']);

const isPlain = (value: object): boolean => Object.getPrototypeOf(value) === Object.prototype;
const isMesh = (value: object): value is Mesh =>
  'cornerVertex' in value && 'faceStart' in value && 'positions' in value;

/** Whether this page may share memory between its threads. */
export const canShare = (): boolean => typeof SharedArrayBuffer !== 'undefined';

/** Something that holds bytes: an array, or what lies under one. */
type Bytes = ArrayBufferView | ArrayBufferLike;

const isBytes = (value: unknown): value is Bytes =>
  ArrayBuffer.isView(value) ||
  value instanceof ArrayBuffer ||
  (canShare() && value instanceof SharedArrayBuffer);

/** Whether it is worth sharing, and is not shared. */
const isWorthSharing = (bytes: Bytes): boolean =>
  bytes.byteLength >= SMALL && (ArrayBuffer.isView(bytes) ? bytes.buffer : bytes) instanceof ArrayBuffer;

/** What all pools of one thread share: shared copies of arrays, and the numbers of what workers keep. */
export function sharing(isShared = canShare()) {
  const copies = new WeakMap<Bytes, Bytes>();
  const numbers = new WeakMap<object, number>();
  let numbered = 0;

  const sharedCopy = (array: Bytes): Bytes => {
    if (!isShared || !isWorthSharing(array)) return array;
    let copy = copies.get(array);
    if (!copy) {
      copy = inSharedMemory(array);
      copies.set(array, copy);
    }
    return copy;
  };
  const withShared = (value: unknown): unknown => {
    if (isBytes(value)) return sharedCopy(value);
    if (typeof value !== 'object' || value === null || !isPlain(value)) return value;
    return Object.fromEntries(Object.entries(value).map(([key, each]) => [key, withShared(each)]));
  };
  /** UVs are the largest, change most often and have nothing hanging on them: where they are shared they come with every job. */
  const isWorthKeeping = (bytes: Bytes): boolean =>
    bytes.byteLength >= SMALL && !(isShared && bytes instanceof Float64Array);
  const numberOf = (value: object): number => {
    let number = numbers.get(value);
    if (number === undefined) {
      number = ++numbered;
      numbers.set(value, number);
    }
    return number;
  };

  return {
    /**
     * What has to be told to one worker: it is asked before each of its jobs, in their order.
     *
     * @param keepsDocument  whether the worker keeps the newest document too, so that it is the same object in each job
     */
    sender(keepsDocument = false): (input: unknown) => Parcel {
      /** The job in which each thing that the worker keeps was last used. */
      const used = new Map<number, number>();
      let jobs = 0;
      let last: number | undefined;
      return (input) => {
        jobs++;
        const arrivals: [number, unknown][] = [];
        const departures: number[] = [];
        const keep = (value: object, sent: () => unknown): Kept => {
          const number = numberOf(value);
          if (!used.has(number)) arrivals.push([number, sent()]);
          used.set(number, jobs);
          return { '~kept': number };
        };
        const pack = (value: unknown, isLasting: boolean): unknown => {
          if (isBytes(value))
            return isLasting && isWorthKeeping(value)
              ? keep(value, () => sharedCopy(value))
              : sharedCopy(value);
          if (typeof value !== 'object' || value === null) return value;
          if (Array.isArray(value))
            return typeof value[0] === 'object' ? value.map((each) => pack(each, isLasting)) : value;
          if (!isPlain(value)) return value;
          if (isMesh(value))
            return keep(value, (): SentMesh => {
              const { mesh: _, ...topology } = knownTopology(value) ?? { mesh: value };
              return { mesh: withShared(value) as Mesh, topology: withShared(topology) as object };
            });
          return Object.fromEntries(
            Object.entries(value).map(([key, each]) => [
              key,
              key === 'document' && keepsDocument
                ? keepDocument(each as object)
                : pack(each, isLasting || LASTING.has(key)),
            ]),
          );
        };
        /** Packed each time, so that its parts count as used; sent when it is another. */
        const keepDocument = (document: object): Kept => {
          const number = numberOf(document);
          const packed = pack(document, true);
          if (number !== last) {
            arrivals.push([number, { document: packed } satisfies SentDocument]);
            if (last !== undefined) departures.push(last);
            last = number;
          }
          return { '~kept': number };
        };
        const packed = pack(input, false);
        departures.push(...[...used].filter(([, job]) => job <= jobs - JOBS_KEPT).map(([number]) => number));
        for (const number of departures) used.delete(number);
        return { input: packed, arrivals, departures };
      };
    },
  };
}

/** Unpacks parcels in a worker, which keeps what it is told to. */
export function receiver(): (parcel: Parcel) => unknown {
  const kept = new Map<number, unknown>();
  const unpack = (value: unknown): unknown => {
    if (typeof value !== 'object' || value === null || isBytes(value)) return value;
    if (Array.isArray(value)) return typeof value[0] === 'object' ? value.map(unpack) : value;
    if (!isPlain(value)) return value;
    if ('~kept' in value) return kept.get((value as Kept)['~kept']);
    return Object.fromEntries(Object.entries(value).map(([key, each]) => [key, unpack(each)]));
  };
  const arrived = (value: unknown): unknown => {
    if (isBytes(value)) return value;
    return 'document' in (value as object)
      ? unpack((value as SentDocument).document)
      : meshOf(value as SentMesh);
  };
  return ({ input, arrivals, departures }) => {
    for (const [number, value] of arrivals) kept.set(number, arrived(value));
    const unpacked = unpack(input);
    for (const number of departures) kept.delete(number);
    return unpacked;
  };
}

function meshOf({ mesh, topology }: SentMesh): Mesh {
  if (topology && 'connectivity' in topology)
    adoptTopology({ ...topology, mesh } as Parameters<typeof adoptTopology>[0]);
  return mesh;
}

/** A copy in memory that threads share. */
function inSharedMemory(bytes: Bytes): Bytes {
  if (!ArrayBuffer.isView(bytes)) {
    const copy = new SharedArrayBuffer(bytes.byteLength);
    new Uint8Array(copy).set(new Uint8Array(bytes));
    return copy;
  }
  const array = bytes as ArrayBufferView & ArrayLike<number>;
  const Kind = array.constructor as new (
    buffer: SharedArrayBuffer,
  ) => ArrayBufferView & { set(from: ArrayLike<number>): void };
  const copy = new Kind(new SharedArrayBuffer(array.byteLength));
  copy.set(array);
  return copy;
}

/** Plain data with all large arrays in shared memory, for whoever keeps them for long: nothing of it is copied again. */
export function intoSharedMemory<T>(value: T): T {
  if (!canShare()) return value;
  const copies = new Map<Bytes, Bytes>();
  const move = (each: unknown): unknown => {
    if (isBytes(each)) {
      if (!isWorthSharing(each)) return each;
      const copy = copies.get(each) ?? inSharedMemory(each);
      copies.set(each, copy);
      return copy;
    }
    if (Array.isArray(each)) return typeof each[0] === 'object' ? each.map(move) : each;
    if (typeof each !== 'object' || each === null || !isPlain(each)) return each;
    return Object.fromEntries(Object.entries(each).map(([key, part]) => [key, move(part)]));
  };
  return move(value) as T;
}
