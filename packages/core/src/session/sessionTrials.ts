import type { HemDocument } from '../document/document.ts';
import { shellOf, shellsOf } from '../document/document.ts';
import { HemError } from '../errors.ts';
import type { Jobs } from '../jobs/index.ts';
import { figuresOnly, type StretchFigures } from '../measure/sumStretch.ts';
import type { ParamsOf } from '../operations/catalogue.ts';
import { unattended } from '../progress.ts';
import { serial } from '../serial.ts';
import { facesOfShell } from '../surface/shells.ts';
import { meshMark, placesOf, shellNow, type Trial, type TrialShell, trialShells } from '../trials/trial.ts';
import { gone, type TrialPersistence, trialBook } from '../trials/trialBook.ts';

/**
 * The trials of a session: what unfolds and relaxes led to, kept whatever is taken back afterwards.
 *
 * @param tell  told all trials whenever they change
 */
export function sessionTrials(
  start: readonly Trial[],
  persistence: TrialPersistence,
  jobs: Jobs,
  tell: (trials: readonly Trial[]) => void,
) {
  const book = trialBook(start, persistence);
  /** The last one that nobody named, and the document it was made of: what goes on from there takes its place. */
  let last: { readonly id: number; readonly document: HemDocument } | undefined;
  const queue = serial();

  const figuresOf = async (
    document: HemDocument,
    shells: readonly TrialShell[],
  ): Promise<StretchFigures[]> => {
    const tasks = shells.flatMap((each) => {
      const s = shellNow(document, each);
      return s === undefined ? [] : [{ shell: shellOf(document, s), uv: each.uv }];
    });
    const measured = await jobs.run('measure', tasks, unattended);
    return measured.map(({ stretch }) => {
      if (!stretch) throw new HemError('not-measured', 'A trial could not be measured.');
      return figuresOnly(stretch);
    });
  };

  const add = async (
    document: HemDocument,
    shells: readonly number[],
    more: Pick<Trial, 'name' | 'kept' | 'seconds'>,
    replaced?: number,
  ): Promise<Trial | undefined> => {
    const laid = trialShells(document, shells);
    if (laid.length === 0) return undefined;
    const mesh = meshMark(document.model.mesh);
    const known = book.list.find((trial) => trial.id !== replaced && isSame(trial, mesh, laid));
    if (known) {
      if (more.kept) await book.name(known.id, known.name);
      tell(book.list);
      return book.get(known.id);
    }
    const figures = await figuresOf(document, laid);
    const own = { ...more, set: document.currentUv, made: Date.now(), mesh, shells: laid, figures };
    const trial = await book.add(own, replaced);
    tell(book.list);
    return trial;
  };

  return {
    get list(): readonly Trial[] {
      return book.list;
    },
    get: book.get,
    /** Resolves once every act so far has its trial. */
    settled: queue.settled,
    add,

    /**
     * What an act led to becomes a trial. One that goes straight on from the last, relaxed step by step, takes its place.
     *
     * @param since  when the act began, milliseconds since 1970
     */
    made(
      before: HemDocument,
      document: HemDocument,
      name: string,
      shells: readonly number[],
      since: number,
    ): Promise<unknown> {
      const own = (Date.now() - since) / 1000;
      // Whatever became of one, the next is made, and closing does not hang on it.
      return queue.add(async () => {
        const sofar = last?.document === before ? book.get(last.id) : undefined;
        const goesOn = sofar?.name === name && !sofar.kept ? sofar : undefined;
        last = undefined;
        const seconds = own + (goesOn?.seconds ?? 0);
        try {
          const trial = await add(document, shells, { name, kept: false, seconds }, goesOn?.id);
          if (trial) last = { id: trial.id, document };
        } catch (error) {
          // Nobody asked for it: that it could not be stored is no matter while the project is open.
          if (!(error instanceof HemError)) throw error;
          tell(book.list);
        }
      });
    },
    /** Keeps shells as they lie now. */
    async keep(document: HemDocument, name: string | undefined, shells: readonly number[]): Promise<Trial> {
      const trial = await add(document, shells, {
        name: name ?? `By hand ${book.list.length + 1}`,
        kept: true,
      });
      if (!trial)
        throw new HemError('nothing-unfolded', 'Nothing lies flat that could be kept: unfold a shell first.');
      return trial;
    },
    async name(id: number, name: string): Promise<void> {
      await book.name(id, name);
      tell(book.list);
    },
    async drop(id: number): Promise<void> {
      await book.drop(id);
      tell(book.list);
    },
    /**
     * What to ask for to lay shells as they lay in a trial.
     *
     * @param faces  of the shells that are meant; all when absent
     * @returns with how many of its shells are no more, or are cut otherwise
     * @throws HemError when that is all of them, or there is no such trial
     */
    taking(
      document: HemDocument,
      id: number,
      faces?: readonly number[],
    ): { readonly params: ParamsOf<'take-trial'>; readonly gone: number } {
      const trial = book.get(id);
      if (!trial) throw gone();
      const { faceShell } = shellsOf(document);
      const chosen = faces && new Set(faces.map((f) => faceShell[f]));
      const found = placesOf(document, trial);
      const wanted = found.filter(({ s }) => !chosen || chosen.has(s));
      if (wanted.length === 0)
        throw new HemError(
          'no-such-shell',
          found.length === 0
            ? 'The shells of this trial are no more: they are cut otherwise now. Undo the cut, and it fits again.'
            : 'The selected shells are not in this trial.',
        );
      return {
        params: {
          trial: trial.name,
          shells: wanted.map(({ s, uv, method, relaxed }) => ({
            face: facesOfShell(shellsOf(document), s)[0],
            uv: [...uv],
            method,
            relaxed,
          })),
        },
        gone: chosen ? 0 : trial.shells.length - found.length,
      };
    },
  };
}

export type SessionTrials = ReturnType<typeof sessionTrials>;

/** Places nearer than this, tile widths, are one: the same map laid out twice differs by rounding. */
const ROUNDING = 1e-9;

/** Whether shells lie as they do in a trial. */
const isSame = (trial: Trial, mesh: number, laid: readonly TrialShell[]): boolean =>
  trial.mesh === mesh &&
  trial.shells.length === laid.length &&
  trial.shells.every(({ uv, corners }, i) => isNear(corners, laid[i].corners) && isNear(uv, laid[i].uv));

const isNear = (a: Float64Array | Uint32Array, b: Float64Array | Uint32Array): boolean =>
  a.length === b.length && a.every((x, i) => Math.abs(x - b[i]) < ROUNDING);
