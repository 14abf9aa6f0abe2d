import { Unzip, UnzipInflate } from 'fflate';

/** Bytes of the zip that are unpacked at a time: deflate makes at most about a thousand times as many of them. */
const STRETCH = 2 ** 14;

/** A zip holds more than it may. */
export class TooMuchError extends Error {}

/**
 * Unpacks a zip piece by piece, and no more of it than allowed. Files that are damaged, or of which a part is missing, are left out.
 * Each lies in a buffer of its own.
 *
 * @param most  bytes that all files together may have
 * @param report  told the part done, 0 to 1
 * @param sizeOf  bytes that a file may have, by its name and what came before it; of a larger one no more is unpacked, and it is left out
 * @throws TooMuchError when it holds more
 */
export function unzipBounded(
  zip: Uint8Array,
  most: number,
  report: (fraction: number) => void = () => undefined,
  sizeOf: (name: string, whole: ReadonlyMap<string, Uint8Array>) => number = () => Infinity,
): Map<string, Uint8Array> {
  const whole = new Map<string, Uint8Array>();
  let left = most;
  const unzip = new Unzip((file) => {
    const parts: Uint8Array[] = [];
    const allowed = sizeOf(file.name, whole);
    const { originalSize = Math.min(left, allowed) } = file;
    // Most are found out before anything is unpacked; those that say they are smaller, as soon as they are not.
    if (originalSize > allowed) return;
    if (originalSize > left) throw new TooMuchError();
    let size = 0;
    let sound = true;
    file.ondata = (error, chunk, final) => {
      size += chunk?.length ?? 0;
      left -= chunk?.length ?? 0;
      if (left < 0) throw new TooMuchError();
      sound &&= !error && size <= originalSize;
      if (!sound) return;
      parts.push(chunk);
      if (final) whole.set(file.name, joined(parts));
    };
    file.start();
  });
  unzip.register(UnzipInflate);
  for (let at = 0; at < zip.length; at += STRETCH) {
    try {
      unzip.push(zip.subarray(at, at + STRETCH), at + STRETCH >= zip.length);
    } catch (error) {
      if (error instanceof TooMuchError) throw error;
      break; // where the next file begins is not known any more
    }
    report(Math.min(1, (at + STRETCH) / zip.length));
  }
  return whole;
}

function joined(parts: readonly Uint8Array[]): Uint8Array {
  const bytes = new Uint8Array(parts.reduce((sum, { length }) => sum + length, 0));
  let at = 0;
  for (const part of parts) {
    bytes.set(part, at);
    at += part.length;
  }
  return bytes;
}
