import { HemError } from '@blunt-hem/core/errors';
import { isClosed } from './saving.ts';

/**
 * One value that is read, or undefined where it cannot be: then it is damaged, and the others need not be.
 *
 * @throws HemError when the store as a whole is closed
 */
export async function readable<T>(work: PromiseLike<T>): Promise<T | undefined> {
  try {
    return await work;
  } catch (error) {
    if (isClosed(error))
      throw new HemError(
        'store-closed',
        'The store was closed, by the browser or by a later Blunt Hem in another tab. Nothing was changed. Load the page again.',
      );
    return undefined;
  }
}
