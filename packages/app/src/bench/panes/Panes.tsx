import { useEffect, useRef } from 'react';
import { useBench } from '../../store/benchStore.ts';
import { Legend } from './Legend.tsx';
import { moving } from './movingPicture.ts';
import { NoticeBar } from './NoticeBar.tsx';
import { BoardBar, ModelBar } from './PaneBars.tsx';
import { paneRenderer } from './paneRenderer.ts';
import { handle } from './rendererHandle.ts';
import { ShellHandles } from './ShellHandles.tsx';
import { useBoardHands } from './useBoardHands.ts';
import { useModelHands } from './useModelHands.ts';

/** Model and Board: one canvas behind two panes. */
export function Panes() {
  const canvas = useRef<HTMLCanvasElement>(null);
  const modelPane = useRef<HTMLDivElement>(null);
  const boardPane = useRef<HTMLDivElement>(null);
  const box = useRef<HTMLDivElement>(null);
  const split = useBench((s) => s.split);
  const target = useBench((s) => s.target);

  useEffect(() => {
    if (!canvas.current || !modelPane.current || !boardPane.current) return;
    const renderer = paneRenderer(canvas.current, modelPane.current, boardPane.current);
    handle.renderer = renderer;
    moving.show = renderer.setMoving;
    const stop = followStore(renderer);
    const resize = new ResizeObserver(renderer.request);
    resize.observe(modelPane.current);
    resize.observe(boardPane.current);
    return () => {
      resize.disconnect();
      stop();
      moving.show = () => undefined;
      handle.renderer = undefined;
      renderer.dispose();
    };
  }, []);
  useModelHands(modelPane, box);
  useBoardHands(boardPane);

  return (
    <div className="panes" data-target={target}>
      <canvas ref={canvas} className="panes-canvas" />
      <section className="pane" style={{ flexBasis: `${split * 100}%` }} aria-label="Model">
        <ModelBar />
        <div
          className="pane-hands"
          ref={modelPane}
          data-testid="model"
          tabIndex={-1}
          role="application"
          aria-label="Model, drag to turn"
        />
        <div className="pane-box" ref={box} hidden />
        <Legend />
      </section>
      <Divider />
      <section className="pane" style={{ flexBasis: `${(1 - split) * 100}%` }} aria-label="Board">
        <BoardBar />
        <div
          className="pane-hands"
          ref={boardPane}
          data-testid="board"
          tabIndex={-1}
          role="application"
          aria-label="Board, drag to move the view"
        />
        <ShellHandles />
      </section>
      <NoticeBar />
    </div>
  );
}

/** Hands the renderer what changed in the store, and nothing else. */
function followStore(renderer: ReturnType<typeof paneRenderer>): () => void {
  let last: Partial<ReturnType<typeof useBench.getState>> = {};
  const update = () => {
    const s = useBench.getState();
    if (s.model && s.model !== last.model) renderer.setModel(s.model);
    if (s.flat && s.flat !== last.flat) renderer.setFlat(s.flat);
    if (
      s.flat &&
      s.state &&
      (s.flat !== last.flat ||
        s.edges !== last.edges ||
        s.faces !== last.faces ||
        s.shells !== last.shells ||
        s.hover !== last.hover ||
        s.target !== last.target ||
        s.state.hidden !== last.state?.hidden)
    ) {
      renderer.setMarks({
        edges: s.edges,
        faces: s.faces,
        shells: s.shells,
        hoverEdges: s.hover && s.target === 'edges' ? [s.hover.edge] : [],
        hoverFace: s.hover && s.target === 'faces' ? s.hover.face : -1,
        hoverShell: s.hover && s.target === 'shells' ? s.hover.shell : -1,
        hidden: s.state.hidden,
      });
    }
    if (s.parallel !== last.parallel) renderer.setParallel(s.parallel);
    if (
      s.overlay !== last.overlay ||
      s.checker !== last.checker ||
      s.repeats !== last.repeats ||
      s.dark !== last.dark
    ) {
      renderer.setLooks(s);
    }
    last = s;
  };
  update();
  return useBench.subscribe(update);
}

function Divider() {
  const drag = (event: React.PointerEvent<HTMLDivElement>) => {
    const area = event.currentTarget.parentElement as HTMLElement;
    const move = (e: PointerEvent) => {
      const { left, width } = area.getBoundingClientRect();
      useBench.setState({ split: Math.max(0.08, Math.min(0.92, (e.clientX - left) / width)) });
    };
    const up = () => {
      window.removeEventListener('pointermove', move);
      window.removeEventListener('pointerup', up);
    };
    window.addEventListener('pointermove', move);
    window.addEventListener('pointerup', up);
  };
  const split = useBench((s) => s.split);
  const nudge = (by: number) =>
    useBench.setState((s) => ({ split: Math.max(0.08, Math.min(0.92, s.split + by)) }));
  return (
    // biome-ignore lint/a11y/useSemanticElements: a horizontal rule cannot be dragged
    <div
      className="panes-divider"
      role="separator"
      aria-orientation="vertical"
      aria-label="Width of the Model"
      aria-valuenow={Math.round(split * 100)}
      tabIndex={0}
      onPointerDown={drag}
      onDoubleClick={() => useBench.setState({ split: 0.52 })}
      onKeyDown={(event) => {
        if (event.key === 'ArrowLeft') nudge(-0.03);
        if (event.key === 'ArrowRight') nudge(0.03);
      }}
    />
  );
}
