import { useBench } from '../../store/bench.ts';
import type { Overlay } from '../overlays/overlay.ts';

/**
 * The colours of an overlay with figures at the ends.
 *
 * @param reach  how far the ends are out, as a part of the usual
 */
export function Ramp({ overlay, reach = 1 }: { readonly overlay: Overlay; readonly reach?: number }) {
  const stops = Array.from({ length: 11 }, (_, i) => `${overlay.colour(i / 10)} ${10 * i}%`).join(', ');
  const against = useBench((s) => s.scaleAgainst);
  const [left, middle, right] = overlay.legend?.(reach, against) ?? [];
  return (
    <div className="ramp">
      <div className="legend-ramp" style={{ background: `linear-gradient(to right, ${stops})` }} />
      <div className="legend-ends">
        <span>{left}</span>
        <span>{middle}</span>
        <span>{right}</span>
      </div>
    </div>
  );
}
