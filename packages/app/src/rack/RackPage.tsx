import { MODEL_ENDINGS } from '@blunt-hem/core/formats/endings';
import { IconHelpCircle, IconPlus } from '@tabler/icons-react';
import { Button, Spin } from 'antd';
import * as Comlink from 'comlink';
import { lazy, Suspense, useEffect, useState } from 'react';
import { useDropzone } from 'react-dropzone';
import { Link, useNavigate } from 'react-router';
import { bench, unwrap } from '../store/worker.ts';
import type { RackRow } from '../worker/protocol.ts';
import type { Pending } from './KeepOrDiscard.tsx';
import { ProjectCard } from './ProjectCard.tsx';
import './rack.css';

const KeepOrDiscard = lazy(() =>
  import('./KeepOrDiscard.tsx').then((module) => ({ default: module.KeepOrDiscard })),
);

const Progress = lazy(() => import('antd/es/progress'));

const DEMOS_ADDED = 'blunt-hem-demos-added';

const UNREADABLE =
  'The Rack could not be read: this browser does not let the page store anything. Allow storage for this address.';

interface Projects {
  readonly here: readonly RackRow[];
  /** Taken off and not yet gone for good, the last first. */
  readonly off: readonly RackRow[];
}

/** Every project, the newest first; kept up to date by the database itself, from whatever tab it is written. */
function useProjects(fail: () => void): Projects | undefined {
  const [projects, setProjects] = useState<Projects>();
  // biome-ignore lint/correctness/useExhaustiveDependencies: watched from when the Rack is opened on
  useEffect(() => {
    let current = true;
    const take = (rows: readonly RackRow[]) => {
      if (!current) return;
      const off = rows.filter(({ deleted }) => deleted !== undefined);
      setProjects({
        here: rows.filter(({ deleted }) => deleted === undefined),
        off: off.sort((a, b) => (b.deleted as number) - (a.deleted as number)),
      });
    };
    void bench.watchRack(Comlink.proxy(take), Comlink.proxy(fail));
    return () => {
      current = false;
    };
  }, []);
  return projects;
}

export function RackPage() {
  const [problem, setProblem] = useState<string>();
  const projects = useProjects(() => setProblem(UNREADABLE));
  const [working, setWorking] = useState<string>();
  const [pending, setPending] = useState<Pending>();
  const [part, setPart] = useState<number>();
  const navigate = useNavigate();

  /** Shows what goes on while it does, and what went wrong. */
  const showing = async (text: string | undefined, work: () => Promise<void>) => {
    setProblem(undefined);
    setWorking(text);
    try {
      await work();
    } catch (error) {
      setProblem((error as Error).message);
    } finally {
      setWorking(undefined);
      setPart(undefined);
    }
  };

  // biome-ignore lint/correctness/useExhaustiveDependencies: once, when the Rack is opened
  useEffect(() => {
    void (async () => {
      await bench.close();
      unwrap(await bench.purge());
      if (localStorage.getItem(DEMOS_ADDED)) return;
      await showing('Laying out the demo models…', async () => unwrap(await bench.addDemos()));
      localStorage.setItem(DEMOS_ADDED, '1');
    })().catch(() => setProblem(UNREADABLE));
  }, []);

  const create = (fileName: string, keepUvs: boolean) =>
    showing(`Opening ${fileName}…`, async () => {
      navigate(`/project/${unwrap(await bench.create(keepUvs))}`);
    });

  const takeIn = (list: readonly File[]) => {
    const files = modelFirst(list);
    if (files.length === 0) return;
    const { name } = files[0];
    // What comes next is loaded meanwhile.
    void import('../bench/BenchPage.tsx');
    void showing(`Reading ${name}…`, async () => {
      const opened = await Promise.all(
        files.map(async (file) => ({ name: file.name, bytes: new Uint8Array(await file.arrayBuffer()) })),
      );
      setPart(0);
      const answer = await bench.read(
        Comlink.transfer(
          opened,
          opened.map(({ bytes }) => bytes.buffer),
        ),
        Comlink.proxy(setPart),
      );
      if (!answer) return;
      const { uvSets, faces } = unwrap(answer);
      if (uvSets.length > 0) setPending({ name, uvSets, faces });
      else navigate(`/project/${unwrap(await bench.create(true))}`);
    });
  };

  const { getRootProps, getInputProps, isDragActive, open } = useDropzone({
    onDrop: takeIn,
    noClick: true,
    noKeyboard: true,
    useFsAccessApi: false,
  });

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
          <Button
            onClick={() =>
              void showing('Laying out the demo models…', async () => unwrap(await bench.addDemos()))
            }
          >
            Add the demo again
          </Button>
          <Button type="primary" icon={<IconPlus size={16} />} onClick={open}>
            Open a model or project
          </Button>
          <input {...getInputProps({ accept: ACCEPTED, 'aria-label': 'Model or project file' })} />
        </div>
      </header>
      {problem && (
        <div className="rack-bar rack-problem" role="alert">
          {problem} Nothing on the Rack has changed.
          <Button onClick={() => setProblem(undefined)}>Close</Button>
        </div>
      )}
      {projects && projects.off.length > 0 && (
        <div className="rack-bar" role="status">
          “{projects.off[0].name}” was taken off the Rack
          {projects.off.length > 1 && `, and ${projects.off.length - 1} before it`}.
          <Button
            onClick={() =>
              void showing(undefined, async () => unwrap(await bench.putBack(projects.off[0].id)))
            }
          >
            Put it back
          </Button>
        </div>
      )}
      {working && (
        <div className="rack-bar" role="status">
          <Spin /> {working}
          {part !== undefined && (
            <>
              <Suspense>
                <Progress percent={Math.round(100 * part)} size="small" className="rack-progress" />
              </Suspense>
              <Button onClick={() => void bench.cancelReading()}>Cancel</Button>
            </>
          )}
        </div>
      )}
      {projects?.here.length === 0 && !working && (
        <div className="rack-empty">
          <h2>The Rack is empty</h2>
          <p>
            Drop an OBJ, glTF, PLY or STL model anywhere on this page, or add the demo models and try the loop
            on them.
          </p>
        </div>
      )}
      <ul className="rack-list">
        {projects?.here.map((row) => (
          <ProjectCard key={row.id} row={row} onProblem={setProblem} />
        ))}
      </ul>
      <p className="rack-hint">
        Drop an OBJ, glTF, GLB, PLY, STL or project file anywhere here, and with a glTF the files it names.
        The file itself is never altered.
      </p>
      {pending && (
        <Suspense>
          <KeepOrDiscard
            pending={pending}
            onCancel={() => setPending(undefined)}
            onChoose={(keepUvs) => {
              setPending(undefined);
              void create(pending.name, keepUvs);
            }}
          />
        </Suspense>
      )}
    </main>
  );
}

const ACCEPTED = [...MODEL_ENDINGS, 'hemproject', 'bin', 'mtl', 'png', 'jpg'].map((e) => `.${e}`).join(',');

/** Of files dropped together, the one that is the model before those it names. */
function modelFirst(files: readonly File[]): File[] {
  const isModel = ({ name }: File) => /\.(obj|glb|gltf|ply|stl|hemproject)$/i.test(name);
  return [...files].sort((a, b) => Number(isModel(b)) - Number(isModel(a)));
}
