import { Vector3 } from 'three';
import { useBench } from '../../store/bench.ts';
import { pageOf, paneElement } from './places.ts';
import { handle } from './rendererHandle.ts';

/** A thread from the place that is pointed at to the same place in the other pane, while one inspects. */
export function Thread() {
  const spot = useBench((s) => (s.stage === 'inspect' && s.hover ? s.spot : undefined));
  const { renderer } = handle;
  if (!spot || !renderer) return null;
  const flat = pageOf(...spot.uv);
  const seen = renderer.model.project(new Vector3(...spot.solid));
  const { left, top, width, height } = paneElement('model').getBoundingClientRect();
  const solid = [left + ((seen.x + 1) / 2) * width, top + ((1 - seen.y) / 2) * height];
  if (!flat) return null;
  const ends = [solid, flat];
  return (
    <svg className="pane-thread" aria-hidden="true">
      {['casing', 'thread'].map((part) => (
        <line key={part} className={part} x1={solid[0]} y1={solid[1]} x2={flat[0]} y2={flat[1]} />
      ))}
      {ends.map(([x, y], i) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: there are two
        <circle key={i} cx={x} cy={y} r={4} />
      ))}
    </svg>
  );
}
