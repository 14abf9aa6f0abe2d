import type { Overlay } from '../overlays/overlay.ts';

/** The colours of an overlay with figures at the ends. */
export function Ramp({ overlay: { colour, legend } }: { readonly overlay: Overlay }) {
  const stops = Array.from({ length: 11 }, (_, i) => `${colour(i / 10)} ${10 * i}%`).join(', ');
  return (
    <div className="ramp">
      <div className="legend-ramp" style={{ background: `linear-gradient(to right, ${stops})` }} />
      <div className="legend-ends">
        {legend?.map((words) => (
          <span key={words}>{words}</span>
        ))}
      </div>
    </div>
  );
}
