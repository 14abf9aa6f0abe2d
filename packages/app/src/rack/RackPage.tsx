import { MODEL_ENDINGS } from '@blunt-hem/core/formats/endings';
import { IconDots, IconDownload, IconHelpCircle, IconPlus, IconTrash } from '@tabler/icons-react';
import { Button, Dropdown, Progress, Spin } from 'antd';
import * as Comlink from 'comlink';
import { useCallback, useEffect, useRef, useState } from 'react';
import { Link, useNavigate } from 'react-router';
import type { ProjectRow } from '../storage/database.ts';
import { purgeDeleted } from '../storage/projects.ts';
import { database } from '../store/database.ts';
import { saveFile } from '../store/saveFile.ts';
import { bench, unwrap } from '../store/worker.ts';
import './rack.css';

const DEMOS_ADDED = 'blunt-hem-demos-added';

export function RackPage() {
  const [projects, setProjects] = useState<readonly ProjectRow[]>();
  const [problem, setProblem] = useState<string>();
  const [working, setWorking] = useState<string>();
  const [deleted, setDeleted] = useState<readonly ProjectRow[]>([]);
  const [pending, setPending] = useState<Pending>();
  const [part, setPart] = useState<number>();
  const [over, setOver] = useState(false);
  const picker = useRef<HTMLInputElement>(null);
  const navigate = useNavigate();

  const refresh = useCallback(async () => {
    const rows = await database.projects.orderBy('updated').reverse().toArray();
    setProjects(rows.filter((row) => row.deleted === undefined));
  }, []);

  useEffect(() => {
    void (async () => {
      await bench.close();
      await purgeDeleted(database, Date.now() - 60_000);
      if (!localStorage.getItem(DEMOS_ADDED)) {
        setWorking('Laying out the demo models…');
        await bench.addDemos();
        localStorage.setItem(DEMOS_ADDED, '1');
        setWorking(undefined);
      }
      await refresh();
    })().catch(() => {
      setWorking(undefined);
      setProblem(
        'The Rack could not be read: this browser does not let the page store anything. Allow storage for this address.',
      );
      setProjects([]);
    });
  }, [refresh]);

  /** Shows what goes on while it does, and what went wrong. */
  const showing = async (text: string, work: () => Promise<void>) => {
    setProblem(undefined);
    setWorking(text);
    try {
      await work();
    } catch (error) {
      setProblem((error as Error).message);
      await refresh();
    } finally {
      setWorking(undefined);
      setPart(undefined);
    }
  };

  const create = (fileName: string, keepUvs: boolean) =>
    showing(`Opening ${fileName}…`, async () => {
      navigate(`/project/${unwrap(await bench.create(keepUvs))}`);
    });

  const takeIn = (list: FileList | null | undefined) => {
    const files = modelFirst([...(list ?? [])]);
    if (files.length === 0) return;
    const { name } = files[0];
    void showing(`Reading ${name}…`, async () => {
      const opened = await Promise.all(
        files.map(async (file) => ({ name: file.name, bytes: new Uint8Array(await file.arrayBuffer()) })),
      );
      setPart(0);
      const answer = await bench.read(opened, Comlink.proxy(setPart));
      if (!answer) return;
      const { uvSets, faces } = unwrap(answer);
      if (uvSets.length > 0) setPending({ name, uvSets, faces });
      else navigate(`/project/${unwrap(await bench.create(true))}`);
    });
  };

  const remove = async (row: ProjectRow) => {
    await database.projects.update(row.id, { deleted: Date.now() });
    setDeleted((rows) => [...rows, row]);
    await refresh();
  };

  /** The last one first, as often as there are any. */
  const bringBack = async () => {
    const last = deleted[deleted.length - 1];
    await database.projects.update(last.id, { deleted: undefined });
    setDeleted(deleted.slice(0, -1));
    await refresh();
  };

  const exportProject = async (row: ProjectRow) => {
    try {
      const { fileName, bytes } = unwrap(await bench.exportProject(row.id));
      saveFile(fileName, bytes);
    } catch (error) {
      setProblem((error as Error).message);
    }
  };

  const addDemos = async () => {
    setWorking('Laying out the demo models…');
    await bench.addDemos();
    setWorking(undefined);
    await refresh();
  };

  return (
    <main
      className="rack"
      data-over={over}
      onDragOver={(event) => {
        event.preventDefault();
        setOver(true);
      }}
      onDragLeave={() => setOver(false)}
      onDrop={(event) => {
        event.preventDefault();
        setOver(false);
        takeIn(event.dataTransfer.files);
      }}
    >
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
          <Button type="primary" icon={<IconPlus size={16} />} onClick={() => picker.current?.click()}>
            Open a model or project
          </Button>
          <input
            ref={picker}
            type="file"
            hidden
            aria-label="Model or project file"
            multiple
            accept={ACCEPTED}
            onChange={(event) => {
              takeIn(event.target.files);
              event.target.value = '';
            }}
          />
        </div>
      </header>
      {problem && (
        <div className="rack-bar rack-problem" role="alert">
          {problem} Nothing on the Rack has changed.
          <Button onClick={() => setProblem(undefined)}>Close</Button>
        </div>
      )}
      {deleted.length > 0 && (
        <div className="rack-bar" role="status">
          “{deleted[deleted.length - 1].name}” was taken off the Rack
          {deleted.length > 1 && `, and ${deleted.length - 1} before it`}.
          <Button onClick={() => void bringBack()}>Put it back</Button>
        </div>
      )}
      {working && (
        <div className="rack-bar" role="status">
          <Spin /> {working}
          {part !== undefined && (
            <>
              <Progress percent={Math.round(100 * part)} size="small" className="rack-progress" />
              <Button onClick={() => void bench.cancelReading()}>Cancel</Button>
            </>
          )}
        </div>
      )}
      {projects?.length === 0 && !working && (
        <div className="rack-empty">
          <h2>The Rack is empty</h2>
          <p>
            Drop an OBJ, glTF, PLY or STL model anywhere on this page, or add the demo models and try the loop
            on them.
          </p>
        </div>
      )}
      <ul className="rack-list">
        {projects?.map((row) => (
          <Card
            key={row.id}
            row={row}
            onExport={() => void exportProject(row)}
            onDelete={() => void remove(row)}
          />
        ))}
      </ul>
      <p className="rack-hint">
        Drop an OBJ, glTF, GLB, PLY, STL or project file anywhere here, and with a glTF the files it names.
        The file itself is never altered.
      </p>
      {pending && (
        <KeepOrDiscard
          pending={pending}
          onCancel={() => setPending(undefined)}
          onChoose={(keepUvs) => {
            setPending(undefined);
            void create(pending.name, keepUvs);
          }}
        />
      )}
    </main>
  );
}

/** A file that was read and has UVs. */
interface Pending {
  readonly name: string;
  readonly faces: number;
  readonly uvSets: readonly string[];
}

const ACCEPTED = [...MODEL_ENDINGS, 'hemproject', 'bin', 'mtl', 'png', 'jpg'].map((e) => `.${e}`).join(',');

/** Of files dropped together, the one that is the model before those it names. */
function modelFirst(files: readonly File[]): File[] {
  const isModel = ({ name }: File) => /\.(obj|glb|gltf|ply|stl|hemproject)$/i.test(name);
  return [...files].sort((a, b) => Number(isModel(b)) - Number(isModel(a)));
}

interface KeepOrDiscardProps {
  readonly pending: Pending;
  readonly onCancel: () => void;
  readonly onChoose: (keepUvs: boolean) => void;
}

/** Asked at every opening: losing UVs by opening a file must not happen by accident. */
function KeepOrDiscard({ pending, onCancel, onChoose }: KeepOrDiscardProps) {
  const dialog = useRef<HTMLDialogElement>(null);
  useEffect(() => {
    dialog.current?.showModal();
    dialog.current?.querySelector<HTMLButtonElement>('.ant-btn-primary')?.focus();
  }, []);
  return (
    <dialog ref={dialog} className="rack-dialog" aria-labelledby="open-title" onCancel={onCancel}>
      <h2 id="open-title">Open {pending.name}</h2>
      <p>
        {pending.faces.toLocaleString('en-GB')} faces, with{' '}
        {pending.uvSets.length === 1 ? 'one UV set' : `${pending.uvSets.length} UV sets`}:{' '}
        {pending.uvSets.join(', ')}. Keep the UVs, with their breaks as seams, or start without any?
      </p>
      <div className="rack-dialog-acts">
        <Button onClick={onCancel}>Do not open</Button>
        <Button onClick={() => onChoose(false)}>Discard them</Button>
        <Button type="primary" onClick={() => onChoose(true)}>
          Keep UVs
        </Button>
      </div>
    </dialog>
  );
}

interface CardProps {
  readonly row: ProjectRow;
  readonly onExport: () => void;
  readonly onDelete: () => void;
}

function Card({ row, onExport, onDelete }: CardProps) {
  const [picture, setPicture] = useState<string>();
  useEffect(() => {
    if (!row.picture) return;
    const url = URL.createObjectURL(row.picture);
    setPicture(url);
    return () => URL.revokeObjectURL(url);
  }, [row.picture]);
  return (
    <li className="rack-card">
      <Link to={`/project/${row.id}`} className="rack-open">
        {picture ? <img src={picture} alt="" /> : <span className="rack-blank" />}
        <strong>{row.name}</strong>
        <span className="rack-facts">
          {row.faces.toLocaleString('en-GB')} faces · {row.shells} {row.shells === 1 ? 'shell' : 'shells'} ·{' '}
          {new Date(row.updated).toLocaleDateString('en-GB', { day: 'numeric', month: 'short' })}
        </span>
      </Link>
      <Dropdown
        trigger={['click']}
        menu={{
          items: [
            {
              key: 'export',
              icon: <IconDownload size={15} />,
              label: 'Export project file',
              onClick: onExport,
            },
            { key: 'delete', icon: <IconTrash size={15} />, label: 'Take off the Rack', onClick: onDelete },
          ],
        }}
      >
        <Button
          type="text"
          className="rack-more"
          icon={<IconDots size={17} />}
          aria-label={`More for ${row.name}`}
        />
      </Dropdown>
    </li>
  );
}
