import { useEffect, useMemo, useState } from 'react';
import { useBench } from '../../store/bench.ts';
import { notchesOf } from './notches.ts';
import { handle } from './rendererHandle.ts';
import { onViewChange } from './viewChange.ts';

/** So many notches are shown, of the longest runs first; none on a run that is shorter on screen than this, pixels. */
const [MOST, SHORTEST] = [60, 54];

/** Which border meets which: a small triangle across each run of seam on the Board, with the number of its partner. */
export function Notches() {
  const shown = useBench((s) => s.notches);
  const model = useBench((s) => s.model);
  const flat = useBench((s) => s.flat);
  const isHeld = useBench((s) => s.dragged !== undefined);
  const hovered = useBench((s) => (s.target === 'edges' ? s.hover?.edge : undefined));
  const [, redraw] = useState(0);
  useEffect(() => onViewChange(() => redraw((n) => n + 1)), []);
  const all = useMemo(
    () => (shown && model && flat ? notchesOf(model, flat, flat.uv) : []),
    [shown, model, flat],
  );
  const { renderer } = handle;
  if (!renderer || isHeld || all.length === 0) return null;
  const { u: middleU, v: middleV, scale } = renderer.board.view;
  const lit = all.find(({ edge }) => edge === hovered)?.number;
  const seen = all
    .filter(({ run }) => run * scale >= SHORTEST)
    .sort((a, b) => b.run - a.run)
    .slice(0, 2 * MOST);
  return (
    <div className="notches" aria-hidden="true">
      {seen.map(({ number, u, v, along }, i) => (
        <span
          // Both sides have one number.
          // biome-ignore lint/suspicious/noArrayIndexKey: they have no other
          key={`${number} ${i}`}
          data-lit={number === lit}
          style={{
            left: `calc(50% + ${(u - middleU) * scale}px)`,
            top: `calc(50% - ${(v - middleV) * scale}px)`,
          }}
        >
          <i style={{ transform: `rotate(${-Math.atan2(along[1], along[0])}rad)` }} />
          {number}
        </span>
      ))}
    </div>
  );
}
