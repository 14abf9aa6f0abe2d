import * as Comlink from 'comlink';
import { type Death, deathOf, NOT_LOADED } from '../worker/liveness.ts';

/**
 * Keeps a worker that answers: one that dies, or does not answer any more, is ended and started again, and whatever it was asked is
 * told so instead of waiting for ever.
 */

/** Between two looks whether it still answers, milliseconds. They are counted, so that a machine that slept is not taken for a worker that hangs. */
const BEAT = 1000;
/** Beats without an answer after which that is told, and after which it is started again. */
const [SILENT, HUNG] = [5, 30] as const;
/** One that dies so many times in a row without having answered anything is not started again. */
const TIMES = 3;
/** How long it may take to hear a stop, milliseconds. */
const DEAF = 2000;

/** Why a request was not answered. */
export class NoAnswerError extends Error {
  constructor(
    override readonly cause: Death | 'hung',
    sentence: string,
  ) {
    super(sentence);
  }
}

/** How it is with the worker. */
export interface Condition {
  /** How often it was started again. */
  readonly restarts: number;
  /** Seconds for which it has not answered, once they are worth telling. */
  readonly silent?: number;
  /** Why there is none, where it is not started again by itself. */
  readonly broken?: string;
}

const SENTENCES: Readonly<Record<Death | 'hung', string>> = {
  'not-loaded': NOT_LOADED,
  ended:
    'The part of Blunt Hem that keeps your document broke down and was started again. Everything up to the last act is kept.',
  hung: 'The part of Blunt Hem that keeps your document did not answer and was started again. Everything up to the last act is kept.',
};

const STAYS_DOWN =
  'The part of Blunt Hem that keeps your document breaks down whenever it is started. Everything up to the last act is kept. Load the page again.';

interface Pinged {
  ping(): Promise<void>;
}

interface Incarnation {
  readonly worker: Worker;
  readonly api: Comlink.Remote<Pinged>;
  /** Rejects once nothing will be answered any more. */
  readonly over: Promise<never>;
  end(cause: Death | 'hung'): void;
}

/**
 * @param start  starts a worker; its code calls `declareAlive`
 * @param tell  told whenever its condition changes
 */
export function superviseWorker<Api extends Pinged>(
  start: () => Worker,
  tell: (condition: Condition) => void,
) {
  let condition: Condition = { restarts: 0 };
  /** Deaths since something was answered last. */
  let useless = 0;
  let missed = 0;
  let asking = false;

  const change = (next: Partial<Condition>): void => {
    condition = { ...condition, ...next };
    tell(condition);
  };

  const begin = (): Incarnation => {
    const worker = start();
    let end: Incarnation['end'] = () => undefined;
    const over = new Promise<never>((_, reject) => {
      end = (cause) => reject(new NoAnswerError(cause, SENTENCES[cause]));
    });
    over.catch(() => undefined); // heard by who asks
    const own = { worker, api: Comlink.wrap<Pinged>(worker), over, end };
    void deathOf(worker).then((how) => own === current && replace(how));
    return own;
  };

  /** Ends the worker and starts another, unless that is of no use. */
  const replace = (cause: Death | 'hung'): void => {
    const old = current;
    old.worker.terminate();
    old.end(cause);
    useless++;
    [missed, asking] = [0, false];
    const givesUp = cause === 'not-loaded' || useless >= TIMES;
    // Where it is of no use, whatever is asked is refused until the artist has it started again.
    if (!givesUp) current = begin();
    const broken = givesUp ? (cause === 'not-loaded' ? NOT_LOADED : STAYS_DOWN) : undefined;
    change({ restarts: condition.restarts + (givesUp ? 0 : 1), silent: undefined, broken });
  };

  let current = begin();

  const beat = (): void => {
    if (condition.broken !== undefined) return;
    if (!asking) {
      const own = current;
      asking = true;
      own.api.ping().then(() => {
        if (own !== current) return;
        [missed, asking] = [0, false];
        if (condition.silent !== undefined) change({ silent: undefined });
      });
      return;
    }
    missed++;
    if (missed >= HUNG) replace('hung');
    else if (missed >= SILENT) change({ silent: missed });
  };
  setInterval(beat, BEAT);

  /** Whatever is asked is answered, or it is told why not. */
  const api = new Proxy({} as Api, {
    get: (_, name: string) => {
      if (name === 'then') return undefined;
      return (...words: unknown[]) => {
        const { api, over } = current;
        const ask = (api as unknown as Record<string, (...words: unknown[]) => Promise<unknown>>)[name];
        const answer = ask(...words).then((value) => {
          useless = 0;
          return value;
        });
        return Promise.race([answer, over]);
      };
    },
  });

  return {
    api,
    /** Ends the worker, whatever it does, and starts another. */
    restart(): void {
      useless = 0;
      replace('hung');
    },
    /** Asks for something to stop; a worker that does not hear is started again. */
    async stopOrRestart(work: () => Promise<unknown>): Promise<void> {
      const own = current;
      const heard = work().then(
        () => true,
        () => true,
      );
      const deaf = new Promise<boolean>((resolve) => setTimeout(() => resolve(false), DEAF));
      if (!(await Promise.race([heard, deaf])) && own === current) replace('hung');
    },
  };
}
