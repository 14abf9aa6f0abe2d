/** What the Rack remembers for itself, beside the database. Where nothing can be remembered, it is as on a first visit. */

const remembered = (key: string): string | undefined => {
  try {
    return localStorage.getItem(key) ?? undefined;
  } catch {
    return undefined;
  }
};

const remember = (key: string, value: string): void => {
  try {
    localStorage.setItem(key, value);
  } catch {
    // Asked again next time.
  }
};

const DEMOS_ADDED = 'blunt-hem-demos-added';
const demosAdded = (): boolean => remembered(DEMOS_ADDED) !== undefined;
const rememberDemos = (): void => remember(DEMOS_ADDED, '1');

/**
 * Adds the demos on the first visit, in one tab of those that are open; and on the next visit where that failed.
 *
 * @param add  tells whether they were added
 */
export async function addDemosOnce(
  add: () => Promise<boolean>,
  locks: LockManager = navigator.locks,
): Promise<void> {
  await locks.request(DEMOS_ADDED, async () => {
    if (!demosAdded() && (await add())) rememberDemos();
  });
}

const BACKED_UP = 'blunt-hem-backed-up';
/** When the Rack was last backed up, milliseconds since 1970; 0 when never. */
export const lastBackup = (): number => Number(remembered(BACKED_UP) ?? 0);
export const rememberBackup = (time: number): void => remember(BACKED_UP, String(time));

const REMIND = 'blunt-hem-remind';
export const reminds = (): boolean => remembered(REMIND) !== 'never';
export const rememberReminding = (on: boolean): void => remember(REMIND, on ? 'yes' : 'never');

const DAY = 24 * 3600 * 1000;
/** After so many days without a backup, work that is newer is worth a reminder. */
const OLD = 14;

/**
 * Days since the last backup when work is older than that and newer than the backup; undefined when there is nothing to remind of.
 *
 * @param works  when each project was made, and last changed
 */
export function daysUnsafe(
  works: readonly { readonly created: number; readonly updated: number }[],
  backup: number,
  now: number,
): number | undefined {
  const unsafe = works.filter(({ updated }) => updated > backup);
  if (unsafe.length === 0) return undefined;
  const since = Math.max(backup, Math.min(...unsafe.map(({ created }) => created)));
  const days = Math.floor((now - since) / DAY);
  return days >= OLD ? days : undefined;
}
