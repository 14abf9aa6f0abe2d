import { Button, Checkbox } from 'antd';
import { saveAs } from 'file-saver';
import { useEffect, useState } from 'react';
import { megabytes } from '../storage/limits.ts';
import type { Room } from '../storage/room.ts';
import { bench, unwrap } from '../store/worker.ts';
import { daysUnsafe, lastBackup, rememberBackup, rememberReminding, reminds } from './preferences.ts';
import type { Projects } from './useProjects.ts';

interface KeepingProps {
  readonly projects: Projects;
  /** Shows what goes on while it does, and what went wrong. */
  readonly showing: (
    text: string,
    work: (report: (part: number) => void) => Promise<void>,
  ) => Promise<unknown>;
  readonly tell: (sentence: string) => void;
}

/** How safe the work is: what the browser has promised, the room there is, and a backup of everything as one file. */
export function Keeping({ projects, showing, tell }: KeepingProps) {
  const [room, setRoom] = useState<Room>();
  const [backup, setBackup] = useState(lastBackup);
  const [reminding, setReminding] = useState(reminds);
  const look = () => void bench.room().then(setRoom, () => undefined);
  // biome-ignore lint/correctness/useExhaustiveDependencies: looked at anew whenever something on the Rack changes
  useEffect(look, [projects]);

  const ask = async () => {
    const granted = await navigator.storage.persist();
    if (!granted)
      tell(
        'The browser did not promise it. It may clear what pages keep when the disk is nearly full: make a backup now and then.',
      );
    look();
  };
  const backUp = () =>
    showing('Backing up the Rack…', async (report) => {
      if (projects.here.length + projects.off.length === 0) {
        tell('There is nothing on the Rack to back up: no file was saved.');
        return;
      }
      const { file, projects: saved, losses } = unwrap(await bench.backUp(report));
      if (saved === 0) {
        tell(`Nothing could be backed up, and no file was saved. ${losses.join(' ')}`);
        return;
      }
      const now = Date.now();
      saveAs(file, `Rack ${new Date(now).toISOString().slice(0, 10)}.hemrack`);
      if (losses.length > 0) {
        tell(`The backup was saved, but not all is in it: ${losses.join(' ')}`);
        return;
      }
      rememberBackup(now);
      setBackup(now);
    });
  const remind = (on: boolean) => {
    rememberReminding(on);
    setReminding(on);
  };

  const unsafe = reminding ? daysUnsafe(projects.here, backup, Date.now()) : undefined;
  return (
    <>
      {unsafe !== undefined && (
        <div className="rack-bar" role="status">
          {backup === 0
            ? `There has been work here for ${unsafe} days, and no backup of it.`
            : `The last backup is ${unsafe} days old.`}
          <Button onClick={() => void backUp()}>Back up the Rack</Button>
          <Button type="text" onClick={() => remind(false)}>
            Do not remind me
          </Button>
        </div>
      )}
      <section className="rack-keeping" aria-label="Keeping">
        {room && (
          <span>
            Everything is kept in this browser: {megabytes(room.used)} used, about{' '}
            {megabytes(Math.max(0, room.most - room.used))} free.{' '}
            {room.safe
              ? 'The browser has promised to keep it.'
              : 'The browser may clear it when the disk is nearly full.'}
          </span>
        )}
        {room && !room.safe && (
          <Button type="link" onClick={() => void ask()}>
            Ask it to keep everything
          </Button>
        )}
        <Button type="link" onClick={() => void backUp()}>
          Back up the Rack
        </Button>
        <Checkbox checked={reminding} onChange={({ target }) => remind(target.checked)}>
          Remind me of backups
        </Checkbox>
      </section>
    </>
  );
}
