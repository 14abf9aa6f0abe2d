import { frameOf, sizeInWords, type Tile, tileOf } from '@blunt-hem/core/surface/tiles';
import { useDrag } from '@use-gesture/react';
import { useBench } from '../../store/bench.ts';
import { overlayNamed } from '../overlays/index.ts';
import type { Overlay } from '../overlays/overlay.ts';
import { inWords } from '../reading.ts';
import { Ramp } from './Ramp.tsx';

/** What the colours of the overlay mean, and what the face under the pointer has. */
export function Legend() {
  const overlay = overlayNamed(useBench((s) => s.overlay));
  if (!overlay?.legend) return null;
  return (
    <figure className="legend" aria-label={overlay.title}>
      <figcaption>{overlay.title}</figcaption>
      {overlay.anchor === undefined ? <Ramp overlay={overlay} /> : <DrawnRamp overlay={overlay} />}
      {['area', 'angle', 'both', 'direction'].includes(overlay.name) && <Reading />}
    </figure>
  );
}

/** How far the ends can be drawn out or in, and by how many pixels they double. */
const [LEAST, MOST, DOUBLING] = [1 / 16, 8, 70];

/** A ramp whose ends are drawn out or in by the hand: to the right they come in, so that small differences show. */
function DrawnRamp({ overlay }: { readonly overlay: Overlay }) {
  const reach = useBench((s) => s.mapReach);
  const put = (next: number) =>
    useBench.setState({ mapReach: Math.max(LEAST, Math.min(MOST, Number(next.toPrecision(3)))) });
  const drag = useDrag(
    ({ movement: [dx], memo = reach }) => {
      put(memo * 2 ** (-dx / DOUBLING));
      return memo;
    },
    // Keys are heard by themselves.
    { pointer: { keys: false } },
  );
  const [, , right] = overlay.legend?.(reach) ?? [];
  return (
    <div
      {...drag()}
      className="legend-drawn"
      role="slider"
      tabIndex={0}
      aria-label="How far the ends of the map are out"
      aria-valuenow={reach}
      aria-valuemin={LEAST}
      aria-valuemax={MOST}
      aria-valuetext={right}
      title="Drag to draw the ends out or in; double-click for the usual"
      onDoubleClick={() => put(1)}
      onKeyDown={(event) => {
        const way = { ArrowRight: -1, ArrowUp: 1, ArrowLeft: 1, ArrowDown: -1 }[event.key];
        if (way === undefined) return;
        event.preventDefault();
        put(useBench.getState().mapReach * 2 ** (way / 4));
      }}
    >
      <Ramp overlay={overlay} reach={reach} />
    </div>
  );
}

function Reading() {
  const words = useBench(({ hover, model, figures, flat }) => {
    if (!hover || !model || !figures || !flat) return undefined;
    const t = model.triangleFace.indexOf(hover.face);
    const { logArea, angle } = figures;
    return t >= 0 && flat.uv[6 * t] > -1e5 ? inWords(logArea[t], angle[t]) : undefined;
  });
  const texel = useBench(({ hover, spot, tiles }) =>
    hover && spot ? texelInWords(tiles, spot.uv) : undefined,
  );
  return (
    <p className="legend-reading">
      {words ?? 'Point at a face to read it.'}
      {words && texel && `, texel ${texel}`}
    </p>
  );
}

/** “1204 × 77 of 2048”, counted from the lower left of its tile. */
function texelInWords(tiles: readonly Tile[], [u, v]: readonly number[]): string {
  const tile = tileOf(tiles, [u, v, u, v]) ?? tiles[0];
  const [left, low] = frameOf(tile);
  const [x, y] = [u - left, v - low].map((part) => Math.floor(part * tile.height));
  return `${x} × ${y} of ${sizeInWords(tile)}`;
}
