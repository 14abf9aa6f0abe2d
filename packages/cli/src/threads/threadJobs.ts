import { availableParallelism } from 'node:os';
import { fileURLToPath } from 'node:url';
import { MessageChannel } from 'node:worker_threads';
import { HemError, StoppedError } from '@blunt-hem/core/errors';
import {
  type JobInput,
  type JobName,
  type JobOutput,
  type Jobs,
  localJobs,
} from '@blunt-hem/core/jobs/index';
import type { Context } from '@blunt-hem/core/progress';
import { Piscina } from 'piscina';
import type { JobResult, JobTask } from './jobThread.ts';

/** How often a thread is told whether it should stop, milliseconds. */
const WATCH = 15;

/** Jobs that can be ended when they are no longer needed. */
export interface EndingJobs extends Jobs {
  end(): Promise<void>;
}

/** Has jobs done on so many threads, started when they are first needed; on this one where one is enough. */
export function threadJobs(width = availableParallelism()): EndingJobs {
  if (width === 1) return { ...localJobs, end: async () => undefined };
  // As it is written, and as it is built.
  const isSource = import.meta.url.endsWith('.ts');
  const pool = new Piscina({
    filename: fileURLToPath(new URL(isSource ? './jobThread.ts' : './jobThread.js', import.meta.url)),
    execArgv: isSource ? ['--import', 'tsx'] : [],
    minThreads: 0,
    maxThreads: width,
  });
  return {
    width,
    async run<N extends JobName>(
      name: N,
      input: JobInput<N>,
      { signal, report }: Context,
    ): Promise<JobOutput<N>> {
      const stop = new Int32Array(new SharedArrayBuffer(4));
      const { port1, port2 } = new MessageChannel();
      port1.on('message', report);
      const watch = setInterval(() => {
        if (signal.aborted) Atomics.store(stop, 0, 1);
      }, WATCH);
      if (signal.aborted) Atomics.store(stop, 0, 1);
      const task: JobTask = { name, input, stop, port: port2 };
      try {
        const result = (await pool.run(task, { transferList: [port2] })) as JobResult<N>;
        if ('ok' in result) return result.ok;
        const { code, message, ids } = result.error;
        throw code === 'stopped' ? new StoppedError() : new HemError(code, message, ids);
      } finally {
        clearInterval(watch);
        port1.close();
      }
    },
    end: () => pool.destroy(),
  };
}
