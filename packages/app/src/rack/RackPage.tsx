import { FORMATS, formatsInWords } from '@blunt-hem/core/formats/formats';
import { IconHelpCircle, IconPlus } from '@tabler/icons-react';
import { Button } from 'antd';
import { useEffect, useState } from 'react';
import { useDropzone } from 'react-dropzone';
import { Link } from 'react-router';
import { lazyPart } from '../loading/lazyPart.tsx';
import { bench, unwrap } from '../store/worker.ts';
import { ProjectCard } from './ProjectCard.tsx';
import { addDemosOnce } from './preferences.ts';
import { RackBars } from './RackBars.tsx';
import { RackInvitation } from './RackInvitation.tsx';
import { useProjects } from './useProjects.ts';
import { useShowing } from './useShowing.ts';
import { ACCEPTED, useTakingIn } from './useTakingIn.ts';
import './rack.css';

const KeepOrDiscard = lazyPart(async () => (await import('./KeepOrDiscard.tsx')).KeepOrDiscard);
const Keeping = lazyPart(async () => (await import('./Keeping.tsx')).Keeping);
const NoRoom = lazyPart(async () => (await import('./NoRoom.tsx')).NoRoom);
const OffTheRack = lazyPart(async () => (await import('./OffTheRack.tsx')).OffTheRack);

export function RackPage() {
  /** Why there is no Rack at all: the store is closed to us. */
  const [closed, setClosed] = useState<string>();
  const projects = useProjects(setClosed);
  const [justOff, setJustOff] = useState<string>();
  const told = useShowing();
  const { showing, setProblem, setNote } = told;
  const { takeIn, pending, choose, cancel, noRoom } = useTakingIn(told);

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
          <Button onClick={() => void addDemos()}>Add the demo again</Button>
          <Button type="primary" icon={<IconPlus size={16} />} onClick={open}>
            Open a model or project
          </Button>
          <input {...getInputProps({ accept: ACCEPTED, 'aria-label': 'Model or project file' })} />
        </div>
      </header>
      <RackBars told={told} closed={closed} takenOff={projects?.off.find(({ id }) => id === justOff)} />
      {projects?.here.length === 0 && !told.working && (
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
      <RackInvitation open={open} addDense={() => void addDemos(true)} />
      {projects && projects.off.length > 0 && (
        <OffTheRack
          rows={projects.off}
          attempt={(work) => void showing(undefined, async () => unwrap(await work()))}
        />
      )}
      {projects && <Keeping projects={projects} showing={showing} tell={setNote} />}
      {noRoom && <NoRoom sentence={noRoom.sentence} onCancel={noRoom.cancel} onOpen={noRoom.open} />}
      {pending && <KeepOrDiscard pending={pending} onCancel={cancel} onChoose={choose} />}
    </main>
  );
}
