/**
 * Whether a worker lives. One that runs out of memory, or closes by itself, tells nobody: an error event comes or does not. A lock that
 * it holds for as long as it lives is let go of by the browser in every case, and whoever waits for that lock hears of it (Web Locks API).
 */

interface AliveMessage {
  /** Name of the lock; empty where pages get none. */
  readonly alive: string;
}

/** In a worker, once its code has loaded: says so, and holds a lock from then on. */
export function declareAlive(): void {
  const name = `blunt-hem-worker-${crypto.randomUUID()}`;
  const tell = (alive: string): void => {
    const message: AliveMessage = { alive };
    self.postMessage(message);
  };
  const forLife = () => {
    tell(name);
    return new Promise(() => undefined);
  };
  navigator.locks.request(name, forLife).catch(() => tell(''));
}

/** Why there is no worker: its code never loaded, or it ended. */
export type Death = 'not-loaded' | 'ended';

/**
 * Watches a worker that was just started.
 *
 * @returns resolves when it is dead; never while it lives, however busy it is
 */
export function deathOf(worker: Worker, locks: LockManager = navigator.locks): Promise<Death> {
  return new Promise((resolve) => {
    let loaded = false;
    worker.addEventListener('message', ({ data }: MessageEvent<Partial<AliveMessage> | undefined>) => {
      if (typeof data?.alive !== 'string') return;
      loaded = true;
      if (data.alive !== '') void locks.request(data.alive, () => resolve('ended'));
    });
    worker.addEventListener('error', (event) => {
      // Told here; whoever started the one that started this is not to take it for its own.
      event.preventDefault();
      if (!loaded) resolve('not-loaded');
    });
  });
}

/** What an artist reads when a part of the app did not load. */
export const NOT_LOADED =
  'A part of Blunt Hem could not be loaded: the server that this page came from does not answer. Start it again, then try once more. Nothing was changed.';
