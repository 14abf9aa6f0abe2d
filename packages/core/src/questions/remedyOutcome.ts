import { type HemDocument, plainDocument } from '../document/document.ts';
import { HemError } from '../errors.ts';
import { INSPECTIONS } from '../inspect/inspect.ts';
import type { LayoutFinding } from '../inspect/inspection.ts';
import { tryOut } from '../operations/tryOut.ts';
import { about, choice, record } from '../params.ts';
import { type QuestionContext, question } from './question.ts';

/** What a remedy would come to. */
export interface RemedyOutcome {
  readonly before: number;
  readonly after: number;
  /** What there would be more of, as it would be told: “49 stretched shells instead of 6”. */
  readonly worse: readonly string[];
  readonly gains: boolean;
  /** Why it cannot be done, or is not worth while; undefined where it gains. */
  readonly refusal?: string;
}

/** Tries the remedy of a finding, and counts the findings before and after. */
export const remedyOutcome = question({
  name: 'remedy-outcome',
  params: record({
    kind: about('the finding', choice(...INSPECTIONS.map(({ kind }) => kind))),
  }),
  background: true,
  idle: true,
  several: true,
  async answer(document, { kind }, context): Promise<RemedyOutcome | undefined> {
    const findings = await inspected(document, context);
    const finding = findings.find((each) => each.kind === kind);
    if (!finding?.remedy || !('request' in finding.remedy)) return undefined;
    const { label, request } = finding.remedy;
    const before = finding.count;
    let then: readonly LayoutFinding[];
    try {
      then = await inspected(await tryOut(document, request, context), context);
    } catch (error) {
      if (!(error instanceof HemError) || error.code === 'stopped') throw error;
      return { before, after: before, worse: [], gains: false, refusal: error.message };
    }
    const after = then.find((each) => each.kind === kind)?.count ?? 0;
    const raised = then.filter(
      ({ kind: other, count }) => other !== kind && count > countOf(findings, other),
    );
    const worse = raised.map(({ kind: other, title }) => {
      const was = countOf(findings, other);
      return was > 0 ? `${title} instead of ${was.toLocaleString('en-GB')}` : title;
    });
    // What is no graver than what goes may be had in exchange.
    const tooDear =
      raised.some(({ severity }) => severity === 'spoils') ||
      (raised.length > 0 && finding.severity === 'hint');
    const gains = after < before && !tooDear;
    return {
      before,
      after,
      worse,
      gains,
      refusal: gains ? undefined : refusalOf(label, before, after, worse),
    };
  },
});

const countOf = (findings: readonly LayoutFinding[], kind: string): number =>
  findings.find((each) => each.kind === kind)?.count ?? 0;

function refusalOf(label: string, before: number, after: number, worse: readonly string[]): string {
  const made = worse.length > 0 ? ` and would make ${worse.join(', ')}` : '';
  return after < before
    ? `“${label}” would leave ${after.toLocaleString('en-GB')} of ${before.toLocaleString('en-GB')}${made}.`
    : `“${label}” was tried and gains nothing${made}.`;
}

const inspected = async (
  document: HemDocument,
  { jobs, signal }: QuestionContext,
): Promise<readonly LayoutFinding[]> =>
  (await jobs.run('inspect', { document: plainDocument(document) }, { signal, report: () => undefined }))
    .findings;
