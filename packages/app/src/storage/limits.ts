/** How long what was taken off the Rack can be put back, milliseconds. */
export const KEPT_OFF = 30 * 24 * 3600 * 1000;

/** “12 MB”, “1.4 GB”. */
export function megabytes(bytes: number): string {
  const mega = bytes / 1e6;
  if (mega >= 1000) return `${(mega / 1000).toFixed(1)} GB`;
  return mega >= 10 ? `${Math.round(mega)} MB` : `${mega.toFixed(1)} MB`;
}
