import { HemError } from '@blunt-hem/core/errors';

const CLOSED: readonly string[] = [
  'DatabaseClosedError',
  'InvalidStateError',
  'OpenFailedError',
  'VersionError',
];

/** Why nothing could be written, by what the browser calls it, and what an artist can do. */
const CAUSES: readonly { readonly names: readonly string[]; readonly code: string; readonly why: string }[] =
  [
    {
      names: ['QuotaExceededError'],
      code: 'store-full',
      why: 'the browser gives this page no more room. Empty what is off the Rack, or export projects and delete them',
    },
    {
      names: CLOSED,
      code: 'store-closed',
      why: 'the store was closed, by the browser or by a later Blunt Hem in another tab. Export this project, then load the page again',
    },
    {
      names: ['DataCloneError', 'RangeError'],
      code: 'store-too-large',
      why: 'it is too large for the browser to store. Export this project',
    },
  ];

/** Errors that an error wraps, itself first. */
function* within(error: unknown): Generator<{ name?: string; message?: string }> {
  for (let each = error as { inner?: unknown; cause?: unknown } | undefined; each; ) {
    yield each as Error;
    each = (each.inner ?? each.cause) as typeof each;
  }
}

/** Whether an error says that the store as a whole cannot be got at, rather than one value in it. */
export const isClosed = (error: unknown): boolean =>
  [...within(error)].some(({ name }) => name !== undefined && CLOSED.includes(name));

const ACT = 'This could not be saved, so it was not done';

/** What an artist reads when something could not be written. */
function writeFailure(error: unknown, what: string): HemError {
  const all = [...within(error)];
  for (const { names, code, why } of CAUSES)
    if (all.some(({ name }) => name !== undefined && names.includes(name))) return notSaved(code, why, what);
  const last = all.at(-1);
  return notSaved(
    'not-saved',
    `the browser refused it (${last?.name ?? 'unknown'}). Export this project, then load the page again`,
    what,
  );
}

export const notSaved = (code: string, why: string, what = ACT): HemError =>
  new HemError(code, `${what}: ${why}.`);

/**
 * @param what  did not come about, if it fails
 * @throws HemError that tells why the browser did not store it
 */
export async function saving<T>(work: PromiseLike<T>, what = ACT): Promise<T> {
  try {
    return await work;
  } catch (error) {
    if (error instanceof HemError) throw error;
    throw writeFailure(error, what);
  }
}
