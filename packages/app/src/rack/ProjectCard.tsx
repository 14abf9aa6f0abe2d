import { plural } from '@blunt-hem/core/plural';
import { IconDots } from '@tabler/icons-react';
import { Button } from 'antd';
import { useEffect, useState } from 'react';
import { Link } from 'react-router';
import { lazyPart } from '../loading/lazyPart.tsx';
import type { RackRow } from '../storage/rack.ts';
import { ArtistError, bench, unwrap } from '../store/worker.ts';
import { exportProject, useRescue } from './projectFiles.ts';

/** Loaded when it is first asked for. */
const CardMenu = lazyPart(
  async () => (await import('./CardMenu.tsx')).CardMenu,
  ({ children }) => children,
);

/** What went wrong, and what could be done about it. */
export interface Problem {
  readonly sentence: string;
  readonly offer?: { readonly label: string; readonly act: () => void };
}

interface ProjectCardProps {
  readonly row: RackRow;
  readonly onProblem: (problem: Problem) => void;
  readonly onTakenOff: (id: string) => void;
}

/** A project on the Rack: its picture, what it is, and what can be done with it. */
export function ProjectCard({ row, onProblem, onTakenOff }: ProjectCardProps) {
  const picture = usePicture(row.picture);
  const [asked, setAsked] = useState(false);
  const rescue = useRescue();
  const attempt = (work: () => Promise<void>) =>
    void work().catch((error: Error) => onProblem({ sentence: error.message }));
  const exportIt = () =>
    attempt(async () => {
      const loss = await exportProject(row.id);
      if (loss) onProblem({ sentence: `${loss} What is whole was exported.` });
    });
  const deleteForGood = () => attempt(async () => unwrap(await bench.deleteForGood(row.id)));
  const takeOff = () =>
    attempt(async () => {
      try {
        unwrap(await bench.takeOff(row.id));
        onTakenOff(row.id);
      } catch (error) {
        if (!(error instanceof ArtistError) || error.code !== 'store-full') throw error;
        // Deleting takes no room; putting aside takes a little.
        onProblem({
          sentence: `There is not even room to put “${row.name}” aside for thirty days.`,
          offer: { label: 'Delete it for good', act: deleteForGood },
        });
      }
    });
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
    <li className="rack-card" data-damaged={row.damage !== undefined}>
      <Link to={`/project/${row.id}`} className="rack-open">
        {picture ? <img src={picture} alt="" /> : <span className="rack-blank" />}
        <strong>{row.name}</strong>
        {row.damage && (
          <span className="rack-damage">
            <b>Damaged.</b> {row.damage}
          </span>
        )}
        {row.updated > 0 && (
          <span className="rack-facts">
            {plural(row.faces, 'face')} · {plural(row.shells, 'shell')} ·{' '}
            {new Date(row.updated).toLocaleDateString('en-GB', { day: 'numeric', month: 'short' })}
          </span>
        )}
      </Link>
      {asked ? (
        <CardMenu
          damaged={row.damage !== undefined}
          onRescue={() => attempt(() => rescue(row.id))}
          onExport={exportIt}
          onTakeOff={takeOff}
        >
          {more}
        </CardMenu>
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
