import { useBench } from '../../store/benchStore.ts';
import { ANGLE_REACH, angleColour, areaColour } from './shading.ts';

const stops = (colour: (t: number) => string): string =>
  Array.from({ length: 11 }, (_, i) => `${colour(i / 10)} ${10 * i}%`).join(', ');

/** What the colours of the overlay mean. */
export function Legend() {
  const overlay = useBench((s) => s.overlay);
  if (overlay === 'none') return null;
  const area = overlay === 'area';
  return (
    <figure className="legend" aria-label={area ? 'Area stretch' : 'Angle stretch'}>
      <figcaption>{area ? 'Texture on the model' : 'Angle stretch'}</figcaption>
      <div
        className="legend-ramp"
        style={{ background: `linear-gradient(to right, ${stops(area ? areaColour : angleColour)})` }}
      />
      <div className="legend-ends">
        {area ? (
          <>
            <span>squeezed ×2</span>
            <span>even</span>
            <span>stretched ×2</span>
          </>
        ) : (
          <>
            <span>0°</span>
            <span>{ANGLE_REACH / 2}°</span>
            <span>{ANGLE_REACH}°</span>
          </>
        )}
      </div>
    </figure>
  );
}
