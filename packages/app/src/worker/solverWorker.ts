import { HemError } from '@blunt-hem/core/errors';
import type { Context, Progress } from '@blunt-hem/core/progress';
import { type Relaxed, type RelaxOptions, relax } from '@blunt-hem/core/relax/relax';
import type { Shell } from '@blunt-hem/core/seams/shell';
import { type Method, type Unfolded, unfoldShell } from '@blunt-hem/core/unfold/unfold';
import * as Comlink from 'comlink';
import type { Answer } from './protocol.ts';

/** One solver of the pool. Its stop flag is shared memory, so it is heard in the middle of a solve. */
export interface SolverApi {
  unfold(shell: Shell, method: Method, stop: Int32Array, report: (p: Progress) => void): Answer<Unfolded>;
  relax(
    shell: Shell,
    start: Float64Array,
    options: RelaxOptions,
    stop: Int32Array,
    report: (p: Progress) => void,
  ): Answer<Relaxed>;
}

/** Reports closer together than this are left out, milliseconds. */
const QUIET = 60;

function contextOf(stop: Int32Array, report: (p: Progress) => void): Context {
  let last = 0;
  return {
    signal: {
      get aborted() {
        return Atomics.load(stop, 0) === 1;
      },
    },
    report(progress) {
      const now = performance.now();
      if (now - last < QUIET) return;
      last = now;
      report(progress);
    },
  };
}

function answer<T>(work: () => T): Answer<T> {
  try {
    return { ok: work() };
  } catch (error) {
    if (!(error instanceof HemError)) throw error;
    return { failure: { code: error.code, sentence: error.message, ids: error.ids } };
  }
}

const api: SolverApi = {
  unfold: (shell, method, stop, report) => answer(() => unfoldShell(shell, method, contextOf(stop, report))),
  relax: (shell, start, options, stop, report) =>
    answer(() => relax(shell, start, options, contextOf(stop, report))),
};

Comlink.expose(api);
