import { scaleLinear } from 'd3-scale';
import { select } from '../../store/actions.ts';
import { type Overlay, useBench } from '../../store/benchStore.ts';
import type { Histogram, ShellRow } from '../../worker/protocol.ts';
import { ANGLE_REACH, AREA_REACH, angleColour, areaColour } from '../panes/shading.ts';

interface Figure {
  readonly name: string;
  readonly now: string;
  readonly before?: string;
  readonly bad?: boolean;
  readonly bars?: { readonly histogram: Histogram; readonly colour: (value: number) => string };
  /** Shows what causes the figure. */
  readonly show?: () => void;
}

const number = (value: number, digits: number): string =>
  Number.isFinite(value) ? value.toFixed(digits) : '∞';

/** The figures that are always true and always visible; a click selects what causes one. */
export function Strip() {
  const state = useBench((s) => s.state);
  const before = useBench((s) => s.before);
  const overlaps = useBench((s) => s.overlaps);
  if (!state) return <section className="strip" aria-label="Figures" />;
  const { totals, shells, areaHistogram, angleHistogram } = state;
  const was = before ?? totals;
  const none = totals.unfolded === 0;
  const pairs = overlaps.faces.length / 2;
  const angleBars = {
    histogram: angleHistogram,
    colour: (value: number) => angleColour(Math.min(1, value / ANGLE_REACH)),
  };
  const areaBars = {
    histogram: areaHistogram,
    colour: (value: number) => areaColour(Math.max(0, Math.min(1, 0.5 - (0.5 * value) / AREA_REACH))),
  };
  const measured = (name: string, field: 'linf' | 'l2' | 'angleMean', digits: number, unit = '') => ({
    name,
    now: none ? '–' : number(totals[field], digits) + unit,
    before: was.unfolded ? number(was[field], digits) + unit : undefined,
  });
  const figures: Figure[] = [
    {
      name: 'Shells',
      now: String(totals.shells),
      before: String(was.shells),
      show: () => showWhere(shells, (row) => row.shell >= 0),
    },
    { ...measured('Worst stretch', 'linf', 2), show: () => showWorst(shells, 'linf', 'area') },
    {
      ...measured('Stretch L2', 'l2', 4),
      bars: none ? undefined : areaBars,
      show: () => showWorst(shells, 'l2', 'area'),
    },
    {
      ...measured('Angle', 'angleMean', 2, '°'),
      bars: none ? undefined : angleBars,
      show: () => showWorst(shells, 'angleMean', 'angle'),
    },
    {
      name: 'Flipped',
      now: none ? '–' : String(totals.flipped),
      before: String(was.flipped),
      bad: totals.flipped > 0,
      show: () => showWhere(shells, (row) => row.flipped > 0),
    },
    {
      name: 'Overlaps',
      now: none ? '–' : `${overlaps.atLeast ? '≥ ' : ''}${pairs.toLocaleString('en-GB')}`,
      bad: pairs > 0,
      show: () => showOverlaps(overlaps.faces),
    },
    {
      name: 'Tile use',
      now: none ? '–' : `${(100 * totals.tileUse).toFixed(0)} %`,
      before: `${(100 * was.tileUse).toFixed(0)} %`,
    },
    {
      name: 'Density',
      now: none ? '–' : totals.densitySpread < 1.005 ? 'even' : `1 : ${totals.densitySpread.toFixed(2)}`,
      bad: totals.densitySpread > 2,
    },
  ];
  return (
    <section className="strip" aria-label="Figures">
      {figures.map((figure) => (
        <button
          type="button"
          key={figure.name}
          className="strip-figure"
          data-bad={figure.bad ?? false}
          data-testid={`figure-${figure.name.toLowerCase().replaceAll(' ', '-')}`}
          onClick={figure.show}
        >
          <span className="strip-name">{figure.name}</span>
          <span className="strip-value">
            {figure.before !== undefined && !none && figure.before !== figure.now && (
              <span className="strip-before">{figure.before} → </span>
            )}
            <strong>{figure.now}</strong>
          </span>
          {figure.bars && <Bars {...figure.bars} />}
        </button>
      ))}
    </section>
  );
}

function Bars({ histogram, colour }: NonNullable<Figure['bars']>) {
  const { counts, from, to } = histogram;
  const [width, height] = [72, 22];
  const x = scaleLinear([0, counts.length], [0, width]);
  const y = scaleLinear([0, Math.max(...counts, 1e-9)], [0, height]);
  return (
    <svg className="strip-bars" width={width} height={height} aria-hidden="true">
      {counts.map((count, i) => (
        <rect
          // biome-ignore lint/suspicious/noArrayIndexKey: bins are told apart by their place
          key={i}
          x={x(i)}
          y={height - y(count)}
          width={x(1) - 0.5}
          height={y(count)}
          fill={colour(from + ((i + 0.5) * (to - from)) / counts.length)}
          stroke="var(--soft)"
          strokeWidth={0.25}
        />
      ))}
    </svg>
  );
}

function showWhere(shells: readonly ShellRow[], test: (row: ShellRow) => boolean): void {
  useBench.setState({ target: 'shells' });
  select(
    'shells',
    shells.filter(test).map(({ shell }) => shell),
    'only',
  );
}

function showWorst(shells: readonly ShellRow[], field: 'linf' | 'l2' | 'angleMean', overlay: Overlay): void {
  const unfolded = shells.filter((row) => row.unfolded);
  if (unfolded.length === 0) return;
  const worst = unfolded.reduce((a, b) => (b[field] > a[field] ? b : a));
  useBench.setState({ overlay });
  showWhere(shells, (row) => row.shell === worst.shell);
}

function showOverlaps(faces: Uint32Array): void {
  const { flat, state } = useBench.getState();
  if (!flat || !state) return;
  const involved = new Set([...faces].map((f) => flat.faceShell[f]));
  showWhere(state.shells, (row) => involved.has(row.shell));
}
