import { openDocument } from '@blunt-hem/core/document/document';
import { localJobs } from '@blunt-hem/core/jobs/index';
import { modelFromMesh } from '@blunt-hem/core/mesh/model';
import { unattended } from '@blunt-hem/core/progress';
import { cube } from '@blunt-hem/core/testing/shapes';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { handController } from './handController.ts';
import { type Parcel, receiver, sharing } from './sharedInput.ts';

let workers: FakeWorker[] = [];
const waitingFor = new Map<string, () => void>();

/** Answers with the document it was sent, but for the first of those that are to hang or die. */
class FakeWorker extends EventTarget {
  static deeds: ('answers' | 'hangs' | 'dies' | 'does not load')[] = [];
  readonly name = `hand-${workers.length}`;
  readonly deed = FakeWorker.deeds[workers.length] ?? 'answers';
  readonly receive = receiver();
  readonly called: string[] = [];
  ended = false;

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
  postMessage({
    id,
    path,
    argumentList,
  }: {
    id: string;
    path: string[];
    argumentList: { value: unknown }[];
  }): void {
    this.called.push(path[0]);
    if (path[0] !== 'answer') return;
    const sent = this.receive(argumentList[2].value as Parcel);
    if (this.deed === 'answers') setTimeout(() => this.say({ id, type: 'RAW', value: { ok: sent } }));
    if (this.deed === 'dies') setTimeout(() => waitingFor.get(this.name)?.(), 20);
  }
  terminate(): void {
    this.ended = true;
  }
  start(): void {}
}

beforeEach(() => {
  vi.useFakeTimers();
  workers = [];
  FakeWorker.deeds = [];
  vi.stubGlobal('Worker', FakeWorker);
  vi.stubGlobal('navigator', {
    locks: { request: async (name: string, got: () => void) => void waitingFor.set(name, got) },
  });
});
afterEach(() => {
  vi.useRealTimers();
  vi.unstubAllGlobals();
});

const document = openDocument(modelFromMesh('Cube', cube()));

function asked(signal = { aborted: false }) {
  const hands = handController(sharing());
  const ask = (of = document) =>
    hands
      .answer(of, 'moved-pin', { vertex: 0, face: 0, uv: [0, 0] }, { ...unattended, signal, jobs: localJobs })
      .then(
        (found) => (found as unknown as { document: typeof document }).document,
        (error: Error) => error.message,
      );
  return { hands, ask };
}

describe('the hand worker', () => {
  it('is started when it is first asked, and has the same document as long as it is open', async () => {
    const { hands, ask } = asked();
    expect(workers).toHaveLength(0);
    const answers = Promise.all([ask(), ask(), ask({ ...document, placed: 1 })]);
    await vi.runAllTimersAsync();
    const [first, second, other] = await answers;
    expect(workers).toHaveLength(1);
    expect(second).toBe(first);
    expect(other).toMatchObject({ placed: 1 });
    hands.keepOnly(document);
    hands.keepOnly();
    expect(workers[0].called).toEqual(['answer', 'answer', 'answer', 'rest']);
  });

  it('that hangs is ended once nobody wants its answer any more, and the next question has another', async () => {
    FakeWorker.deeds = ['hangs'];
    const signal = { aborted: false };
    const { ask } = asked(signal);
    const hung = ask();
    await vi.advanceTimersByTimeAsync(60_000);
    expect(workers[0].ended).toBe(false);
    signal.aborted = true;
    await vi.advanceTimersByTimeAsync(2_100);
    expect(await hung).toMatch(/stopped/i);
    expect(workers[0].ended).toBe(true);
    signal.aborted = false;
    const next = ask();
    await vi.advanceTimersByTimeAsync(10);
    expect(await next).toMatchObject({ placed: 0 });
    expect(workers).toHaveLength(2);
  });

  it.each([
    ['dies', /broke down and was started again/],
    ['does not load', /could not be loaded: the server/],
  ] as const)('that %s says so, and the next question has another', async (deed, sentence) => {
    FakeWorker.deeds = [deed];
    const { ask } = asked();
    const lost = ask();
    await vi.advanceTimersByTimeAsync(100);
    expect(await lost).toMatch(sentence);
    const next = ask();
    await vi.advanceTimersByTimeAsync(100);
    expect(await next).toMatchObject({ placed: 0 });
    expect(workers).toHaveLength(2);
  });
});
