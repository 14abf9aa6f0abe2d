import { isTooStretched } from '@blunt-hem/core/document/judgement';
import { Table, type TableProps } from 'antd';
import type { TableRef } from 'antd/es/table';
import { useEffect, useMemo, useRef, useState } from 'react';
import { useBench } from '../../store/bench.ts';
import { select } from '../../store/select.ts';
import type { ShellRow } from '../../worker/protocol.ts';
import { judgements } from '../judging.ts';
import { stageNamed } from '../stages/index.ts';
import { BestCut } from './BestCut.tsx';
import { PlaceFields } from './PlaceFields.tsx';

/** What is selected, and every shell with its figures. */
export function Details() {
  const shells = useBench((s) => s.shells);
  const chosen = useBench((s) => s.chosen);
  const stage = stageNamed(useBench((s) => s.stage));
  const rows = useMemo(() => shells.map((row, shell) => ({ ...row, shell })), [shells]);
  const body = useRef<HTMLDivElement>(null);
  const table = useRef<TableRef>(null);
  const [[width, height], setSize] = useState<readonly [number, number]>([298, 300]);
  useEffect(() => {
    if (!body.current) return;
    const observer = new ResizeObserver(([{ contentRect }]) =>
      setSize([contentRect.width - 2, Math.max(120, contentRect.height - 40)]),
    );
    observer.observe(body.current);
    return () => observer.disconnect();
  }, []);
  // What was chosen elsewhere is brought into view.
  // biome-ignore lint/correctness/useExhaustiveDependencies: what is told of it above takes room from the list
  useEffect(() => {
    const [first] = chosen;
    if (chosen.size === 1) table.current?.scrollTo({ key: first });
  }, [chosen, height]);
  return (
    <aside className="details" aria-label="Details">
      <Selection />
      {stage.Details && <stage.Details />}
      <h2>Shells</h2>
      <div ref={body} className="details-table">
        <Table<NumberedRow>
          ref={table}
          virtual
          showSorterTooltip={false}
          size="small"
          pagination={false}
          rowKey="shell"
          scroll={{ y: height, x: width }}
          dataSource={rows}
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

type NumberedRow = ShellRow & { readonly shell: number };
type Column = NonNullable<TableProps<NumberedRow>['columns']>[number];

/** A figure of a shell: a dash without UVs, dots while it is measured. */
const figure = (
  { unfolded, stretch }: ShellRow,
  text: (s: NonNullable<ShellRow['stretch']>) => string,
): string => (stretch ? text(stretch) : unfolded ? '…' : '–');

const decimal = (value: number, digits: number): string =>
  Number.isFinite(value) ? value.toFixed(digits) : '∞';

const COLUMNS: Column[] = [
  { title: '#', width: 32, render: (_, { shell }) => shell + 1 },
  { title: 'Faces', width: 56, dataIndex: 'faces', sorter: (a, b) => a.faces - b.faces },
  {
    title: 'L2',
    width: 50,
    sorter: (a, b) => (a.stretch?.l2 ?? 0) - (b.stretch?.l2 ?? 0),
    render: (_, row) => figure(row, ({ l2 }) => decimal(l2, 3)),
  },
  {
    title: 'Angle',
    width: 56,
    sorter: (a, b) => (a.stretch?.angleMean ?? 0) - (b.stretch?.angleMean ?? 0),
    render: (_, row) => figure(row, ({ angleMean }) => `${angleMean.toFixed(1)}°`),
  },
  { title: 'State', width: 84, render: (_, { shell }) => <StateWord shell={shell} /> },
];

/** A word and a shape: what is right is round, what wants a look is not. */
function StateWord({ shell }: { readonly shell: number }) {
  const judgement = useBench((s) => judgements(s)[shell]);
  if (!judgement) return null;
  return (
    <span className="state" data-tone={judgement.tone} title={judgement.sentence}>
      {judgement.word}
    </span>
  );
}

const some = (count: number, thing: string): string =>
  count > 0 ? `${count.toLocaleString('en-GB')} ${thing}${count === 1 ? '' : 's'}` : '';

/** What to do next where nothing is selected. */
const HINTS = {
  edges: 'Click an edge, or double-click for its loop, or on triangles for the ring round its place.',
  faces: 'Click a face, or double-click for its piece.',
  shells: 'Click a shell in either pane or in the list.',
} as const;

/** The shell that most wants a cut; -1 when none does. */
function mostStretched(rows: readonly ShellRow[]): number {
  let worst = -1;
  rows.forEach(({ stretch }, i) => {
    if (stretch && isTooStretched(stretch) && !((rows[worst]?.stretch?.l2 ?? 0) >= stretch.l2)) worst = i;
  });
  return worst;
}

function Selection() {
  const target = useBench((s) => s.target);
  const edges = useBench((s) => s.edges.size);
  const faces = useBench((s) => s.faces.size);
  const chosen = useBench((s) => s.chosen);
  const rows = useBench((s) => s.shells);
  const [first] = chosen;
  const row = chosen.size === 1 ? rows[first] : undefined;
  const judgement = useBench((s) => (chosen.size === 1 ? judgements(s)[first] : undefined));
  const stretch = row?.stretch;
  const worst = mostStretched(rows);
  const whole = useBench((s) => (s.target === 'edges' ? (s.hover?.whole?.length ?? 0) : 0));
  return (
    <section className="selection" aria-label="Selection">
      <p data-testid="selection">
        {[some(edges, 'edge'), some(faces, 'face'), some(chosen.size, 'shell')].filter(Boolean).join(', ') ||
          'Nothing selected'}
      </p>
      {edges + faces + chosen.size === 0 && (
        <>
          <p className="selection-hint">
            {whole > 0 ? `A double-click here takes ${whole} edges.` : HINTS[target]}
          </p>
          {worst >= 0 && (
            <dl>
              <dt>Most stretched</dt>
              <dd>
                Shell {worst + 1}, L2 {decimal(rows[worst].stretch?.l2 ?? 0, 2)}
              </dd>
              <BestCut key={rows[worst].name} row={rows[worst]} />
            </dl>
          )}
        </>
      )}
      {row?.verdict && (
        <dl>
          <dt>Verdict</dt>
          <dd>{row.verdict.sentence}</dd>
          {judgement && row.verdict.canUnfold && (
            <>
              <dt>{judgement.word}</dt>
              <dd>{judgement.sentence}</dd>
            </>
          )}
          <BestCut key={row.name} row={row} />
          {stretch && (
            <>
              <dt>Stretch L2 · worst</dt>
              <dd>
                {decimal(stretch.l2, 4)} · {decimal(stretch.linf, 2)}
              </dd>
              <dt>Angle, mean</dt>
              <dd>{stretch.angleMean.toFixed(2)}°</dd>
              <dt>Area, mean</dt>
              <dd>×{stretch.areaMean.toFixed(3)}</dd>
              <dt>Wrong faces</dt>
              <dd>
                {stretch.flipped} flipped, {stretch.collapsed} collapsed, {row.folded ?? 0} folded
                {row.concave
                  ? `, and ${row.concave} that cannot but fold: they are concave on the model`
                  : ''}
              </dd>
            </>
          )}
        </dl>
      )}
      <PlaceFields />
    </section>
  );
}
