import { HemError, StoppedError } from '@blunt-hem/core/errors';
import type { Solvers } from '@blunt-hem/core/operations/operation';
import type { Context } from '@blunt-hem/core/progress';
import * as Comlink from 'comlink';
import type { Answer } from './protocol.ts';
import type { SolverApi } from './solverWorker.ts';

/** How often the stop flag is brought up to date, milliseconds. */
const WATCH = 30;

/** A solver in a worker of its own, started when first needed. */
export function solverPool(): Solvers {
  let solver: { readonly api: Comlink.Remote<SolverApi>; readonly death: Promise<never> } | undefined;
  const start = () => {
    const worker = new Worker(new URL('./solverWorker.ts', import.meta.url), { type: 'module' });
    const death = new Promise<never>((_, reject) => {
      worker.addEventListener('error', () => {
        worker.terminate();
        solver = undefined;
        reject(
          new HemError(
            'solver-died',
            'The solver broke down, likely for want of memory, and was started again. Nothing was changed.',
          ),
        );
      });
    });
    death.catch(() => undefined); // heard where it matters
    return { api: Comlink.wrap<SolverApi>(worker), death };
  };
  const run = async <T>(
    context: Context,
    work: (
      solver: Comlink.Remote<SolverApi>,
      stop: Int32Array,
      report: Context['report'],
    ) => Promise<Answer<T>>,
  ): Promise<T> => {
    solver ??= start();
    const stop = new Int32Array(new SharedArrayBuffer(4));
    const watch = setInterval(() => {
      if (context.signal.aborted) Atomics.store(stop, 0, 1);
    }, WATCH);
    try {
      const answer = await Promise.race([
        work(solver.api, stop, Comlink.proxy(context.report)),
        solver.death,
      ]);
      if ('ok' in answer) return answer.ok;
      const { code, sentence, ids } = answer.failure;
      throw code === 'stopped' ? new StoppedError() : new HemError(code, sentence, ids);
    } finally {
      clearInterval(watch);
    }
  };
  return {
    unfold: (jobs, context) => run(context, (s, stop, report) => s.unfold(jobs, stop, report)),
    relax: (jobs, context) => run(context, (s, stop, report) => s.relax(jobs, stop, report)),
  };
}
