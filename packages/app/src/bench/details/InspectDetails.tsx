import { plural } from '@blunt-hem/core/plural';
import { Button, Slider } from 'antd';
import { scaleLinear } from 'd3-scale';
import { useMemo, useState } from 'react';
import { note } from '../../store/acts.ts';
import { useBench } from '../../store/bench.ts';
import { select } from '../../store/select.ts';
import { NO_UV } from '../../worker/protocol.ts';
import { area } from '../overlays/area.ts';
import { overlayShown } from '../overlays/index.ts';
import { type Overlay, placeAt } from '../overlays/overlay.ts';
import { LayoutFindings } from './LayoutFindings.tsx';
import { LimitsPanel } from './LimitsPanel.tsx';
import { MeasuredAgainst } from './MeasuredAgainst.tsx';

const [WIDTH, HEIGHT, BINS] = [268, 64, 67];

/** What is wrong with how the model lies flat, and how it is stretched. */
export const InspectDetails = () => (
  <>
    <StretchHistogram />
    <LimitsPanel />
    <LayoutFindings />
  </>
);

/** Maps that tell of the scale of shells, or can. */
const SCALED = new Set(['area', 'density']);

/** The map that is shown, if it has a ramp of figures; else that of area. */
const mapShown = (overlay: Overlay | undefined): Overlay => (overlay?.anchor === undefined ? area : overlay);

/** How the triangles are stretched, by the map that is shown; a range of it selects their faces. */
function StretchHistogram() {
  const shown = useBench((s) => mapShown(overlayShown(s)));
  const against = useBench((s) => s.scaleAgainst);
  const values = useBench((s) => s.figures && shown.values(s));
  const flat = useBench((s) => s.flat);
  const model = useBench((s) => s.model);
  const reach = useBench((s) => s.mapReach);
  const [range, setRange] = useState<readonly [number, number]>([0, 1]);
  const places = useMemo(
    () =>
      values && flat
        ? Float32Array.from(values, (value, t) =>
            flat.uv[6 * t] === NO_UV ? NaN : Math.max(0, Math.min(1, placeAt(shown, reach, value))),
          )
        : new Float32Array(0),
    [values, flat, shown, reach],
  );
  const counts = useMemo(() => {
    const bins = new Uint32Array(BINS);
    for (const place of places)
      if (!Number.isNaN(place)) bins[Math.min(BINS - 1, Math.floor(place * BINS))]++;
    return bins;
  }, [places]);
  if (!model || counts.every((count) => count === 0)) return null;
  const y = scaleLinear([0, Math.sqrt(Math.max(...counts))], [0, HEIGHT]);
  const [from, to] = range;
  const take = (): void => {
    const faces = new Set<number>();
    places.forEach((place, t) => {
      if (place >= from && place <= to) faces.add(model.triangleFace[t]);
    });
    if (faces.size === 0) {
      note('No face lies in that range.');
      return;
    }
    useBench.setState({ target: 'faces', overlay: shown.name });
    select('faces', faces, 'only');
    note(`${plural(faces.size, 'face')} of that range selected.`);
  };
  return (
    <section className="inspect-details" aria-label="Histogram of stretch">
      <h2>{shown.title}</h2>
      {SCALED.has(shown.name) && <MeasuredAgainst />}
      <svg width={WIDTH} height={HEIGHT} role="img" aria-label={`Triangles by ${shown.label.toLowerCase()}`}>
        {[...counts].map((count, i) => {
          const at = (i + 0.5) / BINS;
          return (
            <rect
              // biome-ignore lint/suspicious/noArrayIndexKey: bins are told apart by their place
              key={i}
              x={(i * WIDTH) / BINS}
              y={HEIGHT - y(Math.sqrt(count))}
              width={WIDTH / BINS - 0.5}
              height={y(Math.sqrt(count))}
              fill={shown.colour(at)}
              stroke="var(--soft)"
              strokeWidth={0.4}
              opacity={at >= from && at <= to ? 1 : 0.25}
            />
          );
        })}
      </svg>
      <Slider
        range
        min={0}
        max={1}
        step={0.01}
        value={[from, to]}
        tooltip={{ open: false }}
        ariaLabelForHandle={['Range from', 'Range to']}
        onChange={([a, b]) => setRange([a, b])}
      />
      <div className="legend-ends">
        {['left', 'middle', 'right'].map((end, i) => (
          <span key={end}>{shown.legend?.(reach, against)[i]}</span>
        ))}
      </div>
      <Button size="small" block onClick={take}>
        Select the faces of this range
      </Button>
    </section>
  );
}
