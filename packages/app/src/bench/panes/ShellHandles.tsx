import type { UvMatrix } from '@blunt-hem/core/surface/similarity';
import { useEffect, useRef, useState } from 'react';
import { transformShells } from '../../store/actions.ts';
import { useBench } from '../../store/benchStore.ts';
import { handle } from './rendererHandle.ts';

/** Round the selected shells on the Board: a frame, a corner to scale by and a knob to turn by. */
export function ShellHandles() {
  const shells = useBench((s) => s.shells);
  const rows = useBench((s) => s.state?.shells);
  const [, redraw] = useState(0);
  const frame = useRef<HTMLDivElement>(null);

  useEffect(() => {
    const again = () => redraw((n) => n + 1);
    window.addEventListener('hem-board-moved', again);
    window.addEventListener('resize', again);
    return () => {
      window.removeEventListener('hem-board-moved', again);
      window.removeEventListener('resize', again);
    };
  }, []);

  const boxes = [...shells].flatMap((s) => (rows?.[s]?.box ? [rows[s].box] : []));
  const { renderer } = handle;
  const pane = frame.current?.parentElement?.querySelector('.pane-hands')?.getBoundingClientRect();
  const section = frame.current?.parentElement?.getBoundingClientRect();
  if (boxes.length === 0 || !renderer || !pane || !section) return <div ref={frame} hidden />;

  const [u0, v0] = [Math.min(...boxes.map((b) => b[0])), Math.min(...boxes.map((b) => b[1]))];
  const [u1, v1] = [Math.max(...boxes.map((b) => b[2])), Math.max(...boxes.map((b) => b[3]))];
  const { board } = renderer;
  const x = (u: number) => pane.left - section.left + pane.width / 2 + (u - board.u) * board.scale;
  const y = (v: number) => pane.top - section.top + pane.height / 2 - (v - board.v) * board.scale;
  const [mu, mv] = [(u0 + u1) / 2, (v0 + v1) / 2];

  const drag =
    (matrixAt: (dx: number, dy: number, from: readonly [number, number]) => UvMatrix) =>
    (event: React.PointerEvent) => {
      event.preventDefault();
      const [startX, startY] = [event.clientX, event.clientY];
      const from = [startX - section.left - x(mu), startY - section.top - y(mv)] as const;
      const at = (e: PointerEvent) => matrixAt(e.clientX - startX, e.clientY - startY, from);
      const move = (e: PointerEvent) => renderer.previewTransform(useBench.getState().shells, at(e));
      const up = (e: PointerEvent) => {
        window.removeEventListener('pointermove', move);
        window.removeEventListener('pointerup', up);
        void transformShells(at(e));
      };
      window.addEventListener('pointermove', move);
      window.addEventListener('pointerup', up);
    };
  const aboutMiddle = (a: number, b: number): UvMatrix => [
    a,
    b,
    -b,
    a,
    mu - a * mu + b * mv,
    mv - b * mu - a * mv,
  ];
  const scale = drag((dx, dy, [fx, fy]) => {
    const factor = Math.max(0.05, Math.hypot(fx + dx, fy + dy) / Math.hypot(fx, fy));
    return aboutMiddle(factor, 0);
  });
  const turn = drag((dx, dy, [fx, fy]) => {
    const angle = Math.atan2(fy, fx) - Math.atan2(fy + dy, fx + dx);
    return aboutMiddle(Math.cos(angle), Math.sin(angle));
  });
  const style = { left: x(u0), top: y(v1), width: x(u1) - x(u0), height: y(v0) - y(v1) };
  return (
    <div ref={frame} className="handles" style={style}>
      <button
        type="button"
        className="handle handle-scale"
        aria-label="Scale the selected shells"
        onPointerDown={scale}
      />
      <button
        type="button"
        className="handle handle-turn"
        aria-label="Turn the selected shells"
        onPointerDown={turn}
      />
    </div>
  );
}
