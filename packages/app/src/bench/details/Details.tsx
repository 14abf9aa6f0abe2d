import { isTooStretched, type Judgement } from '@blunt-hem/core/document/judgement';
import type { Limits } from '@blunt-hem/core/document/limits';
import { plural } from '@blunt-hem/core/plural';
import type { TargetId } from '@blunt-hem/core/select/targets/index';
import { IconLink, IconLock } from '@tabler/icons-react';
import { Button, Select, Table, type TableProps } from 'antd';
import type { TableRef } from 'antd/es/table';
import { useEffect, useMemo, useRef, useState } from 'react';
import { perform } from '../../store/acts.ts';
import { type BenchStore, useBench } from '../../store/bench.ts';
import { imagesOf, select } from '../../store/select.ts';
import type { ShellRow } from '../../worker/protocol.ts';
import { judgements } from '../judging.ts';
import { densityOf } from '../overlays/against.ts';
import { decimal } from '../reading.ts';
import { stageNamed } from '../stages/index.ts';
import { BestCut } from './BestCut.tsx';
import { DetailsGrip } from './DetailsGrip.tsx';
import { PlaceFields } from './PlaceFields.tsx';
import './details.css';

/** What is selected, and every shell with its figures. */
export function Details() {
  const shells = useBench((s) => s.shells);
  const chosen = useBench((s) => s.chosen);
  const stage = stageNamed(useBench((s) => s.stage));
  const tiles = useBench((s) => s.tiles);
  const told = useBench(judgements);
  const rows = useMemo(
    () =>
      shells.map((row, shell) => ({
        ...row,
        shell,
        word: stateOf(row, told[shell]),
        density: densityOf(row, tiles),
      })),
    [shells, told, tiles],
  );
  const [words, setWords] = useState<readonly string[]>([]);
  const shown = words.length === 0 ? rows : rows.filter(({ word }) => words.includes(word));
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
      <DetailsGrip />
      <Selection />
      {stage.Details && <stage.Details />}
      <h2>
        Shells
        <SetChoice />
      </h2>
      {words.length > 0 && (
        <p className="table-filtered">
          {shown.length.toLocaleString('en-GB')} of {rows.length.toLocaleString('en-GB')}: {words.join(', ')}
          <Button
            size="small"
            onClick={() => {
              useBench.setState({ target: 'shells' });
              select(
                'shells',
                shown.map(({ shell }) => shell),
                'only',
              );
            }}
          >
            Select them
          </Button>
        </p>
      )}
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
          onChange={(_, filters) => setWords((filters.word ?? []).map(String))}
          locale={{ emptyText: 'No shells yet' }}
          rowClassName={({ shell }) => (chosen.has(shell) ? 'row-chosen' : '')}
          onRow={({ shell }) => ({
            onClick: (event) => {
              useBench.setState({ target: 'shells' });
              select('shells', [shell], event.shiftKey ? 'add' : event.altKey ? 'remove' : 'only');
            },
          })}
          columns={columnsWithin(width, rows)}
        />
      </div>
    </aside>
  );
}

/** The UV set that is worked on, where there are several. */
function SetChoice() {
  const sets = useBench((s) => s.uvSets);
  const current = useBench((s) => s.currentUv);
  if (sets.length < 2) return null;
  return (
    <Select
      size="small"
      className="set-choice"
      aria-label="UV set"
      value={current}
      options={sets.map(({ id, name }) => ({ value: id, label: name }))}
      onChange={(set) => void perform('use-uv-set', { set })}
    />
  );
}

type NumberedRow = ShellRow & {
  readonly shell: number;
  readonly word: string;
  /** Texels to a unit of the model. */
  readonly density: number;
};
type Column = NonNullable<TableProps<NumberedRow>['columns']>[number];

type Stretch = NonNullable<ShellRow['stretch']>;

/** A figure of a shell in the list. */
interface ListedFigure {
  readonly title: string;
  readonly width: number;
  read(stretch: Stretch): number;
  text(value: number): string;
  /** How much of its bar a value fills: nothing where all is well. */
  part(value: number): number;
}

const FIGURES: readonly ListedFigure[] = [
  {
    title: 'L2',
    width: 54,
    read: ({ l2 }) => l2,
    text: (value) => decimal(value, 3),
    part: (value) => value - 1,
  },
  {
    title: 'Angle',
    width: 58,
    read: ({ angleMean }) => angleMean,
    text: (value) => `${value.toFixed(1)}°`,
    part: (value) => value / 45,
  },
  {
    title: 'Area',
    width: 58,
    read: ({ areaMean }) => areaMean,
    text: (value) => `×${decimal(value, 2)}`,
    part: (value) => value - 1,
  },
  {
    title: 'Worst',
    width: 60,
    read: ({ linf }) => linf,
    text: (value) => decimal(value, 2),
    part: (value) => Math.log(value) / Math.log(4),
  },
];

/** A value with a bar under it: dashes without UVs, dots while it is measured. */
function FigureCell({
  row: { unfolded, stretch },
  figure,
}: {
  readonly row: ShellRow;
  readonly figure: ListedFigure;
}) {
  if (!stretch) return unfolded ? '…' : '–';
  const value = figure.read(stretch);
  const part = Math.max(0, Math.min(1, figure.part(value)));
  return (
    <span className="figure-bar" style={{ '--part': part } as React.CSSProperties}>
      {figure.text(value)}
    </span>
  );
}

/** Columns with the room that each needs, in the order in which they are shown. */
const COLUMNS: readonly (Column & { readonly width: number })[] = [
  { title: '#', width: 32, fixed: 'left', render: (_, { shell }) => shell + 1 },
  {
    title: 'State',
    width: 112,
    key: 'word',
    sorter: (a, b) => a.word.localeCompare(b.word),
    onFilter: (wanted, { word }) => word === wanted,
    render: (_, { shell }) => <StateWord shell={shell} />,
  },
  ...FIGURES.map((figure) => ({
    title: figure.title,
    width: figure.width,
    sorter: (a: NumberedRow, b: NumberedRow) =>
      (a.stretch ? figure.read(a.stretch) : 0) - (b.stretch ? figure.read(b.stretch) : 0),
    render: (_: unknown, row: NumberedRow) => <FigureCell row={row} figure={figure} />,
  })),
  {
    title: 'Density',
    width: 68,
    sorter: (a, b) => (a.density || 0) - (b.density || 0),
    render: (_, { density }) => (Number.isNaN(density) ? '–' : decimal(density, 1)),
  },
  { title: 'Faces', width: 62, dataIndex: 'faces', sorter: (a, b) => a.faces - b.faces },
];

/** The columns that have room, with the states there are to choose from. */
function columnsWithin(width: number, rows: readonly NumberedRow[]): Column[] {
  let left = width;
  const kept = COLUMNS.filter((column) => {
    left -= column.width;
    return left >= 0;
  });
  const words = [...new Set(rows.map(({ word }) => word))].sort();
  return kept.map((column) =>
    column.key === 'word'
      ? { ...column, filters: words.map((word) => ({ text: word, value: word })) }
      : column,
  );
}

/** What a shell is listed as. */
const stateOf = ({ locked }: ShellRow, judgement: Judgement | undefined): string =>
  locked ? 'Locked' : (judgement?.word ?? '…');

/** A word and a shape: what is right is round, what wants a look is not. */
function StateWord({ shell }: { readonly shell: number }) {
  const judgement = useBench((s) => judgements(s)[shell]);
  const locked = useBench((s) => s.shells[shell]?.locked);
  const isGrouped = useBench((s) => (s.shells[shell]?.group ?? 0) > 0);
  if (!judgement) return null;
  return (
    <span className="state" data-tone={judgement.tone} title={judgement.sentence}>
      {locked && <IconLock size={12} aria-label="Locked:" className="state-lock" />}
      {isGrouped && <IconLink size={12} aria-label="Kept together:" className="state-lock" />}
      {judgement.word}
    </span>
  );
}

const some = (count: number, thing: string): string => (count > 0 ? plural(count, thing) : '');

/** What to do next where nothing is selected. */
const HINTS: Readonly<Record<TargetId, string>> = {
  points: 'Click a point in either pane, or double-click for all of its shell.',
  edges: 'Click an edge, or double-click for its loop, or on triangles for the ring round its place.',
  faces: 'Click a face, or double-click for its piece.',
  shells: 'Click a shell in either pane or in the list.',
};

/** The shell that most wants a cut; -1 when none does. */
function mostStretched(rows: readonly ShellRow[], limits: Limits): number {
  let worst = -1;
  rows.forEach(({ stretch }, i) => {
    if (stretch && isTooStretched(stretch, limits) && !((rows[worst]?.stretch?.l2 ?? 0) >= stretch.l2))
      worst = i;
  });
  return worst;
}

/** Edges that a double click would take, with their counterparts while symmetry is on. */
const takenByDouble = ({ hover, symmetry }: BenchStore): number =>
  !hover?.whole ? 0 : symmetry ? imagesOf(symmetry, 'edges', hover.whole).length : hover.whole.length;

function Selection() {
  const target = useBench((s) => s.target);
  const points = useBench((s) => s.points.size);
  const edges = useBench((s) => s.edges.size);
  const faces = useBench((s) => s.faces.size);
  const chosen = useBench((s) => s.chosen);
  const rows = useBench((s) => s.shells);
  const [first] = chosen;
  const row = chosen.size === 1 ? rows[first] : undefined;
  const judgement = useBench((s) => (chosen.size === 1 ? judgements(s)[first] : undefined));
  const stretch = row?.stretch;
  const limits = useBench((s) => s.limits);
  const worst = mostStretched(rows, limits);
  const whole = useBench((s) => (s.target === 'edges' ? takenByDouble(s) : 0));
  return (
    <section className="selection" aria-label="Selection">
      <p data-testid="selection">
        {[some(points, 'point'), some(edges, 'edge'), some(faces, 'face'), some(chosen.size, 'shell')]
          .filter(Boolean)
          .join(', ') || 'Nothing selected'}
      </p>
      {points + edges + faces + chosen.size === 0 && (
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
      {row?.topology && (
        <dl>
          <dt>Verdict</dt>
          <dd>{row.topology.sentence}</dd>
          {judgement && row.topology.canUnfold && (
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
