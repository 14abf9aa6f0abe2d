import { IconX } from '@tabler/icons-react';
import { useGesture } from '@use-gesture/react';
import { Button, Segmented, Select } from 'antd';
import { useEffect, useRef, useState } from 'react';
import { angle } from '../bench/overlays/angle.ts';
import { area } from '../bench/overlays/area.ts';
import { both } from '../bench/overlays/both.ts';
import type { Overlay } from '../bench/overlays/overlay.ts';
import { Ramp } from '../bench/panes/Ramp.tsx';
import { handle } from '../bench/panes/rendererHandle.ts';
import { useBench } from '../store/bench.ts';
import { takeTrial } from '../store/trials.ts';
import type { ModelBuffers } from '../worker/protocol.ts';
import { NO_UV } from '../worker/protocol.ts';
import { better } from './better.ts';
import { Figures, Histograms } from './Figures.tsx';
import { type TrialRenderer, trialRenderer } from './trialRenderer.ts';
import './trials.css';
import { type Pair, useTrials } from './useTrials.ts';

const NO_MAP = 'checker';
const MAPS: readonly Overlay[] = [area, angle, both];
const LETTERS = ['A', 'B'] as const;

/** Two trials beside each other, and where which of them is better. */
export function TrialsView() {
  const model = useBench((s) => s.model);
  const trials = useBench((s) => s.trials);
  const compared = useBench((s) => s.compared);
  const close = () => useBench.setState({ trialsOpen: false });
  const known = compared.filter((id) => trials.some((trial) => trial.id === id));
  useEffect(() => {
    const leave = (event: KeyboardEvent) => {
      if (event.key !== 'Escape') return;
      event.stopPropagation();
      useBench.setState({ trialsOpen: false });
    };
    window.addEventListener('keydown', leave, { capture: true });
    return () => window.removeEventListener('keydown', leave, { capture: true });
  }, []);
  // One that was let go of, or made way for another, has nothing to show.
  useEffect(() => {
    if (known.length < 2) useBench.setState({ trialsOpen: false });
  });
  if (!model || known.length < 2) return null;
  return (
    <section className="trials-view" aria-label="Trials compared">
      <Compared model={model} ids={known} close={close} />
    </section>
  );
}

function Compared({
  model,
  ids,
  close,
}: {
  readonly model: ModelBuffers;
  readonly ids: readonly number[];
  readonly close: () => void;
}) {
  const pair = useTrials(model, ids);
  const [mapName, setMap] = useState(NO_MAP);
  const map = MAPS.find(({ name }) => name === mapName);
  const canvas = useRef<HTMLCanvasElement>(null);
  const models = useRef<HTMLDivElement>(null);
  const panes = useRef(new Map<string, HTMLElement>());
  const renderer = useRef<TrialRenderer>(undefined);
  const put = (name: string) => (element: HTMLElement | null) => {
    if (element) panes.current.set(name, element);
  };

  useEffect(() => {
    const at = (name: string) => panes.current.get(name) as HTMLElement;
    const look = handle.renderer?.views().model;
    if (!canvas.current || !models.current || !look) return;
    const { occlusion, upAxis } = useBench.getState();
    const made = trialRenderer(
      canvas.current,
      {
        models: models.current,
        model: [at('model 0'), at('model 1'), at('model 2')],
        board: [at('board 0'), at('board 1')],
      },
      model,
      { occlusion, upAxis, look },
    );
    renderer.current = made;
    return () => made.dispose();
  }, [model]);

  useEffect(() => {
    const { current } = renderer;
    if (!current || !pair) return;
    pair.pictures.forEach((picture, i) => {
      current.show(i, { uv: picture.uv, overlay: map, values: map && valuesOf(pair, i, map) });
    });
    const shared = pair.pictures[0].uv.map((x, i) => (pair.both[Math.floor(i / 6)] ? x : NO_UV));
    current.show(2, { uv: shared, overlay: better, values: pair.comparison.difference });
  }, [pair, map]);

  useEffect(() => {
    if (pair) renderer.current?.frameBoards(boxOf(pair));
  }, [pair]);

  useEffect(() => {
    if (!pair) return;
    const sizes = pair.pictures.map(({ uv }) => Math.sqrt(flatAreaOf(uv, pair.both)) || 1);
    const dress = () => renderer.current?.dress(useBench.getState(), [1, sizes[0] / sizes[1]]);
    dress();
    return useBench.subscribe(dress);
  }, [pair]);

  return (
    <>
      <header>
        <h1>Trials</h1>
        <Segmented
          size="small"
          aria-label="What is shown of the trials"
          value={mapName}
          options={[
            { value: NO_MAP, label: 'Checker' },
            ...MAPS.map(({ name, label }) => ({ value: name, label })),
          ]}
          onChange={setMap}
        />
        {map && <Ramp overlay={map} />}
        <Button size="small" icon={<IconX size={15} />} aria-label="Close the trials" onClick={close} />
      </header>
      <canvas ref={canvas} className="trials-canvas" aria-hidden />
      <div className="trials-columns">
        {[0, 1].map((i) => (
          <Column key={LETTERS[i]} i={i} ids={ids} gone={pair?.pictures[i].gone ?? 0} />
        ))}
        <h2 className="trials-difference">Which is better where</h2>
        <div className="trials-models" ref={models} data-testid="trial-models">
          {[0, 2, 1].map((i) => (
            <div key={i} ref={put(`model ${i}`)} />
          ))}
        </div>
        <Board i={0} put={put} renderer={renderer} />
        <Board i={1} put={put} renderer={renderer} />
        <div className="trials-figures">
          <Ramp overlay={better} />
          {pair ? (
            <>
              <Figures ids={ids} pair={pair} />
              <Histograms pair={pair} />
            </>
          ) : (
            <p>Being measured…</p>
          )}
        </div>
      </div>
    </>
  );
}

/** Which trial, and what to do with it. */
function Column({
  i,
  ids,
  gone,
}: {
  readonly i: number;
  readonly ids: readonly number[];
  readonly gone: number;
}) {
  const trials = useBench((s) => s.trials);
  const chosen = useBench((s) => s.chosen.size);
  const letter = LETTERS[i];
  return (
    <div className="trials-head" data-column={letter}>
      <strong>{letter}</strong>
      <Select<number>
        size="small"
        aria-label={`Trial ${letter}`}
        value={ids[i]}
        options={trials.map(({ id, name }) => ({ value: id, label: name, disabled: id === ids[1 - i] }))}
        onChange={(id) => useBench.setState({ compared: ids.map((other, k) => (k === i ? id : other)) })}
      />
      <Button size="small" type="primary" onClick={() => void takeTrial(ids[i])}>
        Use {letter}
      </Button>
      {chosen > 0 && (
        <Button size="small" onClick={() => void takeTrial(ids[i], true)}>
          For {chosen === 1 ? 'the selected shell' : `${chosen} shells`}
        </Button>
      )}
      {gone > 0 && (
        <span role="status">{gone === 1 ? 'one shell is' : `${gone} shells are`} cut otherwise now</span>
      )}
    </div>
  );
}

/** A flat pane; both are moved together. */
function Board({
  i,
  put,
  renderer,
}: {
  readonly i: number;
  readonly put: (name: string) => (element: HTMLElement | null) => void;
  readonly renderer: React.RefObject<TrialRenderer | undefined>;
}) {
  const element = useRef<HTMLDivElement>(null);
  useGesture(
    {
      onDrag: ({ delta: [dx, dy] }) => renderer.current?.pan(dx, dy),
      onWheel({ event }) {
        event.preventDefault();
        renderer.current?.zoom(i, event.clientX, event.clientY, Math.exp(-event.deltaY * 0.0015));
      },
    },
    { target: element, eventOptions: { passive: false } },
  );
  return (
    <div
      className="trials-board"
      data-column={LETTERS[i]}
      ref={(each) => {
        element.current = each;
        put(`board ${i}`)(each);
      }}
    />
  );
}

/** Values of a map, of every triangle of one trial. */
function valuesOf({ pictures }: Pair, i: number, map: Overlay): Float32Array | undefined {
  const { logArea, angle: off } = pictures[i];
  const figures = { logArea, angle: off, smoothLogArea: logArea, smoothAngle: off };
  return map.values({ ...useBench.getState(), figures });
}

/** What both trials take of the flat. */
function boxOf({ pictures }: Pair): [number, number, number, number] {
  const box: [number, number, number, number] = [Infinity, Infinity, -Infinity, -Infinity];
  for (const { uv } of pictures)
    for (let i = 0; i < uv.length; i += 2) {
      if (uv[i] === NO_UV) continue;
      box[0] = Math.min(box[0], uv[i]);
      box[1] = Math.min(box[1], uv[i + 1]);
      box[2] = Math.max(box[2], uv[i]);
      box[3] = Math.max(box[3], uv[i + 1]);
    }
  return box[0] < box[2] ? box : [0, 0, 1, 1];
}

function flatAreaOf(uv: Float32Array, both: Uint8Array): number {
  let sum = 0;
  for (let t = 0, i = 0; t < both.length; t++, i += 6)
    if (both[t])
      sum += Math.abs(
        (uv[i + 2] - uv[i]) * (uv[i + 5] - uv[i + 1]) - (uv[i + 3] - uv[i + 1]) * (uv[i + 4] - uv[i]),
      );
  return sum;
}
