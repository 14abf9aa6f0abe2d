import * as Comlink from 'comlink';
import { type CSSProperties, useEffect, useRef, useState } from 'react';
import { useLocation, useParams } from 'react-router';
import { lazyPart } from '../loading/lazyPart.tsx';
import type { Came } from '../rack/useTakingIn.ts';
import { note, notify } from '../store/acts.ts';
import { resetBench, useBench } from '../store/bench.ts';
import { receive } from '../store/receive.ts';
import { tellRest } from '../store/rest.ts';
import type { Notice } from '../store/run.ts';
import { NoAnswerError } from '../store/supervisor.ts';
import { ArtistError, bench, unwrap } from '../store/worker.ts';
import type { BenchEvent } from '../worker/protocol.ts';
import './bench.css';
import { DidNotOpen } from './DidNotOpen.tsx';
import { Details } from './details/Details.tsx';
import { Header } from './header/Header.tsx';
import { UnsavedGuard } from './header/UnsavedGuard.tsx';
import { useHealth } from './health/useHealth.ts';
import { Panes } from './panes/Panes.tsx';
import { handle } from './panes/rendererHandle.ts';
import { NoticeBar } from './rail/NoticeBar.tsx';
import { Rail } from './rail/Rail.tsx';
import { stageNamed } from './stages/index.ts';
import { Strip } from './strip/Strip.tsx';
import { useBefore } from './useBefore.ts';
import { useBenchKeys } from './useBenchKeys.ts';
import { useGhost } from './useGhost.ts';
import { useImagesByPlace } from './useImagesByPlace.ts';
import { useOverlays } from './useOverlays.ts';
import { usePicture } from './usePicture.ts';
import { useProjection } from './useProjection.ts';
import { useSymmetry } from './useSymmetry.ts';
import { type KeptView, useViewKeeping } from './useViewKeeping.ts';
import { useWholeOfHover } from './useWholeOfHover.ts';

const TrialsView = lazyPart(async () => (await import('../trials/TrialsView.tsx')).TrialsView);
const HelpOver = lazyPart(async () => (await import('../help/HelpOver.tsx')).HelpOver);

useBench.subscribe(tellRest);

const STARTED_AGAIN: Notice = {
  tone: 'error',
  text: 'The part of Blunt Hem that keeps your document broke down or did not answer, and was started again. The project is open as it was after the last act that was kept.',
};

/** Where there is no store, the worker that broke down was the only place of the project. */
const LOST =
  'The part of Blunt Hem that keeps your document broke down while this project was in this tab alone. It could not be kept before, and is gone. Whatever you exported of it is whole.';

/** What was not foreseen, in words. */
const brokenDown = (error: Error): ArtistError =>
  error instanceof NoAnswerError
    ? new ArtistError('no-answer', error.message, [])
    : new ArtistError(
        'broken',
        `Something went wrong inside Blunt Hem (${error.message}). Nothing was changed.`,
        [],
      );

/** A worker that was ended lets go of its project a moment later, milliseconds. */
const PATIENCE = 10_000;

/** The workspace of one project. */
export function BenchPage() {
  const { id = '' } = useParams();
  const { state: came } = useLocation() as { readonly state: Came | null };
  const [problem, setProblem] = useState<ArtistError>();
  const [kept, setKept] = useState<KeptView>();
  const loaded = useBench((s) => s.projectId === id && s.model !== undefined);
  const restarts = useBench((s) => s.worker.restarts);
  const restartsSeen = useRef(restarts);
  const stage = useBench((s) => s.stage);
  const detailsOpen = useBench((s) => s.detailsOpen);
  const detailsWidth = useBench((s) => s.detailsWidth);
  const helpOpen = useBench((s) => s.helpOpen);
  const trialsOpen = useBench((s) => s.trialsOpen);
  useBenchKeys(loaded);
  useHealth(loaded);
  useGhost(loaded);
  useOverlays(loaded);
  useSymmetry(loaded);
  useImagesByPlace(loaded);
  useWholeOfHover(loaded);
  usePicture(loaded);
  useProjection(loaded);
  useBefore();

  // biome-ignore lint/correctness/useExhaustiveDependencies: what the artist came with is said once
  useEffect(() => {
    let current = true;
    const again = restarts !== restartsSeen.current;
    restartsSeen.current = restarts;
    const wasAlone = again && useBench.getState().unsaved;
    resetBench();
    setProblem(undefined);
    void (async () => {
      try {
        const events = listener(() => current);
        const { name, model, view } = unwrap(
          await bench.open(id, Comlink.proxy(events.listen), restarts > 0 ? PATIENCE : 0),
        );
        if (!current) return;
        const { cameras: _, ...looks } = (view ?? {}) as Partial<KeptView>;
        setKept(view as KeptView | undefined);
        useBench.setState({ ...looks, projectId: id, projectName: name, model });
        events.begin();
        if (again) notify(STARTED_AGAIN);
        else if (came?.note) note(came.note);
      } catch (error) {
        if (!current) return;
        if (wasAlone) setProblem(new ArtistError('lost', LOST, []));
        else setProblem(error instanceof ArtistError ? error : brokenDown(error as Error));
      }
    })();
    return () => {
      current = false;
    };
  }, [id, restarts]);

  if (problem) return <DidNotOpen id={id} code={problem.code} sentence={problem.message} />;
  const { View } = stageNamed(stage);
  return (
    <div
      className="bench"
      data-details={detailsOpen}
      style={detailsWidth === undefined ? undefined : ({ '--details': `${detailsWidth}px` } as CSSProperties)}
    >
      <Header />
      <Rail />
      <main className="bench-middle" aria-label="Bench">
        {loaded ? <LoadedPanes kept={kept} /> : <p className="bench-state">Opening the project…</p>}
        {loaded && trialsOpen && <TrialsView />}
        {loaded && View && <View />}
        <NoticeBar />
      </main>
      {detailsOpen && <Details />}
      <Strip />
      {helpOpen && <HelpOver />}
      <UnsavedGuard />
    </div>
  );
}

function LoadedPanes({ kept }: { readonly kept: KeptView | undefined }) {
  return (
    <>
      <Panes />
      <ViewKeeping kept={kept} />
    </>
  );
}

function ViewKeeping({ kept }: { readonly kept: KeptView | undefined }) {
  useViewKeeping(kept);
  return null;
}

/** Takes in what the worker says; what comes before the model waits for it. */
function listener(isCurrent: () => boolean) {
  let waiting: BenchEvent[] | undefined = [];
  const take = (event: BenchEvent) => {
    const drawn = handle.renderer?.drawn;
    if (event.kind === 'moving') drawn?.show('running', event);
    else {
      // What ends, for whatever reason, leaves no picture behind.
      if (event.kind === 'running' && !event.doing) drawn?.clear('running');
      receive(event);
    }
  };
  return {
    listen(event: BenchEvent): void {
      if (!isCurrent()) return;
      if (waiting) waiting.push(event);
      else take(event);
    },
    begin(): void {
      const early = waiting ?? [];
      waiting = undefined;
      early.forEach(take);
    },
  };
}
