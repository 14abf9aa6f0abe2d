import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { type Condition, NoAnswerError, superviseWorker } from './supervisor.ts';

/** Workers that answer, hang, die or do not load, as a test says. */

type Way = 'answers' | 'hangs' | 'dies when asked' | 'does not load';

let ways: Way[] = [];
let workers: FakeWorker[] = [];
const waitingFor = new Map<string, () => void>();

class FakeWorker extends EventTarget {
  readonly name = `lock-${workers.length}`;
  way = ways[Math.min(workers.length, ways.length - 1)];
  ended = false;
  /** What it has not got round to. */
  private waiting: (() => void)[] = [];

  constructor() {
    super();
    workers.push(this);
    setTimeout(() => {
      if (this.way === 'does not load') this.dispatchEvent(new Event('error', { cancelable: true }));
      else this.dispatchEvent(new MessageEvent('message', { data: { alive: this.name } }));
    });
  }
  postMessage({ id, path }: { id: string; path: string[] }): void {
    if (this.ended || this.way === 'does not load') return;
    const data = { id, type: 'RAW', value: path[0] };
    const answer = () => {
      if (this.way === 'dies when asked' && path[0] !== 'ping') this.die();
      else this.dispatchEvent(new MessageEvent('message', { data }));
    };
    if (this.way === 'hangs') this.waiting.push(answer);
    else setTimeout(answer, 5);
  }
  wake(): void {
    this.way = 'answers';
    for (const answer of this.waiting) answer();
  }
  die(): void {
    this.ended = true;
    waitingFor.get(this.name)?.();
  }
  terminate(): void {
    this.die();
  }
  start(): void {}
}

interface Api {
  ping(): Promise<void>;
  work(): Promise<string>;
}

const supervised = () => {
  const told: Condition[] = [];
  const it = superviseWorker<Api>(
    () => new FakeWorker() as unknown as Worker,
    (condition) => told.push(condition),
  );
  return { ...it, told };
};
const seconds = (count: number) => vi.advanceTimersByTimeAsync(1000 * count);
const outcome = (work: Promise<unknown>) => work.catch((error: unknown) => error);

beforeEach(() => {
  vi.useFakeTimers();
  workers = [];
  waitingFor.clear();
  vi.stubGlobal('navigator', {
    locks: { request: async (name: string, got: () => void) => void waitingFor.set(name, got) },
  });
});
afterEach(() => {
  vi.useRealTimers();
  vi.unstubAllGlobals();
});

describe('a worker that is watched', () => {
  it('is left alone while it answers', async () => {
    ways = ['answers'];
    const { api, told } = supervised();
    await seconds(300);
    const work = api.work();
    await seconds(1);
    expect(await work).toBe('work');
    expect([told, workers.length]).toEqual([[], 1]);
  });

  it('is told to be silent, and started again, when it hangs; whoever asked it hears of it', async () => {
    ways = ['hangs', 'answers'];
    const { api, told } = supervised();
    const asked = outcome(api.work());
    await seconds(10);
    expect(told.at(-1)?.silent).toBeGreaterThanOrEqual(5);
    expect(workers).toHaveLength(1);
    await seconds(30);
    expect(await asked).toMatchObject({ cause: 'hung', message: expect.stringMatching(/started again/) });
    expect(told.at(-1)).toEqual({ restarts: 1, silent: undefined, broken: undefined });
    expect(workers[0].ended).toBe(true);
    const again = api.work();
    await seconds(1);
    expect(await again).toBe('work');
  });

  it('is no longer silent once it answers', async () => {
    ways = ['hangs'];
    const { told } = supervised();
    await seconds(8);
    expect(told.at(-1)?.silent).toBeGreaterThan(0);
    workers[0].wake();
    await seconds(120);
    expect(told.at(-1)).toEqual({ restarts: 0, silent: undefined });
    expect(workers).toHaveLength(1);
  });

  it('is started again when it dies, but not for ever', async () => {
    ways = ['dies when asked'];
    const { api, told, restart } = supervised();
    for (let i = 0; i < 3; i++) {
      const asked = outcome(api.work());
      await seconds(0.1);
      expect(await asked).toBeInstanceOf(NoAnswerError);
    }
    expect(workers).toHaveLength(3);
    expect(told.at(-1)).toMatchObject({ restarts: 2, broken: expect.stringMatching(/Load the page again/) });
    // Nothing is waited for any more.
    expect(await outcome(api.work())).toBeInstanceOf(NoAnswerError);
    ways = ['answers'];
    restart();
    await seconds(1);
    const work = api.work();
    await seconds(1);
    expect(await work).toBe('work');
    expect(told.at(-1)?.broken).toBeUndefined();
  });

  it('says when it does not load, and is tried again when the artist asks for it', async () => {
    ways = ['does not load', 'answers'];
    const { api, told, restart } = supervised();
    const asked = outcome(api.work());
    await seconds(1);
    expect(await asked).toMatchObject({ cause: 'not-loaded', message: expect.stringMatching(/server/) });
    await seconds(60);
    expect(workers).toHaveLength(1);
    restart();
    await seconds(1);
    const work = api.work();
    await seconds(1);
    expect(await work).toBe('work');
    expect(told.at(-1)?.broken).toBeUndefined();
  });

  it('is started again when a stop is not heard within two seconds', async () => {
    ways = ['hangs', 'answers'];
    const { api, stopOrRestart } = supervised();
    const stopped = stopOrRestart(() => api.work());
    await seconds(1.5);
    expect(workers).toHaveLength(1);
    await seconds(1);
    await stopped;
    expect(workers).toHaveLength(2);
    await Promise.all([stopOrRestart(() => api.work()), seconds(5)]);
    expect(workers).toHaveLength(2);
  });
});
