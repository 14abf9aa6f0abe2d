import { HemError } from '@blunt-hem/core/errors';

/** @throws HemError with what an artist can do when the browser will not store any more */
export async function saving<T>(work: PromiseLike<T>): Promise<T> {
  try {
    return await work;
  } catch (error) {
    if (error instanceof HemError) throw error;
    throw new HemError(
      'not-saved',
      'This could not be saved, so it was not done: the browser’s storage is full or closed. Delete projects you no longer need, or export this one.',
    );
  }
}
