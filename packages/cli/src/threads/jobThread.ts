import type { MessagePort } from 'node:worker_threads';
import { HemError } from '@blunt-hem/core/errors';
import { type JobName, type JobOutput, runJob } from '@blunt-hem/core/jobs/index';

/** What a thread is given with a job. */
export interface JobTask {
  readonly name: JobName;
  readonly input: unknown;
  /** 1 once it should stop; shared. */
  readonly stop: Int32Array;
  /** Hears how far it is. */
  readonly port: MessagePort;
}

/** What comes of it: an error that is told to whoever called is no breakdown of the thread. */
export type JobResult<N extends JobName> =
  | { readonly ok: JobOutput<N> }
  | { readonly error: Pick<HemError, 'code' | 'message' | 'ids'> };

/** Carries out one job on this thread. */
export default async function jobThread({ name, input, stop, port }: JobTask): Promise<JobResult<JobName>> {
  const signal = {
    get aborted() {
      return Atomics.load(stop, 0) === 1;
    },
  };
  try {
    return {
      ok: await runJob(name, input as never, { signal, report: (progress) => port.postMessage(progress) }),
    };
  } catch (error) {
    if (!(error instanceof HemError)) throw error;
    return { error: { code: error.code, message: error.message, ids: error.ids } };
  } finally {
    port.close();
  }
}
