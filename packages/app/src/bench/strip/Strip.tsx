import type { Histogram } from '@blunt-hem/core/measure/histogram';
import { scaleLinear } from 'd3-scale';
import { useBench } from '../../store/bench.ts';
import type { Figure } from '../figures/figure.ts';
import { FIGURES } from '../figures/index.ts';
import type { Overlay } from '../overlays/overlay.ts';
import './strip.css';

/** The figures that are always true and always visible; a click selects what causes one. */
export function Strip() {
  const figures = useBench((s) => s.figures);
  const measured = useBench((s) => s.measured);
  return (
    <section className="strip" aria-label="Figures" data-measured={measured}>
      {figures && FIGURES.map((figure) => <FigureButton key={figure.name} figure={figure} />)}
    </section>
  );
}

function FigureButton({ figure }: { readonly figure: Figure }) {
  const figures = useBench((s) => s.figures);
  const readNow = useBench((s) => figure.readNow?.(s));
  const readBefore = useBench((s) => figure.readBefore?.(s));
  const bad = useBench((s) => s.figures && (figure.isBad?.(s.figures.totals, s) ?? false));
  if (!figures) return null;
  const { totals, before } = figures;
  const now = readNow ?? figure.read(totals);
  const was = readBefore ?? figure.read(before);
  return (
    <button
      type="button"
      className="strip-figure"
      data-bad={bad}
      data-testid={`figure-${figure.name.toLowerCase().replaceAll(' ', '-')}`}
      onClick={() => figure.show?.(useBench.getState())}
    >
      <span className="strip-name">{figure.name}</span>
      <span className="strip-value">
        {was !== undefined && now !== undefined && was !== now && (
          <span className="strip-before">{was} → </span>
        )}
        <strong>{now ?? '–'}</strong>
      </span>
      {figure.bars && totals.unfolded > 0 && (
        <Bars histogram={figure.bars.histogram(figures)} overlay={figure.bars.overlay} />
      )}
    </button>
  );
}

const [WIDTH, HEIGHT] = [72, 22];

function Bars({ histogram, overlay }: { readonly histogram: Histogram; readonly overlay: Overlay }) {
  const { counts, from, to } = histogram;
  const x = scaleLinear([0, counts.length], [0, WIDTH]);
  const y = scaleLinear([0, Math.max(...counts, 1e-9)], [0, HEIGHT]);
  const colour = (value: number) => overlay.colour(Math.max(0, Math.min(1, overlay.place(value))));
  return (
    <svg className="strip-bars" width={WIDTH} height={HEIGHT} aria-hidden="true">
      {counts.map((count, i) => (
        <rect
          // biome-ignore lint/suspicious/noArrayIndexKey: bins are told apart by their place
          key={i}
          x={x(i)}
          y={HEIGHT - y(count)}
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
