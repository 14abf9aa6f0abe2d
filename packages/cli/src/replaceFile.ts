import { randomBytes } from 'node:crypto';
import { unlinkSync } from 'node:fs';
import { open, realpath, rename, stat, unlink, writeFile } from 'node:fs/promises';
import { dirname } from 'node:path';
import { HemError } from '@blunt-hem/core/errors';

/** Signals that end the command, and are given time to clean up. */
const ENDING = ['SIGINT', 'SIGTERM', 'SIGHUP'] as const;

/**
 * Puts a file in the place of another, or where there is none: written beside it, flushed to the disk, and only then renamed. Whenever
 * the command ends, by whatever signal, the old one is there or the new one, whole. (The packages that do the same write once, and take
 * a write cut short by a full disk for a success.)
 *
 * @param path  links are followed; what is no file, such as a pipe or a device, is written to as it is
 * @throws HemError that says why it could not be
 */
export async function replaceFile(path: string, content: string | Uint8Array): Promise<void> {
  try {
    const target = await realpath(path).catch(() => path);
    const old = await stat(target).catch(() => undefined);
    if (old && !old.isFile()) await writeFile(target, content);
    else await writeBeside(target, content, old?.mode);
  } catch (error) {
    throw writeFailure(path, error as NodeJS.ErrnoException);
  }
}

async function writeBeside(target: string, content: string | Uint8Array, mode?: number): Promise<void> {
  const beside = `${target}.${randomBytes(4).toString('hex')}.part`;
  const cleanUp = (signal: NodeJS.Signals): void => {
    forget();
    try {
      unlinkSync(beside);
    } catch {
      // It was renamed in this moment, or not there yet.
    }
    process.kill(process.pid, signal);
  };
  const forget = (): void => {
    for (const signal of ENDING) process.off(signal, cleanUp);
  };
  for (const signal of ENDING) process.on(signal, cleanUp);
  try {
    const file = await open(beside, 'wx', mode);
    try {
      await file.writeFile(content);
      await file.sync();
    } finally {
      await file.close();
    }
    await rename(beside, target);
    await flushFolder(dirname(target));
  } catch (error) {
    await unlink(beside).catch(() => undefined);
    throw error;
  } finally {
    forget();
  }
}

/** So that the new name lasts as well; not every system can. */
async function flushFolder(folder: string): Promise<void> {
  const handle = await open(folder, 'r').catch(() => undefined);
  await handle?.sync().catch(() => undefined);
  await handle?.close();
}

const NO_ROOM = new Set(['ENOSPC', 'EDQUOT', 'EFBIG']);

/** What an artist reads when a file could not be written. */
export function writeFailure(path: string, { code, message }: NodeJS.ErrnoException): HemError {
  const why = NO_ROOM.has(code ?? '')
    ? 'there is no room left for it. Nothing was changed: make room and try again.'
    : code === 'EACCES' || code === 'EPERM' || code === 'EROFS'
      ? 'its folder may not be written to. Check its permissions.'
      : code === 'ENOENT' || code === 'ENOTDIR'
        ? 'its folder does not exist. Check the name.'
        : code === 'EISDIR'
          ? 'it is a folder. Give it a name that ends as a file does.'
          : `the system says: ${message}.`;
  return new HemError('cannot-write', `${path} cannot be written: ${why}`);
}
