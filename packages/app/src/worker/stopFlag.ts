import { canShare } from './sharedInput.ts';

/**
 * What a pool and a job share while it works: two numbers in shared memory. The first says go on, stop, or that the job has heard it; the
 * second counts how often the job has looked, so that one that hangs can be told from one that is long.
 */
export const [GO_ON, STOP, HEARD] = [0, 1, 2] as const;
const [SAID, LOOKS] = [0, 1] as const;

/** Where the page may share no memory, nobody hears it: see `isOneSided`. */
export const stopFlag = (): Int32Array =>
  canShare() ? new Int32Array(new SharedArrayBuffer(8)) : new Int32Array(2);

/** Whether a flag was copied to the job: neither hears of the other. */
export const isOneSided = (flag: Int32Array): boolean => flag.buffer instanceof ArrayBuffer;

/** In the pool: says stop. */
export const sayStop = (flag: Int32Array): void => {
  Atomics.compareExchange(flag, SAID, GO_ON, STOP);
};
export const isHeard = (flag: Int32Array): boolean => Atomics.load(flag, SAID) === HEARD;
export const looksAt = (flag: Int32Array): number => Atomics.load(flag, LOOKS);

/** In the job: whether it should stop. */
export function lookAt(flag: Int32Array): boolean {
  Atomics.add(flag, LOOKS, 1);
  if (Atomics.load(flag, SAID) === GO_ON) return false;
  Atomics.store(flag, SAID, HEARD);
  return true;
}
