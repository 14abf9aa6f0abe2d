/**
 * What a pool and a job share while it works: two numbers in shared memory. The first says go on, stop, or that the job has heard it; the
 * second counts how often the job has looked, so that one that hangs can be told from one that is long.
 */
export const [GO_ON, STOP, HEARD] = [0, 1, 2] as const;
const [SAID, LOOKS] = [0, 1] as const;

export const stopFlag = (): Int32Array => new Int32Array(new SharedArrayBuffer(8));

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
