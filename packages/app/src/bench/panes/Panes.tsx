import { useEffect, useRef, useState } from 'react';
import { useDropzone } from 'react-dropzone';
import { Group, Panel, Separator } from 'react-resizable-panels';
import { useBench } from '../../store/bench.ts';
import { takeImage } from '../../store/checker.ts';
import type { Pane } from '../../store/selection.ts';
import { DragNote, PullNote } from './DragNote.tsx';
import { Frame } from './Frame.tsx';
import { Legend } from './Legend.tsx';
import { Notches } from './Notches.tsx';
import { BoardBar, ModelBar } from './PaneBars.tsx';
import { Partners } from './Partners.tsx';
import { type PaneRenderer, paneRenderer } from './renderer.ts';
import { handle } from './rendererHandle.ts';
import { ShellNumbers } from './ShellNumbers.tsx';
import { Thread } from './Thread.tsx';
import { TileLabels } from './TileLabels.tsx';
import { usePaneHands } from './usePaneHands.ts';
import './panes.css';

/** Model and Board: one canvas behind two panes. */
export function Panes() {
  const canvas = useRef<HTMLCanvasElement>(null);
  const modelPane = useRef<HTMLDivElement>(null);
  const boardPane = useRef<HTMLDivElement>(null);
  const target = useBench((s) => s.target);
  const [undrawn, setUndrawn] = useState<Undrawn>();

  useEffect(() => {
    if (!canvas.current || !modelPane.current || !boardPane.current) return;
    let renderer: PaneRenderer;
    try {
      renderer = paneRenderer(canvas.current, modelPane.current, boardPane.current);
    } catch {
      setUndrawn('none');
      return;
    }
    handle.renderer = renderer;
    const forget = onContextLoss(canvas.current, setUndrawn, renderer.request);
    const resize = new ResizeObserver(renderer.request);
    resize.observe(modelPane.current);
    resize.observe(boardPane.current);
    return () => {
      forget();
      resize.disconnect();
      handle.renderer = undefined;
      renderer.dispose();
    };
  }, []);
  // An image that is dropped is shown as the checker.
  const { getRootProps } = useDropzone({
    onDrop: ([file]) => file && void takeImage(file),
    multiple: false,
    noClick: true,
    noKeyboard: true,
    useFsAccessApi: false,
  });
  usePaneHands('model', modelPane);
  usePaneHands('board', boardPane);

  return (
    <div {...getRootProps({ className: 'panes' })} data-target={target}>
      <canvas ref={canvas} className="panes-canvas" />
      <Split>
        <section className="pane" aria-label="Model">
          <ModelBar />
          <Hands pane="model" here={modelPane} label="Model: drag to turn" />
          <Legend />
        </section>
        <section className="pane" aria-label="Board">
          <Hands pane="board" here={boardPane} label="Board: drag to move the view" />
          {/* Shown above, and come to after: Tab leads from the Model to the Board, and on to its bar. */}
          <BoardBar />
          <TileLabels />
          <ShellNumbers />
          <Notches />
          <Partners />
          <EmptyBoard />
          <GhostNote />
          <DragNote />
          <PullNote />
          <Frame />
        </section>
      </Split>
      <Band />
      <Ring />
      <Thread />
      {undrawn && (
        <p className="panes-undrawn" role="alert">
          {UNDRAWN[undrawn]}
        </p>
      )}
    </div>
  );
}

/** Why nothing is drawn: there is no WebGL, or the graphics card has let go of what it held. */
type Undrawn = 'none' | 'lost';

const UNDRAWN: Readonly<Record<Undrawn, string>> = {
  none: 'This browser draws no WebGL 2, so neither model nor flat shells are seen. Keys, lists, figures and exports work all the same. Switch hardware acceleration on in its settings, or open this page in another browser.',
  lost: 'The graphics card has let go of the picture. It comes back by itself, or after loading the page again: everything up to the last act is kept.',
};

/** Tells when the picture is lost, and draws it anew when it can be. */
function onContextLoss(
  canvas: HTMLCanvasElement,
  tell: (undrawn: Undrawn | undefined) => void,
  draw: () => void,
): () => void {
  const lost = () => tell('lost');
  const restored = () => {
    tell(undefined);
    draw();
  };
  canvas.addEventListener('webglcontextlost', lost);
  canvas.addEventListener('webglcontextrestored', restored);
  return () => {
    canvas.removeEventListener('webglcontextlost', lost);
    canvas.removeEventListener('webglcontextrestored', restored);
  };
}

/** Where a pane takes the pointer and the keys. */
function Hands({
  pane,
  here,
  label,
}: {
  readonly pane: Pane;
  readonly here: React.RefObject<HTMLDivElement | null>;
  readonly label: string;
}) {
  return (
    <div
      className="pane-hands"
      ref={here}
      data-testid={pane}
      // biome-ignore lint/a11y/noNoninteractiveTabindex: all that a pointer does here, keys do
      tabIndex={0}
      role="application"
      aria-label={`${label}, arrow keys to walk, Enter to pick`}
    />
  );
}

/** Model and Board beside each other, the width between them in the artist's hand. */
function Split({
  children: [model, board],
}: {
  readonly children: readonly [React.ReactNode, React.ReactNode];
}) {
  const { split } = useBench.getState();
  return (
    <Group
      className="panes-group"
      onLayoutChanged={({ 'model-side': width }) => useBench.setState({ split: width })}
      defaultLayout={{ 'model-side': split, 'board-side': 100 - split }}
    >
      <Panel id="model-side" minSize="8">
        {model}
      </Panel>
      <Separator className="panes-divider" aria-label="Width of the Model" />
      <Panel id="board-side" minSize="8">
        {board}
      </Panel>
    </Group>
  );
}

/** What to do where nothing lies flat yet. */
function EmptyBoard() {
  const shells = useBench((s) => s.shells);
  const previewed = useBench(
    (s) => s.projectionPreview !== undefined || s.ghost !== undefined || s.proposal !== undefined,
  );
  const all = shells.length;
  if (all === 0 || previewed || shells.some(({ unfolded }) => unfolded)) return null;
  const closed = shells.filter(({ topology }) => topology && !topology.canUnfold).length;
  return (
    <div className="board-empty" role="status">
      <strong>Nothing lies flat yet</strong>
      {closed < all && (
        <p>
          Press <kbd>S</kbd> to unfold {closed > 0 ? 'what is open' : all === 1 ? 'it' : 'all of it'}.
        </p>
      )}
      {closed > 0 && (
        <p>
          {closed === 1 ? 'One piece has' : `${closed} pieces have`} nowhere to open: double-click an edge for
          its loop and press <kbd>A</kbd>, or have closed pieces opened on the left.
        </p>
      )}
    </div>
  );
}

/** What a cut or a sewing would bring, in a line, while its outline is on the Board. */
function GhostNote() {
  const ghost = useBench((s) => s.ghost);
  // A proposal is relaxed once it is cut, and told of as it will lie then.
  const isProposed = useBench((s) => s.proposal !== undefined && s.edges.size === 0);
  if (!ghost) return null;
  return (
    <p className="ghost-note" role="status">
      {ghost.by === 'sew' ? 'Sewn' : isProposed ? 'This cut, relaxed' : 'This cut'}:{' '}
      {ghost.shells === 1 ? 'one shell' : `${ghost.shells} shells`}, L2{' '}
      {ghost.before !== undefined && `${ghost.before.toFixed(3)} → `}
      {ghost.l2.toFixed(3)}
    </p>
  );
}

/** The brush over the flat. */
function Ring() {
  const ring = useBench((s) => (s.tool === 'brush' ? s.ring : undefined));
  if (!ring) return null;
  const [x, y, radius] = ring;
  const style = { left: x - radius, top: y - radius, width: 2 * radius, height: 2 * radius };
  return <div className="pane-ring" style={style} />;
}

/** The outline, or the stroke, under the hand. */
function Outline({ corners }: { readonly corners: readonly number[] }) {
  return (
    <svg className="pane-outline" aria-hidden="true">
      <polyline points={corners.join(' ')} />
    </svg>
  );
}

/** What is drawn by the hand. */
function Band() {
  const band = useBench((s) => s.band);
  const lasso = useBench((s) => s.lasso);
  if (lasso) return <Outline corners={lasso} />;
  if (!band) return null;
  const [x0, y0, x1, y1] = band;
  const style = {
    left: Math.min(x0, x1),
    top: Math.min(y0, y1),
    width: Math.abs(x1 - x0),
    height: Math.abs(y1 - y0),
  };
  return <div className="pane-box" style={style} />;
}
