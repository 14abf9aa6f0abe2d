import { HemError, StoppedError } from '@blunt-hem/core/errors';
import { NOT_LOADED } from './liveness.ts';
import type { Answer, Failure } from './protocol.ts';

/** How browsers put it that code or a file could not be fetched; nothing but the words tells it apart. */
const FETCHING =
  /dynamically imported module|importing a module script|failed to fetch|load failed|networkerror/i;

export const isNotLoaded = (error: unknown): boolean =>
  error instanceof TypeError && FETCHING.test(error.message);

/** Errors an artist can read cross to another thread as they are; others are bugs and are thrown. */
export async function answer<T>(work: () => T | Promise<T>): Promise<Answer<T>> {
  try {
    return { ok: await work() };
  } catch (error) {
    if (error instanceof HemError) {
      return { failure: { code: error.code, sentence: error.message, ids: [...error.ids] } };
    }
    if (isNotLoaded(error)) return { failure: { code: 'not-loaded', sentence: NOT_LOADED, ids: [] } };
    throw error;
  }
}

/** The error that another thread answered with. */
export const errorOf = ({ code, sentence, ids }: Failure): HemError =>
  code === 'stopped' ? new StoppedError() : new HemError(code, sentence, ids);
