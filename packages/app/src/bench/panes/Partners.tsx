import { useEffect, useState } from 'react';
import { useBench } from '../../store/bench.ts';
import { partnersOf } from './partners.ts';
import { handle } from './rendererHandle.ts';
import { onViewChange } from './viewChange.ts';

/** So many selected seams show their partners; with more the Board is full of threads. */
const MOST = 24;

/** A thread from one side of a seam to the other on the Board, for the edge that is pointed at and the selected ones: what sewing them joins. */
export function Partners() {
  const model = useBench((s) => s.model);
  const flat = useBench((s) => s.flat);
  const selected = useBench((s) => s.edges);
  const hovered = useBench((s) => (s.target === 'edges' ? s.hover?.edge : undefined));
  const isHeld = useBench((s) => s.dragged !== undefined || s.pulled !== undefined);
  const [, redraw] = useState(0);
  useEffect(() => onViewChange(() => redraw((n) => n + 1)), []);
  const { renderer } = handle;
  if (!renderer || !model || !flat || isHeld) return null;
  const shown = new Set(selected.size <= MOST ? selected : []);
  if (hovered !== undefined) shown.add(hovered);
  const threads = partnersOf(model, flat, shown);
  if (threads.length === 0) return null;
  const { u: middleU, v: middleV, scale } = renderer.board.view;
  const at = (u: number, v: number) => [(u - middleU) * scale, (middleV - v) * scale] as const;
  return (
    <svg className="pane-partners" aria-hidden="true">
      {threads.map(({ edge, sides }) => {
        const [[x1, y1], [x2, y2]] = sides.map(([u, v]) => at(u, v));
        return (
          <g key={edge} data-lit={edge === hovered}>
            <line className="casing" x1={x1} y1={y1} x2={x2} y2={y2} />
            <line x1={x1} y1={y1} x2={x2} y2={y2} />
            <circle cx={x1} cy={y1} r={3} />
            <circle cx={x2} cy={y2} r={3} />
          </g>
        );
      })}
    </svg>
  );
}
