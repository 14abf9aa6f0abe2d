import { worstStretch } from '@blunt-hem/core/measure/worstStretch';
import { scaleLinear } from 'd3-scale';
import { area as areaPath } from 'd3-shape';
import { useMemo } from 'react';
import { decimal } from '../bench/reading.ts';
import { useBench } from '../store/bench.ts';
import type { Pair } from './useTrials.ts';

/** Figures on what lies flat in both; the better one of each pair stands out. */
export function Figures({
  ids,
  pair: { comparison },
}: {
  readonly ids: readonly number[];
  readonly pair: Pair;
}) {
  const trials = useBench((s) => s.trials);
  const rows = ids.map((id) => trials.find((trial) => trial.id === id));
  const [a, b] = comparison.figures;
  const lines: readonly (readonly [string, number, number, (x: number) => string])[] = [
    ['Stretch L2', a.l2, b.l2, (x) => decimal(x, 3)],
    ['Worst stretch', a.linf, b.linf, (x) => decimal(x, 2)],
    ['Angle, on average', a.angleMean, b.angleMean, (x) => `${x.toFixed(1)}°`],
    ['Area, on average', a.areaMean, b.areaMean, (x) => `×${x.toFixed(3)}`],
  ];
  const seconds = (x: number | undefined) => (x === undefined ? '–' : `${x.toFixed(x < 10 ? 1 : 0)} s`);
  return (
    <>
      <table>
        <thead>
          <tr>
            <th>Flat in both</th>
            <th>A</th>
            <th>B</th>
          </tr>
        </thead>
        <tbody>
          {lines.map(([name, one, other, say]) => (
            <tr key={name}>
              <th scope="row">{name}</th>
              <td data-better={say(one) !== say(other) && one < other}>{say(one)}</td>
              <td data-better={say(one) !== say(other) && other < one}>{say(other)}</td>
            </tr>
          ))}
          <tr>
            <th scope="row">Took</th>
            {rows.map((row, i) => (
              <td key={ids[i]}>{seconds(row?.seconds)}</td>
            ))}
          </tr>
        </tbody>
      </table>
      <p className="trials-shares">{inWords(comparison.shares)}</p>
    </>
  );
}

function inWords([first, second, same]: readonly [number, number, number]): string {
  if (first + second + same === 0) return 'No shell lies flat in both: there is nothing to compare.';
  const percent = (part: number) => `${Math.round(100 * part)} %`;
  return `A is better on ${percent(first)} of the surface, B on ${percent(second)}; no difference to be seen on ${percent(same)}.`;
}

const [WIDTH, HEIGHT, BINS] = [300, 84, 60];
/** Natural logarithm at the right end. */
const REACH = Math.log(2);

/** How much of the surface is how far off, of both trials over each other. */
export function Histograms({ pair: { pictures, area, both } }: { readonly pair: Pair }) {
  const curves = useMemo(
    () =>
      pictures.map(({ logArea, angle }) => {
        const bins = new Float64Array(BINS);
        for (let t = 0; t < area.length; t++) {
          if (!both[t]) continue;
          const off = worstStretch(logArea[t], angle[t]) / REACH;
          bins[Math.min(BINS - 1, Math.floor(off * BINS))] += area[t];
        }
        return bins;
      }),
    [pictures, area, both],
  );
  const y = scaleLinear([0, Math.max(1e-12, ...curves[0], ...curves[1])], [HEIGHT, 2]);
  const path = areaPath<number>()
    .x((_, i) => ((i + 0.5) * WIDTH) / BINS)
    .y0(HEIGHT)
    .y1((amount) => y(amount));
  return (
    <figure className="trials-histogram">
      <svg viewBox={`0 0 ${WIDTH} ${HEIGHT}`} role="img" aria-label="How much of the surface is how far off">
        {curves.map((bins, i) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: there are two
          <path key={i} d={path([...bins]) ?? ''} className={`trials-curve-${'ab'[i]}`} />
        ))}
      </svg>
      <div className="legend-ends">
        <span>as long as it should be</span>
        <span>off by ×2</span>
      </div>
    </figure>
  );
}
