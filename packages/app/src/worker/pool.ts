import { byteSize } from '@blunt-hem/core/document/delta';
import { HemError, StoppedError } from '@blunt-hem/core/errors';
import type { JobInput, JobName, JobOutput, Jobs } from '@blunt-hem/core/jobs/index';
import { type Context, type Progress, unattended } from '@blunt-hem/core/progress';
import * as Comlink from 'comlink';
import { errorOf } from './answer.ts';
import type { JobApi } from './jobWorker.ts';
import { type Death, deathOf, NOT_LOADED } from './liveness.ts';
import { reporting } from './reporting.ts';
import { type Parcel, sharing } from './sharedInput.ts';
import { isHeard, isOneSided, looksAt, sayStop, stopFlag } from './stopFlag.ts';

/** How often a stop flag is brought up to date, milliseconds. */
const WATCH = 15;

/**
 * A worker that has factorised a matrix of this many bytes of input is replaced: half a gigabyte of its memory would lie idle until the browser
 * comes to collect it. What it knew of the mesh lies in shared memory, and costs the next one nothing.
 */
const LARGE = 24 * 2 ** 20;
const FACTORISING: ReadonlySet<JobName> = new Set<JobName>(['unfold', 'relax']);

/** A job that has not heard within so many watches (two seconds) that it should stop is ended with its worker; */
const DEAF = 133;
/** and one that has heard, but does not come to an end, or has not looked for so long whether it should (half a minute). */
const ENDLESS = 2000;

/** Jobs that do not look in their middle, however long they take: only a Stop ends them before they are done. */
const NEVER_LOOK: ReadonlySet<JobName> = new Set<JobName>([
  'write',
  'write-project',
  'picture',
  'ray-tree',
  'remove-faces',
  'repair',
  'symmetry',
]);

interface PoolWorker {
  readonly worker: Worker;
  readonly api: Comlink.Remote<JobApi>;
  /** Inputs as this worker is to be told them. */
  readonly pack: (input: unknown) => Parcel;
  /** Rejects when the worker is dead. */
  readonly death: Promise<never>;
}

const DEATHS: Readonly<Record<Death, HemError>> = {
  ended: new HemError(
    'solver-died',
    'A solver broke down, perhaps for want of memory, and was started again. Nothing was changed.',
  ),
  'not-loaded': new HemError('not-loaded', NOT_LOADED),
};

const HUNG = new HemError(
  'solver-hung',
  'A solver did not get on for half a minute and was started again. Nothing was changed.',
);

/** More would cost memory that most machines with so many cores do not have to spare. */
const MOST_WORKERS = 16;

/** As many workers as the machine has cores: everything else has little to do while they work. */
export const poolWidth = (): number => Math.min(MOST_WORKERS, navigator.hardwareConcurrency || 2);

/**
 * Workers that jobs run in, started when they are first needed; what finds none free waits its turn.
 *
 * @param width  how many at most
 * @param shared  what it shares with other pools of this thread
 */
export function workerPool(width = poolWidth(), shared = sharing()): Jobs & { start(): void; warm(): void } {
  const free: PoolWorker[] = [];
  const waiting: ((member: PoolWorker) => void)[] = [];
  let started = 0;
  let warming = { aborted: false };
  /** Whether a warming ended of itself. */
  let warm = false;

  const spawn = (): PoolWorker => {
    started++;
    const worker = new Worker(new URL('./jobWorker.ts', import.meta.url), { type: 'module' });
    const death = deathOf(worker).then((how) => {
      throw DEATHS[how];
    });
    const member: PoolWorker = { worker, api: Comlink.wrap<JobApi>(worker), pack: shared.sender(), death };
    death.catch(() => {
      // Of one that dies at work its job hears; one that dies while it waits is not to be given any.
      const at = free.indexOf(member);
      if (at < 0) return;
      free.splice(at, 1);
      terminate(member);
    });
    return member;
  };
  const take = (): PoolWorker | Promise<PoolWorker> =>
    free.pop() ?? (started < width ? spawn() : new Promise((resolve) => waiting.push(resolve)));
  const release = (member: PoolWorker): void => {
    const next = waiting.shift();
    if (next) next(member);
    else free.push(member);
  };
  const terminate = (member: PoolWorker): void => {
    member.worker.terminate();
    started--;
    const next = waiting.shift();
    if (next) next(spawn());
  };

  /** Has one worker do a job. */
  const attempt = async <N extends JobName>(
    name: N,
    input: JobInput<N>,
    context: Context,
    flag: Int32Array,
  ): Promise<JobOutput<N>> => {
    const member = await take();
    const parcel = member.pack(input);
    if (context.signal.aborted) sayStop(flag);
    let isAlive = true;
    // What one that was given up had said before it ended may still be on its way.
    const heard = (progress: Progress): void => {
      if (isAlive) context.report(progress);
    };
    let watch: ReturnType<typeof setInterval> | undefined;
    const unheeded = new Promise<never>((_, reject) => {
      const giveUp = (error: HemError): void => {
        isAlive = false;
        reject(error);
      };
      let [sinceStop, sinceLook, looks] = [0, 0, 0];
      // Watches are counted, not seconds: a machine that slept, or is busy elsewhere, makes no job a hanging one.
      watch = setInterval(() => {
        if (isOneSided(flag)) {
          if (context.signal.aborted) giveUp(new StoppedError());
          return;
        }
        const now = looksAt(flag);
        sinceLook = now === looks ? sinceLook + 1 : 0;
        looks = now;
        if (!context.signal.aborted) {
          if (sinceLook >= ENDLESS && !NEVER_LOOK.has(name)) giveUp(HUNG);
          return;
        }
        sayStop(flag);
        if (++sinceStop >= (isHeard(flag) ? ENDLESS : DEAF)) giveUp(new StoppedError());
      }, WATCH);
    });
    try {
      const answer = await Promise.race([
        reporting(heard, (report) => member.api.run(name, parcel, flag, report)),
        member.death.catch((error) => {
          isAlive = false;
          throw error;
        }),
        unheeded,
      ]);
      if ('ok' in answer) return answer.ok as JobOutput<N>;
      throw errorOf(answer.failure);
    } finally {
      clearInterval(watch);
      const isSpent = FACTORISING.has(name) && byteSize(input) > LARGE;
      if (isAlive && !isSpent) release(member);
      else terminate(member);
    }
  };

  const pool: Jobs = {
    width,
    async run<N extends JobName>(name: N, input: JobInput<N>, context: Context): Promise<JobOutput<N>> {
      if (name !== 'warm-up') warming.aborted = true;
      const flag = stopFlag();
      try {
        return await attempt(name, input, context, flag);
      } catch (error) {
        // Of one that died while it waited, or before it had begun, its job need not know.
        if (error !== DEATHS.ended || looksAt(flag) > 0) throw error;
        return attempt(name, input, context, stopFlag());
      }
    },
  };
  return {
    ...pool,
    /** Starts every worker, so that its code is loaded when it is wanted. */
    start() {
      while (started < width) release(spawn());
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
