import { StoppedError } from './errors.ts';

/** Read often; once true, a long function comes to an end. */
export interface StopSignal {
  readonly aborted: boolean;
}

/** How a long function hears that it should stop and tells how far it is. */
export interface Context {
  /** Once aborted, the function returns the best it has. */
  readonly signal: StopSignal;
  /** Called between steps with what is worth showing. */
  report(progress: Progress): void;
}

export interface Progress {
  /** Part of the work done, 0 to 1, when it can be known. */
  readonly fraction?: number;
  /** The falling figure: an energy or a mean, in the unit of the function that reports it. */
  readonly figure?: number;
  /** The best map so far, for a moving picture: UV per shell vertex, `2 × vertexCount`. */
  readonly uv?: Float64Array;
  /** Rounds of a search that were made so far. */
  readonly rounds?: number;
  /** The best layout so far, for a moving picture: u, v, angle and scale of each shell that is packed, `4 × shellCount`. */
  readonly places?: Float64Array;
}

/** The same for a part of the work, whose progress counts from one part of the whole to another. */
export const share = ({ signal, report }: Context, from: number, to: number): Context => ({
  signal,
  report: (progress) => {
    const { fraction } = progress;
    report(fraction === undefined ? progress : { ...progress, fraction: from + fraction * (to - from) });
  },
});

/** Nobody watches and nobody stops. */
export const unattended: Context = { signal: { aborted: false }, report() {} };

/**
 * For work that has nothing to keep yet; between any two calls lie at most some tens of milliseconds at half a million
 * triangles.
 *
 * @throws StoppedError
 */
export function heedStop(signal: StopSignal | undefined): void {
  if (signal?.aborted) throw new StoppedError();
}

/** A signal that also stops after so many seconds from now. */
export function within(signal: StopSignal, seconds: number): StopSignal {
  const end = Date.now() + 1000 * seconds;
  return {
    get aborted() {
      return signal.aborted || Date.now() > end;
    },
  };
}

declare const setTimeout: (work: () => void) => unknown;

/** Lets whatever else waits in this thread have its turn, a stop among it. */
export const breath = (): Promise<void> => new Promise((resolve) => void setTimeout(resolve));
