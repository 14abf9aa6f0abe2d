import { ALONGSIDE, endingOf, FORMATS, formatsInWords, MODEL_ENDINGS } from '@blunt-hem/core/formats/formats';
import type { Stance } from '@blunt-hem/core/mesh/stance';
import { IconDownload, IconHelpCircle, IconPlus, IconTriangles, IconWalk } from '@tabler/icons-react';
import { Button, Spin } from 'antd';
import * as Comlink from 'comlink';
import { useEffect, useRef, useState } from 'react';
import { useDropzone } from 'react-dropzone';
import { Link, useNavigate } from 'react-router';
import { lazyPart } from '../loading/lazyPart.tsx';
import type { Restored } from '../storage/rackBackup.ts';
import { useBench } from '../store/bench.ts';
import { ArtistError, bench, restart, stopOrRestart, unwrap } from '../store/worker.ts';
import { reporting } from '../worker/reporting.ts';
import type { Pending } from './KeepOrDiscard.tsx';
import { type Problem, ProjectCard } from './ProjectCard.tsx';
import { addDemosOnce } from './preferences.ts';
import { useProjects } from './useProjects.ts';
import './rack.css';

const KeepOrDiscard = lazyPart(async () => (await import('./KeepOrDiscard.tsx')).KeepOrDiscard);
const Keeping = lazyPart(async () => (await import('./Keeping.tsx')).Keeping);
const NoRoom = lazyPart(async () => (await import('./NoRoom.tsx')).NoRoom);
const OffTheRack = lazyPart(async () => (await import('./OffTheRack.tsx')).OffTheRack);
const Progress = lazyPart(async () => (await import('antd/es/progress')).default);

export function RackPage() {
  const [problem, setProblem] = useState<Problem>();
  const [note, setNote] = useState<string>();
  /** Why there is no Rack at all: the store is closed to us. */
  const [closed, setClosed] = useState<string>();
  const projects = useProjects(setClosed);
  const { silent, broken } = useBench((s) => s.worker);
  const [justOff, setJustOff] = useState<string>();
  const [working, setWorking] = useState<Working>();
  const [pending, setPending] = useState<Pending>();
  const [noRoom, setNoRoom] = useState<{ readonly sentence: string; readonly open: () => void }>();
  const [part, setPart] = useState<number>();
  const navigate = useNavigate();

  /**
   * Shows what goes on while it does, and what went wrong.
   *
   * @returns whether it came about
   */
  const showing = async (
    text: string | undefined,
    work: (report: (part: number) => void) => Promise<void>,
    canCancel = false,
  ): Promise<boolean> => {
    setProblem(undefined);
    setNote(undefined);
    setWorking(text === undefined ? undefined : { text, canCancel });
    try {
      await reporting(setPart, work);
      return true;
    } catch (error) {
      setProblem({ sentence: (error as Error).message });
      return false;
    } finally {
      setWorking(undefined);
      setPart(undefined);
    }
  };

  // biome-ignore lint/correctness/useExhaustiveDependencies: once, when the Rack is opened
  useEffect(() => {
    void (async () => {
      await bench.close();
      // Where that cannot be done it is done another time.
      const emptied = await bench.emptyOff(false);
      // Where nothing can be kept, there is nothing to lay out.
      if ('ok' in emptied) await addDemosOnce(() => addDemos());
    })().catch((error: Error) => setProblem({ sentence: error.message }));
  }, []);

  const addDemos = (dense = false): Promise<boolean> =>
    showing(dense ? 'Bringing the mud snail…' : 'Laying out the demo models…', async () =>
      unwrap(await bench.addDemos(dense)),
    );

  /** Makes a project of what was read, and opens it. */
  const create = async (keepUvs: boolean, stance: Stance, anyway: boolean, came: Came): Promise<void> => {
    try {
      const answer = await bench.create(keepUvs, stance, anyway);
      if (answer) navigate(`/project/${unwrap(answer)}`, { state: came });
    } catch (error) {
      if (!(error instanceof ArtistError) || error.code !== 'no-room') throw error;
      const open = () => void showing('Opening…', () => create(keepUvs, stance, true, came), true);
      setNoRoom({ sentence: error.message, open });
    }
  };

  const takeIn = (list: readonly File[]) => {
    const { files, others } = oneModel(list);
    if (files.length === 0) return;
    const { name } = files[0];
    const left =
      others.length > 0 ? `One model is opened at a time: ${others.join(', ')} was left alone.` : undefined;
    // Work of one's own is worth keeping; where the browser asks, it asks now.
    void navigator.storage?.persist?.();
    if (/\.hemrack$/i.test(name)) {
      void showing(
        `Putting back ${name}…`,
        async (report) => {
          report(0);
          const answer = await bench.restore(files[0], report);
          if (answer) setNote([putBack(unwrap(answer)), left].filter(Boolean).join(' '));
        },
        true,
      );
      return;
    }
    // What comes next is loaded meanwhile.
    void import('../bench/BenchPage.tsx');
    void showing(
      `Reading ${name}…`,
      async (report) => {
        const opened = await Promise.all(
          files.map(async (file) => ({ name: file.name, bytes: new Uint8Array(await file.arrayBuffer()) })),
        );
        report(0);
        const answer = await bench.read(
          Comlink.transfer(
            opened,
            opened.map(({ bytes }) => bytes.buffer),
          ),
          report,
        );
        if (!answer) return;
        const { uvSets, faces, mayLie, sample, loss } = unwrap(answer);
        const note = [loss, left].filter(Boolean).join(' ') || undefined;
        if (uvSets.length > 0 || mayLie) setPending({ name, uvSets, faces, mayLie, sample, note });
        else await create(true, { upAxis: 0, front: 0 }, false, { note });
      },
      true,
    );
  };

  const { getRootProps, getInputProps, isDragActive, open } = useDropzone({
    onDrop: takeIn,
    noClick: true,
    noKeyboard: true,
    useFsAccessApi: false,
  });

  // What is told stands at the top, and may be of something that was done further down.
  const said = useRef<HTMLDivElement>(null);
  // biome-ignore lint/correctness/useExhaustiveDependencies: whenever something else is told
  useEffect(() => {
    said.current?.scrollIntoView({ block: 'nearest' });
  }, [problem, note, working, justOff]);

  const takenOff = projects?.off.find(({ id }) => id === justOff);

  return (
    <main {...getRootProps({ role: 'main', tabIndex: -1 })} className="rack" data-over={isDragActive}>
      <header className="rack-head">
        <div>
          <h1>Blunt Hem</h1>
          <p>Cut, unfold, look, correct — before the first stroke of paint.</p>
        </div>
        <div className="rack-acts">
          <Link to="/help" className="rack-help">
            <IconHelpCircle size={17} aria-hidden /> Help
          </Link>
          <Button onClick={() => void addDemos()}>Add the demo again</Button>
          <Button type="primary" icon={<IconPlus size={16} />} onClick={open}>
            Open a model or project
          </Button>
          <input {...getInputProps({ accept: ACCEPTED, 'aria-label': 'Model or project file' })} />
        </div>
      </header>
      <div ref={said}>
        {(silent !== undefined || broken !== undefined) && (
          <div className="rack-bar rack-problem" role="alert">
            {broken ??
              `The part of Blunt Hem that keeps your projects has not answered for ${silent} seconds.`}
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
            {part !== undefined && (
              <Progress percent={Math.round(100 * part)} size="small" className="rack-progress" />
            )}
            {working.canCancel && (
              <Button onClick={() => void stopOrRestart(() => bench.cancelReading())}>Cancel</Button>
            )}
          </div>
        )}
      </div>
      {projects?.here.length === 0 && !working && (
        <div className="rack-empty">
          <h2>The Rack is empty</h2>
          <p>
            Drop an {formatsInWords(FORMATS, 'or')} model anywhere on this page, or add the demo models and
            try the loop on them.
          </p>
        </div>
      )}
      <ul className="rack-list">
        {projects?.here.map((row) => (
          <ProjectCard key={row.id} row={row} onProblem={setProblem} onTakenOff={setJustOff} />
        ))}
      </ul>
      <div className="rack-invitation">
        <button type="button" className="rack-drop" onClick={open}>
          <IconDownload size={30} aria-hidden />
          <strong>Drop a model anywhere here</strong>
          <span>
            {FORMATS.map(({ name }) => name).join(', ')}, a project file or a backup; with a glTF or an OBJ
            the files it names. The file itself is never altered.
          </span>
        </button>
        <Link to="/help#walk" className="rack-walk">
          <IconWalk size={30} aria-hidden />
          <strong>Ten minutes with the toad</strong>
          <span>A walk through the loop on the demo: look, cut, relax, arrange, deliver.</span>
        </Link>
        <button type="button" className="rack-walk" onClick={() => void addDemos(true)}>
          <IconTriangles size={30} aria-hidden />
          <strong>Bring the mud snail</strong>
          <span>A sculpt of 217 000 triangles without a single loop, to try seams on.</span>
        </button>
      </div>
      {projects && projects.off.length > 0 && (
        <OffTheRack
          rows={projects.off}
          attempt={(work) => void showing(undefined, async () => unwrap(await work()))}
        />
      )}
      {projects && <Keeping projects={projects} showing={showing} tell={setNote} />}
      {noRoom && (
        <NoRoom
          sentence={noRoom.sentence}
          onCancel={() => setNoRoom(undefined)}
          onOpen={() => {
            setNoRoom(undefined);
            noRoom.open();
          }}
        />
      )}
      {pending && (
        <KeepOrDiscard
          pending={pending}
          onCancel={() => {
            setPending(undefined);
            void bench.cancelReading().catch(() => undefined);
          }}
          onChoose={(keepUvs, stance) => {
            const { name, note } = pending;
            setPending(undefined);
            void showing(`Opening ${name}…`, () => create(keepUvs, stance, false, { note }), true);
          }}
        />
      )}
    </main>
  );
}

interface Working {
  readonly text: string;
  readonly canCancel: boolean;
}

/** What the Bench should say of a project that was just made. */
export interface Came {
  readonly note?: string;
}

/** What is opened by itself: models, projects and backups. */
const OPENED = [...MODEL_ENDINGS, 'hemproject', 'hemrack'];
const ACCEPTED = [...OPENED, ...ALONGSIDE].map((ending) => `.${ending}`).join(',');

/** Of files dropped together, the one that is the model before those it names; and the names of other models, which are left alone. */
function oneModel(files: readonly File[]): { readonly files: File[]; readonly others: readonly string[] } {
  const isModel = ({ name }: File) => OPENED.includes(endingOf(name));
  const [first, ...models] = files.filter(isModel);
  const rest = files.filter((file) => !isModel(file));
  return { files: first ? [first, ...rest] : rest, others: models.map(({ name }) => name) };
}

/** What came of a backup, for the artist. */
function putBack({ projects, already, losses }: Restored): string {
  const came = projects === 1 ? 'One project was put back.' : `${projects} projects were put back.`;
  const same = already === 1 ? 'One is here already as it was.' : `${already} are here already as they were.`;
  return [came, ...(already > 0 ? [same] : []), ...losses].join(' ');
}
