import { IconLink, IconLock } from '@tabler/icons-react';
import { useEffect, useState } from 'react';
import { useBench } from '../../store/bench.ts';
import { handle } from './rendererHandle.ts';
import { onViewChange } from './viewChange.ts';

/** So many shells get a number, the largest on screen first; none that is smaller than this, pixels. */
const [MOST, SMALLEST] = [80, 26];

/** The number of every shell that is large enough to carry one, on the Board. */
export function ShellNumbers() {
  const shells = useBench((s) => s.shells);
  const hidden = useBench((s) => s.hidden);
  const chosen = useBench((s) => s.chosen);
  const boardLayer = useBench((s) => s.boardLayer);
  const isHeld = useBench((s) => s.dragged !== undefined);
  // Where a projection is previewed, shells lie elsewhere than they do.
  const previewed = useBench((s) => s.projectionPreview !== undefined);
  const [, redraw] = useState(0);
  useEffect(() => onViewChange(() => redraw((n) => n + 1)), []);
  const { renderer } = handle;
  if (!renderer || previewed) return null;
  const { u, v, scale } = renderer.board.view;
  const placed = shells
    .flatMap(({ box, name, locked, group }, shell) => {
      if (!box || hidden[name] || boardLayer?.faces[name] === 0 || (isHeld && chosen.has(shell))) return [];
      const size = scale * Math.min(box[2] - box[0], box[3] - box[1]);
      return size < SMALLEST ? [] : [{ shell, box, size, locked, group }];
    })
    .sort((a, b) => b.size - a.size)
    .slice(0, MOST);
  return (
    <div className="shell-numbers" aria-hidden="true">
      {placed.map(({ shell, box, locked, group }) => (
        <span
          key={shell}
          data-chosen={chosen.has(shell)}
          style={{
            left: `calc(50% + ${((box[0] + box[2]) / 2 - u) * scale}px)`,
            top: `calc(50% - ${((box[1] + box[3]) / 2 - v) * scale}px)`,
          }}
        >
          {shell + 1}
          {locked && <IconLock size={11} />}
          {group > 0 && <IconLink size={11} />}
        </span>
      ))}
    </div>
  );
}
