import { counted, fail, note } from './acts.ts';
import { useBench } from './bench.ts';
import { namesOfChosen } from './select.ts';
import { bench, unwrap } from './worker.ts';

const attempt = (work: () => Promise<void>): Promise<void> =>
  counted(() => work().catch((error) => fail(error)));

/** The selected shells, or all when none is. */
const meant = (): 'all' | readonly number[] => {
  const names = namesOfChosen();
  return names.length > 0 ? names : 'all';
};

/** Keeps the selected shells, or all, as they lie now. */
export const keepTrial = (): Promise<void> =>
  attempt(async () => {
    const { name } = unwrap(await bench.keepTrial(undefined, meant()));
    note(`Kept as trial “${name}”.`);
  });

/** Unfolds by both methods and puts the results beside each other; what lies on the Board stays. */
export const tryMethods = (): Promise<void> =>
  attempt(async () => {
    const compared = unwrap(await bench.tryMethods(meant()));
    if (compared.length < 2) {
      note('There is no room to keep both: let some trials go first.');
      return;
    }
    useBench.setState({ compared, trialsOpen: true });
  });

/** @param selectedOnly  lays only the selected shells */
export const takeTrial = (id: number, selectedOnly = false): Promise<void> =>
  attempt(async () => {
    const done = unwrap(await bench.takeTrial(id, selectedOnly ? namesOfChosen() : undefined));
    const { notes, changed, label } = done;
    note([`${label}${changed ? '' : ': it lies so already'}.`, ...notes].join(' '));
  });

export const nameTrial = (id: number, name: string): Promise<void> =>
  attempt(async () => unwrap(await bench.nameTrial(id, name)));

export const dropTrial = (id: number): Promise<void> =>
  attempt(async () => unwrap(await bench.dropTrial(id)));

/** Puts two trials beside each other; the last two when fewer are chosen. */
export function compareTrials(): void {
  const { trials, compared } = useBench.getState();
  const chosen = compared.filter((id) => trials.some((trial) => trial.id === id));
  const others = trials.map(({ id }) => id).filter((id) => !chosen.includes(id));
  const two = [...chosen, ...others.reverse()].slice(0, 2).sort((a, b) => a - b);
  if (two.length < 2) {
    note('Two trials are needed: every unfold and relax leaves one, and C keeps what lies flat now.');
    return;
  }
  useBench.setState({ compared: two, trialsOpen: true });
}

/** Marks a trial to be compared, or no longer; of three the one that was marked first goes. */
export function markCompared(id: number): void {
  useBench.setState(({ compared }) => ({
    compared: compared.includes(id) ? compared.filter((other) => other !== id) : [...compared.slice(-1), id],
  }));
}
