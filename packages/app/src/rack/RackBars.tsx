import { Button, Spin } from 'antd';
import { useEffect, useRef } from 'react';
import { lazyPart } from '../loading/lazyPart.tsx';
import { useBench } from '../store/bench.ts';
import { bench, restart, stopOrRestart, unwrap } from '../store/worker.ts';
import type { Showing } from './useShowing.ts';

const Progress = lazyPart(async () => (await import('antd/es/progress')).default);

/** What is told at the top of the Rack: what went wrong, what came of something, what goes on. */
export function RackBars({
  told: { problem, note, working, setProblem, setNote, showing },
  closed,
  takenOff,
}: {
  readonly told: Showing;
  /** Why there is no Rack at all: the store is closed to us. */
  readonly closed: string | undefined;
  /** What was taken off the Rack just now. */
  readonly takenOff: { readonly id: string; readonly name: string } | undefined;
}) {
  const { silent, broken } = useBench((s) => s.worker);
  // It may be of something that was done further down.
  const said = useRef<HTMLDivElement>(null);
  // biome-ignore lint/correctness/useExhaustiveDependencies: whenever something else is told
  useEffect(() => {
    said.current?.scrollIntoView({ block: 'nearest' });
  }, [problem, note, working !== undefined, takenOff?.id]);
  return (
    <div ref={said}>
      {(silent !== undefined || broken !== undefined) && (
        <div className="rack-bar rack-problem" role="alert">
          {broken ?? `The part of Blunt Hem that keeps your projects has not answered for ${silent} seconds.`}
          <Button danger onClick={restart}>
            Start it again
          </Button>
        </div>
      )}
      {closed && (
        <div className="rack-bar rack-problem" role="alert">
          {closed}
        </div>
      )}
      {problem && (
        <div className="rack-bar rack-problem" role="alert">
          {problem.sentence}
          {problem.offer && (
            <Button
              danger
              onClick={() => {
                setProblem(undefined);
                problem.offer?.act();
              }}
            >
              {problem.offer.label}
            </Button>
          )}
          <Button onClick={() => setProblem(undefined)}>Close</Button>
        </div>
      )}
      {note && (
        <div className="rack-bar" role="status">
          {note}
          <Button onClick={() => setNote(undefined)}>Close</Button>
        </div>
      )}
      {takenOff && (
        <div className="rack-bar" role="status">
          “{takenOff.name}” was taken off the Rack.
          <Button
            onClick={() => void showing(undefined, async () => unwrap(await bench.putBack(takenOff.id)))}
          >
            Put it back
          </Button>
        </div>
      )}
      {working && (
        <div className="rack-bar" role="status">
          <Spin /> {working.text}
          {working.part !== undefined && (
            <Progress percent={Math.round(100 * working.part)} size="small" className="rack-progress" />
          )}
          {working.canCancel && (
            <Button onClick={() => void stopOrRestart(() => bench.cancelReading())}>Cancel</Button>
          )}
        </div>
      )}
    </div>
  );
}
