import { ALONGSIDE, endingOf, MODEL_ENDINGS } from '@blunt-hem/core/formats/formats';
import type { Stance } from '@blunt-hem/core/mesh/stance';
import * as Comlink from 'comlink';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import type { Restored } from '../storage/rackBackup.ts';
import { ArtistError, bench, unwrap } from '../store/worker.ts';
import type { Pending } from './KeepOrDiscard.tsx';
import type { Showing } from './useShowing.ts';

/** What the Bench should say of a project that was just made. */
export interface Came {
  readonly note?: string;
}

/** Takes in files: a model or a project is read and opened, a backup is put back. */
export function useTakingIn({ showing, setNote }: Pick<Showing, 'showing' | 'setNote'>) {
  const [pending, setPending] = useState<Pending>();
  const [noRoom, setNoRoom] = useState<{ readonly sentence: string; readonly open: () => void }>();
  const navigate = useNavigate();

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

  return {
    takeIn,
    /** What is asked before a model is opened: whether its UVs are kept, and how it stands. */
    pending,
    choose(keepUvs: boolean, stance: Stance): void {
      if (!pending) return;
      const { name, note } = pending;
      setPending(undefined);
      void showing(`Opening ${name}…`, () => create(keepUvs, stance, false, { note }), true);
    },
    cancel(): void {
      setPending(undefined);
      void bench.cancelReading().catch(() => undefined);
    },
    /** Asked where there is no room to keep what is opened. */
    noRoom: noRoom && {
      sentence: noRoom.sentence,
      cancel: () => setNoRoom(undefined),
      open(): void {
        setNoRoom(undefined);
        noRoom.open();
      },
    },
  };
}

/** What is opened by itself: models, projects and backups. */
const OPENED = [...MODEL_ENDINGS, 'hemproject', 'hemrack'];
export const ACCEPTED = [...OPENED, ...ALONGSIDE].map((ending) => `.${ending}`).join(',');

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
