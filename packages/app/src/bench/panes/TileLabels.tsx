import { frameOf, sizeInWords } from '@blunt-hem/core/surface/tiles';
import { useEffect, useState } from 'react';
import { useBench } from '../../store/bench.ts';
import { handle } from './rendererHandle.ts';
import { onViewChange } from './viewChange.ts';

/** Tiles smaller than this on screen are not told, pixels. */
const SMALLEST = 70;

/** Under every tile of the Board its number, the size of its texture and how full it is. */
export function TileLabels() {
  const tiles = useBench((s) => s.tiles);
  const covered = useBench((s) => s.layout?.covered);
  const [, redraw] = useState(0);
  useEffect(() => onViewChange(() => redraw((n) => n + 1)), []);
  const { renderer } = handle;
  if (!renderer) return null;
  const { u, v, scale } = renderer.board.view;
  return (
    <div className="tile-labels" aria-hidden="true">
      {tiles.map((tile, i) => {
        const [left, low, right] = frameOf(tile);
        const width = (right - left) * scale;
        if (width < SMALLEST) return null;
        return (
          <span
            key={tile.number}
            style={{
              left: `calc(50% + ${(left - u) * scale}px)`,
              top: `calc(50% - ${(low - v) * scale}px)`,
              maxWidth: width,
            }}
          >
            {[
              tile.number,
              `${sizeInWords(tile)} px`,
              ...(covered?.[i] === undefined ? [] : [`${(100 * covered[i]).toFixed(0)} %`]),
            ].join(' · ')}
          </span>
        );
      })}
    </div>
  );
}
