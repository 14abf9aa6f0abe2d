import { byteSize } from '@blunt-hem/core/document/patch';
import { HemError, StoppedError } from '@blunt-hem/core/errors';
import type { JobInput, JobName, JobOutput, Jobs } from '@blunt-hem/core/jobs/index';
import { type Context, unattended } from '@blunt-hem/core/progress';
import * as Comlink from 'comlink';
import type { JobApi } from './jobWorker.ts';
import { reporting } from './reporting.ts';

/** How often a stop flag is brought up to date, milliseconds. */
const WATCH = 15;

/** A worker that was given more than this is not kept: its memory would never shrink again. Bytes. */
const LARGE = 48 * 2 ** 20;

interface Crew {
  readonly worker: Worker;
  readonly api: Comlink.Remote<JobApi>;
  readonly death: Promise<never>;
}

/** More would cost memory that most machines with so many cores do not have to spare. */
const MOST_WORKERS = 16;

/** As many workers as the machine has cores: everything else has little to do while they work. */
export const poolWidth = (): number => Math.min(MOST_WORKERS, navigator.hardwareConcurrency || 2);

/**
 * Workers that jobs run in, started when they are first needed; what finds none free waits its turn.
 *
 * @param width  how many at most
 */
export function workerPool(width = poolWidth()): Jobs & { start(): void; warm(): void } {
  const free: Crew[] = [];
  const waiting: ((crew: Crew) => void)[] = [];
  let started = 0;
  let warming = { aborted: false };
  /** Whether a warming ended of itself. */
  let warm = false;

  const hire = (): Crew => {
    started++;
    const worker = new Worker(new URL('./jobWorker.ts', import.meta.url), { type: 'module' });
    const death = new Promise<never>((_, reject) => {
      worker.addEventListener('error', () => {
        const sentence =
          'A solver broke down, likely for want of memory, and was started again. Nothing was changed.';
        reject(new HemError('solver-died', sentence));
      });
    });
    death.catch(() => undefined); // heard where it matters
    return { worker, api: Comlink.wrap<JobApi>(worker), death };
  };
  const take = (): Crew | Promise<Crew> =>
    free.pop() ?? (started < width ? hire() : new Promise((resolve) => waiting.push(resolve)));
  const giveBack = (crew: Crew): void => {
    const next = waiting.shift();
    if (next) next(crew);
    else free.push(crew);
  };
  const bury = (crew: Crew): void => {
    crew.worker.terminate();
    started--;
    const next = waiting.shift();
    if (next) next(hire());
  };

  const pool: Jobs = {
    width,
    async run<N extends JobName>(name: N, input: JobInput<N>, context: Context): Promise<JobOutput<N>> {
      if (name !== 'warm-up') warming.aborted = true;
      const crew = await take();
      const stop = new Int32Array(new SharedArrayBuffer(4));
      if (context.signal.aborted) stop[0] = 1;
      const watch = setInterval(() => {
        if (context.signal.aborted) Atomics.store(stop, 0, 1);
      }, WATCH);
      let alive = true;
      try {
        const answer = await Promise.race([
          reporting(context.report, (report) => crew.api.run(name, input, stop, report)),
          crew.death,
        ]);
        if ('ok' in answer) return answer.ok as JobOutput<N>;
        const { code, sentence, ids } = answer.failure;
        throw code === 'stopped' ? new StoppedError() : new HemError(code, sentence, ids);
      } catch (error) {
        if (error instanceof HemError && error.code === 'solver-died') alive = false;
        throw error;
      } finally {
        clearInterval(watch);
        if (alive && byteSize(input) <= LARGE) giveBack(crew);
        else bury(crew);
      }
    },
  };
  return {
    ...pool,
    /** Starts every worker, so that its code is loaded when it is wanted. */
    start() {
      while (started < width) giveBack(hire());
    },
    /**
     * Has the code of every worker compiled, so that the first job is as quick as the tenth. Gives way to any job.
     */
    warm() {
      warming = { aborted: warm };
      const context = { ...unattended, signal: warming };
      for (let i = 0; i < width; i++) {
        pool.run('warm-up', undefined, context).then(
          () => {
            warm = true;
          },
          () => undefined,
        );
      }
    },
  };
}
