import { applyDelta } from '../document/delta.ts';
import type { HemDocument } from '../document/document.ts';
import type { Request } from '../document/request.ts';
import { chosenShells } from '../document/shellChoice.ts';
import { carryOut, request } from '../operations/catalogue.ts';
import type { OperationContext } from '../operations/operation.ts';
import type { WhichShells } from '../params.ts';
import { plural } from '../plural.ts';
import type { Trial } from '../trials/trial.ts';
import { METHODS } from '../unfold/unfold.ts';
import type { Done } from './done.ts';
import type { SessionTrials } from './sessionTrials.ts';

interface Stage {
  readonly trials: SessionTrials;
  document(): HemDocument;
  perform(request: Request): Promise<Done>;
  /** Does something that leaves the document as it is, in its turn among the acts. */
  alone<T>(work: (context: OperationContext) => Promise<T>): Promise<T>;
}

/** What an artist does with trials. */
export const trialActs = ({ trials, document, perform, alone }: Stage) => ({
  /** From the oldest on. */
  get list(): readonly Trial[] {
    return trials.list;
  },
  get: trials.get,
  name: trials.name,
  drop: trials.drop,
  /** Keeps what lies flat now, of the shells of some faces or of all. */
  keep: (name?: string, which: WhichShells = 'all') =>
    trials.keep(document(), name, chosenShells(document(), which)),
  /**
   * Lays shells as they lay in a trial.
   *
   * @param faces  of the shells that are meant; all that are still there when absent
   */
  async take(id: number, faces?: readonly number[]): Promise<Done> {
    const { params, gone } = trials.taking(document(), id, faces);
    const done = await perform({ operation: 'take-trial', params });
    return gone > 0 ? { ...done, notes: [...done.notes, leftOut(gone)] } : done;
  },
  /**
   * Unfolds shells by each method, all at once.
   *
   * @returns the numbers of the trials, in the order of `METHODS`
   */
  tryMethods: (which: WhichShells): Promise<number[]> =>
    alone(async (context) => {
      const [from, since] = [document(), Date.now()];
      const made = await Promise.all(
        METHODS.map(async (method) => {
          const asked = request('unfold', { shells: which, method });
          const { delta, label } = await carryOut(from, asked, context);
          const seconds = (Date.now() - since) / 1000;
          const more = { name: label, kept: false, seconds };
          return trials.add(applyDelta(from, delta), chosenShells(from, which), more);
        }),
      );
      return made.flatMap((trial) => trial?.id ?? []);
    }),
});

const leftOut = (count: number): string =>
  `${plural(count, 'shell')} of the trial ${count === 1 ? 'is' : 'are'} cut otherwise now, and left as ${count === 1 ? 'it is' : 'they are'}.`;
