import { byteSize } from '@blunt-hem/core/document/delta';
import { HemError } from '@blunt-hem/core/errors';
import type { Project } from '@blunt-hem/core/persistence/projectFile';
import { megabytes } from './limits.ts';

/** What the browser keeps for this page, bytes. */
export interface Room {
  readonly used: number;
  /** Most that it lets the page keep; an estimate, as browsers give it. */
  readonly most: number;
  /** Whether the browser has promised not to clear it by itself. */
  readonly safe: boolean;
}

/** @returns undefined where the browser does not tell */
export async function roomLeft(storage: StorageManager = navigator.storage): Promise<Room | undefined> {
  try {
    const { usage, quota } = await storage.estimate();
    if (usage === undefined || quota === undefined) return undefined;
    return { used: usage, most: quota, safe: await storage.persisted() };
  } catch {
    return undefined;
  }
}

/** For rows, indices and what the browser writes beside them. */
const BESIDE = 1.1;

/** Bytes that a project takes in the store. */
export const roomFor = ({ document, history }: Project): number =>
  Math.ceil(BESIDE * (byteSize(document) + byteSize(history.acts)));

/** @throws HemError when a project will need more than the browser has left */
export function checkRoom(project: Project, room: Room | undefined): void {
  const need = roomFor(project);
  if (!room || need <= room.most - room.used) return;
  throw new HemError(
    'no-room',
    `This model takes about ${megabytes(need)} to keep, and the browser has ${megabytes(Math.max(0, room.most - room.used))} left for this page. Make room on the Rack first, or open it without keeping it.`,
  );
}
