import { type HemError, StoppedError } from '@blunt-hem/core/errors';
import { unattended } from '@blunt-hem/core/progress';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { workerPool } from './pool.ts';
import { lookAt } from './stopFlag.ts';

/** Workers that do what a test says, in place of real ones; and locks that are let go of when a worker dies. */

type Deed =
  | 'answers'
  | 'never'
  | 'dies'
  | 'looks and dies'
  | 'does not load'
  | 'looks on'
  | 'hears and stops'
  | 'hears and goes on'
  | 'tells late';

let deeds: Deed[] = [];
let workers: FakeWorker[] = [];
const waitingFor = new Map<string, () => void>();

class FakeWorker extends EventTarget {
  readonly name = `lock-${workers.length}`;
  readonly deed = deeds[Math.min(workers.length, deeds.length - 1)];
  ended = false;
  private timer?: ReturnType<typeof setInterval>;
  private listener?: MessagePort;

  constructor() {
    super();
    workers.push(this);
    setTimeout(() => {
      if (this.deed === 'does not load') this.dispatchEvent(new Event('error', { cancelable: true }));
      else this.say({ alive: this.name });
    });
  }
  say(data: object): void {
    this.dispatchEvent(new MessageEvent('message', { data }));
  }
  /** A call, as Comlink makes it: of `run`, with the flag as its third word. */
  postMessage({ id, argumentList }: { id: string; argumentList: { value: unknown }[] }): void {
    const flag = argumentList[2].value as Int32Array;
    if (this.deed === 'tells late') this.listener = argumentList[3].value as MessagePort;
    const answer = (value: object) => this.say({ id, type: 'RAW', value });
    if (this.deed === 'answers') setTimeout(() => answer({ ok: 'done' }));
    if (/dies/.test(this.deed)) setTimeout(() => this.die(), 100);
    const looks = /looks|hears/.test(this.deed);
    if (looks)
      this.timer = setInterval(() => {
        if (lookAt(flag) && this.deed === 'hears and stops')
          answer({ failure: { code: 'stopped', sentence: '', ids: [] } });
      }, 50);
  }
  die(): void {
    this.ended = true;
    // As Comlink calls a function of another thread.
    this.listener?.postMessage({
      id: 'late',
      type: 'APPLY',
      path: [],
      argumentList: [{ type: 'RAW', value: {} }],
    });
    clearInterval(this.timer);
    waitingFor.get(this.name)?.();
  }
  terminate(): void {
    this.die();
  }
  start(): void {}
}

beforeEach(() => {
  vi.useFakeTimers();
  workers = [];
  waitingFor.clear();
  vi.stubGlobal('Worker', FakeWorker);
  vi.stubGlobal('navigator', {
    hardwareConcurrency: 2,
    locks: { request: async (name: string, got: () => void) => void waitingFor.set(name, got) },
  });
});
afterEach(() => {
  vi.useRealTimers();
  vi.unstubAllGlobals();
});

const run = (pool: ReturnType<typeof workerPool>, signal = { aborted: false }) =>
  pool.run('warm-up', undefined, { ...unattended, signal }).then(
    (value) => value as unknown,
    (error: HemError) => error,
  );
const seconds = (count: number) => vi.advanceTimersByTimeAsync(1000 * count);

describe('the pool', () => {
  it('tells of a worker that dies at its job, and has the next job done by another', async () => {
    deeds = ['looks and dies', 'answers'];
    const pool = workerPool(1);
    const first = run(pool);
    await seconds(1);
    expect(await first).toMatchObject({ code: 'solver-died' });
    const second = run(pool);
    await seconds(1);
    expect(await second).toBe('done');
    expect(workers.map(({ ended }) => ended)).toEqual([true, false]);
  });

  it('has a job done by another once more where the first died before it had begun, but not for ever', async () => {
    deeds = ['dies', 'answers'];
    const first = run(workerPool(1));
    await seconds(1);
    expect(await first).toBe('done');
    workers = [];
    deeds = ['dies'];
    const second = run(workerPool(1));
    await seconds(1);
    expect(await second).toMatchObject({ code: 'solver-died' });
    expect(workers).toHaveLength(2);
  });

  it('gives no job to one that died while it waited', async () => {
    deeds = ['answers'];
    const pool = workerPool(2);
    pool.start();
    await seconds(1);
    workers[1].die();
    await seconds(1);
    const both = [run(pool), run(pool)];
    await seconds(1);
    expect(await Promise.all(both)).toEqual(['done', 'done']);
    expect(workers).toHaveLength(3);
  });

  it('says when its code does not load, and tries again when it is asked again', async () => {
    deeds = ['does not load', 'answers'];
    const pool = workerPool(1);
    const first = run(pool);
    await seconds(1);
    expect(await first).toMatchObject({ code: 'not-loaded', message: expect.stringMatching(/server/) });
    const second = run(pool);
    await seconds(1);
    expect(await second).toBe('done');
  });

  it('ends a job that does not hear within two seconds that it should stop', async () => {
    deeds = ['never', 'answers'];
    const pool = workerPool(1);
    const signal = { aborted: false };
    let answer: unknown;
    void run(pool, signal).then((value) => {
      answer = value;
    });
    await seconds(10);
    signal.aborted = true;
    await seconds(1.5);
    expect(answer).toBeUndefined();
    await seconds(1);
    expect(answer).toBeInstanceOf(StoppedError);
    expect(workers[0].ended).toBe(true);
    const next = run(pool);
    await seconds(1);
    expect(await next).toBe('done');
  });

  it('hears no more of one that is ended because it can hear no Stop', async () => {
    vi.stubGlobal('SharedArrayBuffer', undefined);
    deeds = ['tells late'];
    const signal = { aborted: false };
    const report = vi.fn();
    const stopped = workerPool(1)
      .run('warm-up', undefined, { signal, report })
      .catch((error: HemError) => error);
    await vi.advanceTimersByTimeAsync(100);
    signal.aborted = true;
    await vi.advanceTimersByTimeAsync(100);
    expect(await stopped).toBeInstanceOf(StoppedError);
    expect(workers[0].ended).toBe(true);
    vi.useRealTimers();
    await new Promise((resolve) => setTimeout(resolve, 50));
    expect(report).not.toHaveBeenCalled();
  });

  it('lets one that has heard come to its end, for half a minute', async () => {
    for (const [deed, within] of [
      ['hears and stops', 1],
      ['hears and goes on', 35],
    ] as const) {
      workers = [];
      deeds = [deed];
      let answer: unknown;
      const before = run(workerPool(1), { aborted: true }).then((value) => {
        answer = value;
      });
      await seconds(within - 10 > 0 ? within - 10 : 0.001);
      expect(answer).toBeUndefined();
      await seconds(11);
      await before;
      expect(answer).toBeInstanceOf(StoppedError);
      expect(workers[0].ended).toBe(deed === 'hears and goes on');
    }
  });

  it('ends one that hangs and that nobody stops, and none that only takes long', async () => {
    deeds = ['never'];
    const hanging = run(workerPool(1));
    await seconds(40);
    expect(await hanging).toMatchObject({ code: 'solver-hung' });
    workers = [];
    deeds = ['looks on'];
    let ended = false;
    void run(workerPool(1)).then(() => {
      ended = true;
    });
    await seconds(600);
    expect(ended).toBe(false);
    expect(workers[0].ended).toBe(false);
    // Writing a large project is long, and looks at nothing meanwhile.
    workers = [];
    deeds = ['never'];
    const signal = { aborted: false };
    const writing = workerPool(1)
      .run('write-project', {} as never, { ...unattended, signal })
      .catch((error: unknown) => error);
    await seconds(600);
    expect(workers[0].ended).toBe(false);
    signal.aborted = true;
    await seconds(3);
    expect(await writing).toBeInstanceOf(StoppedError);
  });
});
