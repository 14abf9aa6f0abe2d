import { HemError } from '../errors.ts';
import { serial } from '../serial.ts';

/** A newer act took the place of this one before it had anything worth keeping. */
export class SupersededError extends HemError {
  constructor() {
    super('superseded', 'Something newer took its place. Nothing was changed.');
    this.name = 'SupersededError';
  }
}

/** Whether what runs should come to an end, and whether it is for something newer. */
export interface ActSignal {
  aborted: boolean;
  superseded: boolean;
}

export const actSignal = (): ActSignal => ({ aborted: false, superseded: false });

/**
 * Has acts follow one another: a newer one brings what is running to an end.
 *
 * @param onIdle  called each time one has ended
 */
export function actQueue(onIdle: () => void) {
  let running: ActSignal | undefined;
  const acts = serial();
  return {
    /** @throws SupersededError when it was stopped for a newer one */
    add<T>(work: (signal: ActSignal) => Promise<T>, signal = actSignal()): Promise<T> {
      if (running) Object.assign(running, { aborted: true, superseded: true });
      return acts.add(async () => {
        running = signal;
        try {
          return await work(signal);
        } catch (error) {
          if (error instanceof HemError && error.code === 'stopped' && signal.superseded)
            throw new SupersededError();
          throw error;
        } finally {
          if (running === signal) running = undefined;
          onIdle();
        }
      });
    },
    stop(): void {
      if (running) running.aborted = true;
    },
    /** Resolves once what was added until now has ended. */
    settled: acts.settled,
  };
}
