import type { LayoutFinding } from '@blunt-hem/core/inspect/inspection';
import type { OperationName } from '@blunt-hem/core/operations/catalogue';
import type { RemedyOutcome } from '@blunt-hem/core/questions/remedyOutcome';
import { Button } from 'antd';
import { useState } from 'react';
import { fail, note, perform } from '../../store/acts.ts';
import { useBench } from '../../store/bench.ts';
import { selectCut, suggestCut } from '../../store/suggestCut.ts';
import { ask } from '../../store/worker.ts';
import { useAsked } from '../useAsked.ts';

/** On larger models a remedy takes a while, and is tried when the artist asks for it. */
const MOST_TRIANGLES = 60_000;

/** What would help against a finding, tried before it is offered: how many would be left, or why it is not worth while. */
export function RemedyButton({ finding: { kind, remedy } }: { readonly finding: LayoutFinding }) {
  const layout = useBench((s) => s.layout);
  const isSmall = useBench((s) => (s.model?.triangleFace.length ?? 0) <= MOST_TRIANGLES);
  const [outcome, setOutcome] = useState<RemedyOutcome>();
  const isTried = remedy !== undefined && 'request' in remedy;
  useAsked(isTried && isSmall, 'remedy-outcome', { kind }, [layout], setOutcome);
  if (!remedy) return null;
  if ('cutsOf' in remedy)
    return (
      <Button size="small" onClick={() => void suggestCut(remedy.cutsOf)}>
        {remedy.label}
      </Button>
    );
  if ('cut' in remedy)
    return (
      <Button size="small" onClick={() => showCut(remedy.cut)}>
        {remedy.label}
      </Button>
    );
  if (outcome?.refusal) return <p className="finding-refusal">{outcome.refusal}</p>;
  const act = async (): Promise<void> => {
    const found = outcome ?? (await triedNow(kind));
    if (found?.refusal) return note(found.refusal);
    const { operation, params } = remedy.request;
    await perform(operation as OperationName, params as never);
  };
  return (
    <>
      <Button size="small" onClick={() => void act()}>
        {remedy.label}
      </Button>
      {outcome && (
        <span className="finding-outcome">
          {outcome.before.toLocaleString('en-GB')} → {outcome.after.toLocaleString('en-GB')}
          {outcome.worse.length > 0 && `; ${outcome.worse.join(', ')}`}
        </span>
      )}
    </>
  );
}

function showCut(edges: readonly number[]): void {
  selectCut(edges);
  note(`These ${edges.length} edges: A cuts them, Escape lets go of them.`);
}

/** Tries a remedy before it is done; undefined where something newer took its place. */
async function triedNow(kind: string): Promise<RemedyOutcome | undefined> {
  note('It is tried first …');
  try {
    return await ask('remedy-outcome', { kind });
  } catch (error) {
    fail(error);
    return undefined;
  }
}
