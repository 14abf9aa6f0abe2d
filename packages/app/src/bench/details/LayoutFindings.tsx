import type { LayoutFinding } from '@blunt-hem/core/inspect/inspection';
import { useState } from 'react';
import { useBench } from '../../store/bench.ts';
import { select, selectNothing } from '../../store/select.ts';
import { FindingCard } from '../health/FindingCard.tsx';
import { frameSelection } from '../panes/framing.ts';
import { useAsked } from '../useAsked.ts';
import { RemedyButton } from './RemedyButton.tsx';

/** What is wrong with how the model lies flat, and what would help. */
export function LayoutFindings() {
  const layout = useBench((s) => s.layout);
  const measured = useBench((s) => s.measured);
  const seams = useBench((s) => s.seamsShown);
  const flat = useBench((s) => s.flat);
  const view = useBench((s) => s.lookedAt);
  // It takes rays to know, so only once one inspects.
  useAsked(flat !== undefined, 'seams-shown', { view }, [flat], (seamsShown) =>
    useBench.setState({ seamsShown }),
  );
  const [wasteful, setWasteful] = useState<LayoutFinding>();
  // It packs some times over to know.
  useAsked(flat !== undefined && measured, 'wasteful-shells', { view }, [flat], setWasteful);
  if (!layout) return null;
  const findings = [...layout.findings, ...(seams ? [seams] : []), ...(wasteful ? [wasteful] : [])];
  return (
    <section className="findings" aria-label="Findings" aria-busy={!measured}>
      <h2>Findings</h2>
      {findings.length === 0 && <p className="findings-good">Nothing wrong was found in the flat.</p>}
      <ul>
        {findings.map((finding) => (
          <FindingCard key={finding.kind} finding={finding} show={() => showFinding(finding)}>
            <RemedyButton finding={finding} />
          </FindingCard>
        ))}
      </ul>
    </section>
  );
}

/** Selects what a finding is about and brings it into view in both panes. */
export function showFinding({ faces, edges, shells }: LayoutFinding): void {
  selectNothing();
  const target = faces.length > 0 ? 'faces' : edges.length > 0 ? 'edges' : 'shells';
  useBench.setState({ target });
  select(target, { faces, edges, shells }[target], 'only');
  frameSelection();
}
