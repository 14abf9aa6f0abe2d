import { buffersIn } from '@blunt-hem/core/jobs/buffersIn';
import { type JobInput, type JobName, type JobOutput, runJob } from '@blunt-hem/core/jobs/index';
import type { Context, Progress } from '@blunt-hem/core/progress';
import * as Comlink from 'comlink';
import { answer } from './answer.ts';
import { declareAlive } from './liveness.ts';
import type { Answer } from './protocol.ts';
import { intoSharedMemory, type Parcel, receiver } from './sharedInput.ts';
import { lookAt } from './stopFlag.ts';

/** One worker of the pool. Its stop flag is shared memory, so it is heard in the middle of a job. */
export interface JobApi {
  run<N extends JobName>(
    name: N,
    parcel: Parcel,
    stop: Int32Array,
    report: (progress: Progress) => void,
  ): Promise<Answer<JobOutput<N>>>;
}

/** Reports closer together than this are left out, milliseconds. */
const QUIET = 60;

function contextOf(stop: Int32Array, report: (progress: Progress) => void): Context {
  let last = 0;
  return {
    signal: {
      get aborted() {
        return lookAt(stop);
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

const unpack = receiver();

/** Jobs whose results are part of what other jobs are given. */
const COMES_BACK: ReadonlySet<JobName> = new Set<JobName>(['ray-tree']);

const api: JobApi = {
  async run(name, parcel, stop, report) {
    const input = unpack(parcel) as JobInput<typeof name>;
    const result = await answer(() => runJob(name, input, contextOf(stop, report)));
    if (!('ok' in result)) return result;
    if (COMES_BACK.has(name)) return intoSharedMemory(result);
    // Handed over, not copied: a job keeps nothing of what it gives.
    return Comlink.transfer(result, buffersIn(result.ok));
  },
};

Comlink.expose(api);
declareAlive();
