import { useBench } from '../../store/bench.ts';
import { overlayNamed } from '../overlays/index.ts';

/** What the colours of the overlay mean. */
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
    </figure>
  );
}
