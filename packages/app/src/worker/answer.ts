import { HemError } from '@blunt-hem/core/errors';
import type { Answer } from './protocol.ts';

/** Errors an artist can read cross to another thread as they are; others are bugs and are thrown. */
export async function answer<T>(work: () => T | Promise<T>): Promise<Answer<T>> {
  try {
    return { ok: await work() };
  } catch (error) {
    if (error instanceof HemError) {
      return { failure: { code: error.code, sentence: error.message, ids: [...error.ids] } };
    }
    throw error;
  }
}
