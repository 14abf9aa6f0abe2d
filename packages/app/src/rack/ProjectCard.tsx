import { IconDots } from '@tabler/icons-react';
import { Button } from 'antd';
import { saveAs } from 'file-saver';
import { lazy, Suspense, useEffect, useState } from 'react';
import { Link } from 'react-router';
import { bench, unwrap } from '../store/worker.ts';
import type { RackRow } from '../worker/protocol.ts';

/** Loaded when it is first asked for. */
const CardMenu = lazy(() => import('./CardMenu.tsx').then((module) => ({ default: module.CardMenu })));

interface ProjectCardProps {
  readonly row: RackRow;
  readonly onProblem: (sentence: string) => void;
}

/** A project on the Rack: its picture, what it is, and what can be done with it. */
export function ProjectCard({ row, onProblem }: ProjectCardProps) {
  const picture = usePicture(row.picture);
  const [asked, setAsked] = useState(false);
  const attempt = (work: () => Promise<void>) =>
    void work().catch((error: Error) => onProblem(error.message));
  const exportProject = () =>
    attempt(async () => {
      const { fileName, bytes } = unwrap(await bench.exportProject(row.id));
      saveAs(new Blob([bytes as Uint8Array<ArrayBuffer>]), fileName);
    });
  const takeOff = () => attempt(async () => unwrap(await bench.takeOff(row.id)));
  const more = (
    <Button
      type="text"
      className="rack-more"
      icon={<IconDots size={17} />}
      aria-label={`More for ${row.name}`}
      onClick={() => setAsked(true)}
    />
  );
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
      {asked ? (
        <Suspense fallback={more}>
          <CardMenu onExport={exportProject} onTakeOff={takeOff}>
            {more}
          </CardMenu>
        </Suspense>
      ) : (
        more
      )}
    </li>
  );
}

/** An address for a picture while it is shown. */
function usePicture(blob: Blob | undefined): string | undefined {
  const [url, setUrl] = useState<string>();
  useEffect(() => {
    if (!blob) return;
    const made = URL.createObjectURL(blob);
    setUrl(made);
    return () => URL.revokeObjectURL(made);
  }, [blob]);
  return url;
}
