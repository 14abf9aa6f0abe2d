import { byteSize } from '../document/delta.ts';
import { HemError } from '../errors.ts';
import { serial } from '../serial.ts';
import type { Trial } from './trial.ts';

/** Where trials are kept. One that cannot be kept is still there while the project is open. */
export interface TrialPersistence {
  keepTrial(trial: Trial): Promise<void>;
  dropTrial(id: number): Promise<void>;
}

/** Most bytes of all trials of a project. */
export const MOST_TRIAL_BYTES = 2 ** 26;

/** The trials of a project, as many as there is room for: of those that were not kept by hand the oldest go first. */
export function trialBook(start: readonly Trial[], persistence: TrialPersistence, most = MOST_TRIAL_BYTES) {
  const held = new Map(start.map((trial) => [trial.id, trial]));
  const bytes = new Map(start.map((trial) => [trial.id, byteSize(trial)]));
  let next = Math.max(-1, ...held.keys()) + 1;
  /** Writes follow one another, so that what was dropped does not come back. */
  const writes = serial();
  const drop = (id: number): Promise<void> => {
    held.delete(id);
    bytes.delete(id);
    return writes.add(() => persistence.dropTrial(id));
  };
  const total = () => [...bytes.values()].reduce((sum, b) => sum + b, 0);

  return {
    /** From the oldest on. */
    get list(): readonly Trial[] {
      return [...held.values()].sort((a, b) => a.id - b.id);
    },
    get bytes(): number {
      return total();
    },
    get(id: number): Trial | undefined {
      return held.get(id);
    },
    /**
     * @param replaced  a trial that it takes the place of
     * @returns the trial with its number; undefined where there is no room for one that nobody asked for
     * @throws HemError when there is no room for one that is kept by hand
     */
    async add(trial: Omit<Trial, 'id'>, replaced?: number): Promise<Trial | undefined> {
      const size = byteSize(trial);
      const loose = [...held.values()].filter(({ kept, id }) => !kept && id !== replaced);
      const firm = [...held.values()].filter(({ kept }) => kept);
      const room = most - firm.reduce((sum, { id }) => sum + (bytes.get(id) ?? 0), 0);
      if (size > room) {
        if (!trial.kept) return undefined;
        throw new HemError('no-room-for-trial', 'There is no room for another trial: let one go first.');
      }
      const gone = replaced === undefined ? [] : [replaced];
      let left = room - size;
      for (const { id } of loose.sort((a, b) => b.id - a.id)) {
        left -= bytes.get(id) ?? 0;
        if (left < 0) gone.push(id);
      }
      const own: Trial = { ...trial, id: next++ };
      held.set(own.id, own);
      bytes.set(own.id, size);
      await Promise.all([...gone.map(drop), writes.add(() => persistence.keepTrial(own))]);
      return own;
    },
    /** Names a trial, and keeps it from then on. */
    async name(id: number, name: string): Promise<void> {
      const trial = held.get(id);
      if (!trial) throw gone();
      const named = { ...trial, name, kept: true };
      held.set(id, named);
      await writes.add(() => persistence.keepTrial(named));
    },
    async drop(id: number): Promise<void> {
      if (!held.has(id)) throw gone();
      await drop(id);
    },
  };
}

export type TrialBook = ReturnType<typeof trialBook>;

export const gone = () => new HemError('no-such-trial', 'This trial is not kept any more.');
