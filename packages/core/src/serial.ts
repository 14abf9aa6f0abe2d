/** Works that follow one another, whatever becomes of each. */
export interface Serial {
  /** Begins a work once those added before have ended. */
  add<T>(work: () => Promise<T>): Promise<T>;
  /** Resolves once what was added until now has ended. */
  settled(): Promise<unknown>;
}

export function serial(): Serial {
  let last: Promise<unknown> = Promise.resolve();
  return {
    add(work) {
      const result = last.then(work);
      last = result.catch(() => undefined);
      return result;
    },
    settled: () => last,
  };
}
