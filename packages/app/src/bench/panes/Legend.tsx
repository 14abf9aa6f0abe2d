import { useBench } from '../../store/bench.ts';
import { overlayNamed } from '../overlays/index.ts';
import { inWords } from '../reading.ts';

/** What the colours of the overlay mean, and what the face under the pointer has. */
export function Legend() {
  const overlay = overlayNamed(useBench((s) => s.overlay));
  if (!overlay?.legend) return null;
  const stops = Array.from({ length: 11 }, (_, i) => `${overlay.colour(i / 10)} ${10 * i}%`).join(', ');
  return (
    <figure className="legend" aria-label={overlay.title}>
      <figcaption>{overlay.title}</figcaption>
      <div className="legend-ramp" style={{ background: `linear-gradient(to right, ${stops})` }} />
      <div className="legend-ends">
        {overlay.legend.map((words) => (
          <span key={words}>{words}</span>
        ))}
      </div>
      {(overlay.name === 'area' || overlay.name === 'angle') && <Reading />}
    </figure>
  );
}

function Reading() {
  const words = useBench(({ hover, model, figures, flat }) => {
    if (!hover || !model || !figures || !flat) return undefined;
    const t = model.triangleFace.indexOf(hover.face);
    const { logArea, angle } = figures;
    return t >= 0 && flat.uv[6 * t] > -1e5 ? inWords(logArea[t], angle[t]) : undefined;
  });
  return <p className="legend-reading">{words ?? 'Point at a face to read it.'}</p>;
}
