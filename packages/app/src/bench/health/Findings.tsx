import { IconReportMedical, IconTool } from '@tabler/icons-react';
import { Button, Popconfirm, Progress, Slider } from 'antd';
import { useEffect, useState } from 'react';
import { perform } from '../../store/acts.ts';
import { useBench } from '../../store/bench.ts';
import { examine } from '../../store/examine.ts';
import { NOTHING_SELECTED } from '../../store/selection.ts';
import { ask } from '../../store/worker.ts';
import type { FindingRow } from '../../worker/protocol.ts';
import { frameSelection } from '../panes/framing.ts';
import { FindingCard } from './FindingCard.tsx';
import './findings.css';

/** Selects what a finding is about and brings it into view. */
export function show({ faces, edges }: FindingRow): void {
  useBench.setState({ ...NOTHING_SELECTED, faces: new Set(faces), edges: new Set(edges) });
  frameSelection();
}

/** What was found is not looked for again where its faces say all: rays may have taken a while. */
const repair = ({ kind, faces, repair: cure }: FindingRow) =>
  perform('repair', {
    kind,
    tolerance: useBench.getState().tolerance,
    ...(cure?.ofFaces && { faces: [...faces] }),
  });

/** What the health check found: how many, what it does to the UVs, where, and the repair. */
export function Findings() {
  const health = useBench((s) => s.health);
  const examining = useBench((s) => s.examining);
  const findings = health?.findings;
  const safe = findings?.filter((row) => row.repair?.safe) ?? [];
  return (
    <section className="findings" aria-label="Health">
      <header>
        <h2>Health</h2>
        <Button
          size="small"
          icon={<IconReportMedical size={15} />}
          onClick={() => useBench.setState({ reportOpen: true })}
        >
          Report
        </Button>
      </header>
      {examining !== undefined && (
        <Progress percent={Math.round(100 * examining)} size="small" aria-label="Health check" />
      )}
      {findings?.length === 0 && <p className="findings-good">Nothing wrong was found with this model.</p>}
      {safe.length > 0 && (
        <Button
          type="primary"
          block
          icon={<IconTool size={16} />}
          onClick={() => void perform('repair-safe', { tolerance: useBench.getState().tolerance })}
        >
          Repair all that is safe
        </Button>
      )}
      <ul>
        {findings?.map((row) => (
          <HealthFinding key={row.kind} row={row} />
        ))}
      </ul>
      <Tolerance />
    </section>
  );
}

function HealthFinding({ row }: { readonly row: FindingRow }) {
  const act = () => void repair(row);
  return (
    <FindingCard finding={row} show={() => show(row)}>
      {row.repair?.safe && (
        <Button size="small" onClick={act}>
          {row.repair.label}
        </Button>
      )}
      {row.repair && !row.repair.safe && (
        <Popconfirm
          title={`${row.repair.label}?`}
          description={`${row.title}, marked on the model. One undo takes it back.`}
          okText={row.repair.label}
          cancelText="Leave it"
          onConfirm={act}
          onOpenChange={(open) => open && show(row)}
        >
          <Button size="small">{row.repair.label} …</Button>
        </Popconfirm>
      )}
    </FindingCard>
  );
}

/** Slider steps are decimal orders, so that a hair and a gap are both within reach. */
const toSlider = (tolerance: number) => Math.log10(tolerance);

/** How near two points of open borders must be to count as one, with what it would join. */
function Tolerance() {
  const tolerance = useBench((s) => s.tolerance);
  const model = useBench((s) => s.model);
  const [count, setCount] = useState<number>();
  // biome-ignore lint/correctness/useExhaustiveDependencies: another model has other cracks
  useEffect(() => {
    let current = true;
    const timer = setTimeout(() => {
      void ask('count-finding', { kind: 'cracks', tolerance }).then(
        (n) => current && n !== undefined && setCount(n),
      );
    }, 120);
    return () => {
      current = false;
      clearTimeout(timer);
    };
  }, [tolerance, model]);
  return (
    <div className="findings-tolerance">
      <span id="tolerance-label">Points count as one within {percent(tolerance)} of an edge</span>
      <Slider
        min={-6}
        max={Math.log10(0.5)}
        step={0.05}
        value={toSlider(tolerance)}
        tooltip={{ formatter: (x) => percent(10 ** (x ?? 0)) }}
        ariaLabelledByForHandle="tolerance-label"
        onChange={(x) => useBench.setState({ tolerance: 10 ** x })}
        onChangeComplete={() => void examine()}
      />
      <span data-testid="crack-count">
        {count === undefined ? '…' : `${count.toLocaleString('en-GB')} would be joined`}
      </span>
    </div>
  );
}

const percent = (part: number): string => `${Number((100 * part).toPrecision(2))} %`;
