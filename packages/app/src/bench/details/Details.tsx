import { Table } from 'antd';
import { useEffect, useRef, useState } from 'react';
import { select } from '../../store/actions.ts';
import { useBench } from '../../store/benchStore.ts';
import type { ShellRow } from '../../worker/protocol.ts';
import { Findings } from '../health/Findings.tsx';

/** What is selected, and every shell with its figures. */
export function Details() {
  const shells = useBench((s) => s.state?.shells);
  const chosen = useBench((s) => s.shells);
  const stage = useBench((s) => s.stage);
  const body = useRef<HTMLDivElement>(null);
  const [height, setHeight] = useState(300);
  useEffect(() => {
    if (!body.current) return;
    const observer = new ResizeObserver(([entry]) => setHeight(Math.max(120, entry.contentRect.height - 40)));
    observer.observe(body.current);
    return () => observer.disconnect();
  }, []);
  return (
    <aside className="details" aria-label="Details">
      <Selection />
      {stage === 'intake' && <Findings />}
      <h2>Shells</h2>
      <div ref={body} className="details-table">
        <Table<ShellRow>
          virtual
          showSorterTooltip={false}
          size="small"
          pagination={false}
          rowKey="shell"
          scroll={{ y: height, x: 288 }}
          dataSource={shells as ShellRow[] | undefined}
          locale={{ emptyText: 'No shells yet' }}
          rowClassName={({ shell }) => (chosen.has(shell) ? 'row-chosen' : '')}
          onRow={({ shell }) => ({
            onClick: (event) => {
              useBench.setState({ target: 'shells' });
              select('shells', [shell], event.shiftKey ? 'add' : event.altKey ? 'remove' : 'only');
            },
          })}
          columns={COLUMNS}
        />
      </div>
    </aside>
  );
}

const figure = (row: ShellRow, value: number, digits: number): string =>
  row.unfolded ? (Number.isFinite(value) ? value.toFixed(digits) : '∞') : '–';

const COLUMNS = [
  { title: '#', width: 34, render: (_: unknown, row: ShellRow) => row.shell + 1 },
  { title: 'Faces', width: 60, dataIndex: 'faces', sorter: (a: ShellRow, b: ShellRow) => a.faces - b.faces },
  {
    title: 'L2',
    width: 58,
    sorter: (a: ShellRow, b: ShellRow) => a.l2 - b.l2,
    render: (_: unknown, row: ShellRow) => figure(row, row.l2, 3),
  },
  {
    title: 'Angle',
    width: 68,
    sorter: (a: ShellRow, b: ShellRow) => a.angleMean - b.angleMean,
    render: (_: unknown, row: ShellRow) => (row.unfolded ? `${row.angleMean.toFixed(1)}°` : '–'),
  },
  { title: 'State', width: 68, render: (_: unknown, row: ShellRow) => <StateWord row={row} /> },
];

/** A word and a shape: what is right is round, what wants a look is not. */
function StateWord({ row }: { readonly row: ShellRow }) {
  const [tone, word] = stateOf(row);
  return (
    <span className="state" data-tone={tone}>
      {word}
    </span>
  );
}

function stateOf(row: ShellRow): readonly [tone: 'good' | 'none' | 'changed' | 'bad', word: string] {
  if (!row.verdict.canUnfold) return ['bad', WORDS[row.verdict.kind]];
  if (!row.unfolded) return ['none', 'Not yet'];
  if (row.flipped > 0) return ['bad', `${row.flipped} flipped`];
  return row.stale ? ['changed', 'Changed'] : ['good', WORDS[row.verdict.kind]];
}

const WORDS: Record<ShellRow['verdict']['kind'], string> = {
  flat: 'Flat',
  tube: 'Tube',
  holes: 'Holes',
  closed: 'Closed',
  handle: 'Handle',
  tangled: 'Tangled',
};

const some = (count: number, thing: string): string =>
  count > 0 ? `${count.toLocaleString('en-GB')} ${thing}${count === 1 ? '' : 's'}` : '';

function Selection() {
  const edges = useBench((s) => s.edges.size);
  const faces = useBench((s) => s.faces.size);
  const chosen = useBench((s) => s.shells);
  const rows = useBench((s) => s.state?.shells);
  const [first] = chosen;
  const row = chosen.size === 1 ? rows?.[first] : undefined;
  return (
    <section className="selection" aria-label="Selection">
      <p data-testid="selection">
        {[some(edges, 'edge'), some(faces, 'face'), some(chosen.size, 'shell')].filter(Boolean).join(', ') ||
          'Nothing selected'}
      </p>
      {row && (
        <dl>
          <dt>Verdict</dt>
          <dd>{row.verdict.sentence}</dd>
          {row.unfolded && (
            <>
              <dt>Stretch L2 · worst</dt>
              <dd>
                {row.l2.toFixed(4)} · {Number.isFinite(row.linf) ? row.linf.toFixed(2) : '∞'}
              </dd>
              <dt>Angle, mean</dt>
              <dd>{row.angleMean.toFixed(2)}°</dd>
              <dt>Area, mean</dt>
              <dd>×{row.areaMean.toFixed(3)}</dd>
            </>
          )}
        </dl>
      )}
    </section>
  );
}
