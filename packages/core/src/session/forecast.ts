import { applyDelta } from '../document/delta.ts';
import type { HemDocument } from '../document/document.ts';
import type { Request } from '../document/request.ts';
import { HemError } from '../errors.ts';
import type { Jobs } from '../jobs/index.ts';
import { carryOut, type Outcome, operationNamed } from '../operations/catalogue.ts';
import type { OperationContext } from '../operations/operation.ts';

/** One request as it was carried out on one document, or is. */
interface Step {
  readonly from: HemDocument;
  readonly key: string;
  readonly result: Promise<Foreseen>;
}

/** What a request comes to, and the document that it leads to. */
export interface Foreseen extends Outcome {
  readonly request: Request;
  readonly next: HemDocument;
}

interface Preview {
  aborted: boolean;
  /** The first of its steps. */
  step?: Step;
  /** The act that has taken it over: it is stopped with it, and tells how it gets on. */
  by?: OperationContext;
}

/**
 * What an act would lead to, with what it brings with it, worked out before it is done. One at a time, the newest; an act that is the
 * same on the same document takes over what was worked out, or what is being.
 */
export function forecast(jobs: Jobs) {
  let steps: readonly Step[] = [];
  let preview: Preview | undefined;
  /** Whether the steps are all there is to their act. */
  let whole = false;

  const abort = (): void => {
    if (preview && !preview.by) preview.aborted = true;
    preview = undefined;
  };

  const foresee = (from: HemDocument, request: Request, context: OperationContext): Step => {
    const result = carryOut(from, request, context).then(
      (outcome): Foreseen => ({ ...outcome, request, next: applyDelta(from, outcome.delta) }),
    );
    result.catch(() => undefined);
    const step = { from, key: JSON.stringify(request), result };
    steps = [...steps, step];
    return step;
  };
  const stepOf = (document: HemDocument, request: Request): Step | undefined => {
    // What was chosen may be long: it is written out only where there is something to compare it with.
    const candidates = steps.filter(({ from }) => from === document);
    const key = candidates.length > 0 && JSON.stringify(request);
    return candidates.find((step) => step.key === key);
  };

  return {
    /** @returns undefined when a newer one, an act or `abort` ended this one, or it cannot be done */
    async preview(document: HemDocument, request: Request): Promise<HemDocument | undefined> {
      abort();
      const mine: Preview = { aborted: false };
      preview = mine;
      steps = [];
      whole = false;
      const context: OperationContext = {
        signal: {
          get aborted() {
            return mine.aborted || (mine.by?.signal.aborted ?? false);
          },
        },
        jobs,
        report: (progress) => mine.by?.report(progress),
        show: (uvOf) => mine.by?.show?.(uvOf),
      };
      try {
        mine.step = foresee(document, request, context);
        const { next: after, params } = await mine.step.result;
        let now = after;
        for (const follow of operationNamed(request.operation).followUps ?? []) {
          const following = context.signal.aborted ? undefined : follow(after, now, params);
          if (following) now = (await foresee(now, following, context).result).next;
        }
        if (context.signal.aborted) return undefined;
        whole = true;
        return now;
      } catch (error) {
        if (error instanceof HemError) return undefined;
        throw error;
      } finally {
        if (preview === mine) preview = undefined;
      }
    },
    /** Ends the preview that is being worked out; what was worked out stays, for the act. */
    abort,
    /** The same, unless it is of this request: then the act that does it takes it over. */
    yieldTo(document: HemDocument, request: Request, context: OperationContext): void {
      if (preview?.step && preview.step === stepOf(document, request)) preview.by = context;
      else abort();
    },
    /**
     * What a request was found to come to; undefined where nobody foresaw it, or it was ended.
     *
     * @throws HemError when the act that has taken it over was stopped
     */
    async foreseen(
      document: HemDocument,
      request: Request,
      { signal }: OperationContext,
    ): Promise<Foreseen | undefined> {
      try {
        return await stepOf(document, request)?.result;
      } catch (error) {
        if (signal.aborted) throw error;
        return undefined;
      }
    },
    /** A request and all that follows it, as far as there is nothing more to be worked out; undefined otherwise. */
    async all(document: HemDocument, request: Request): Promise<readonly Foreseen[] | undefined> {
      const first = whole ? stepOf(document, request) : undefined;
      return first && first === steps[0] ? Promise.all(steps.map(({ result }) => result)) : undefined;
    },
    /** Forgets what is of any other document. */
    keepOnly(document: HemDocument): void {
      steps = steps.filter(({ from }) => from === document);
    },
  };
}
