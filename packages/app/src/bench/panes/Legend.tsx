import { useBench } from '../../store/bench.ts';
import { TEXTURE } from '../../store/checker.ts';
import { overlayNamed } from '../overlays/index.ts';
import { inWords } from '../reading.ts';
import { Ramp } from './Ramp.tsx';

/** What the colours of the overlay mean, and what the face under the pointer has. */
export function Legend() {
  const overlay = overlayNamed(useBench((s) => s.overlay));
  if (!overlay?.legend) return null;
  return (
    <figure className="legend" aria-label={overlay.title}>
      <figcaption>{overlay.title}</figcaption>
      <Ramp overlay={overlay} />
      {['area', 'angle', 'both'].includes(overlay.name) && <Reading />}
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
  const texel = useBench(({ hover, spot }) => (hover && spot ? spot.uv.map(texelOf).join(' × ') : undefined));
  return (
    <p className="legend-reading">
      {words ?? 'Point at a face to read it.'}
      {words && texel && `, texel ${texel} of ${TEXTURE}`}
    </p>
  );
}

const texelOf = (part: number): number => Math.floor(part * TEXTURE);
