import { IconLayoutSidebarRight, IconMoon, IconPlayerStop, IconSun } from '@tabler/icons-react';
import { Button, Progress, Tooltip } from 'antd';
import { useEffect, useState } from 'react';
import { Link } from 'react-router';
import { keepAsNew, stop } from '../../store/acts.ts';
import { useBench } from '../../store/bench.ts';
import { stopProposing } from '../../store/propose.ts';
import { restart } from '../../store/worker.ts';
import type { Command } from '../commands/command.ts';
import { redo, undo } from '../commands/looking.ts';

export function Header() {
  const name = useBench((s) => s.projectName);
  const last = useBench((s) => s.undoable[0]);
  const saved = useBench((s) => s.saved);
  const unsaved = useBench((s) => s.unsaved);
  const dark = useBench((s) => s.dark);
  return (
    <header className="bench-header">
      <Link to="/" className="bench-home">
        Rack
      </Link>
      <h1>{name}</h1>
      <Travel command={undo} name="Undo" />
      <Travel command={redo} name="Redo" />
      <span className="bench-last">{last}</span>
      <Running />
      <span className="bench-saved" role="status">
        {unsaved ? 'Not saved' : saved ? 'Saved' : 'Saving…'}
      </span>
      {unsaved && (
        <Button size="small" onClick={() => void keepAsNew()}>
          Keep it
        </Button>
      )}
      <Button
        size="small"
        type="text"
        icon={dark ? <IconSun size={16} /> : <IconMoon size={16} />}
        aria-label={dark ? 'Light theme' : 'Dark theme'}
        onClick={() => useBench.setState({ dark: !dark })}
      />
      <Button
        size="small"
        type="text"
        icon={<IconLayoutSidebarRight size={16} />}
        aria-label="Details"
        onClick={() => useBench.setState((s) => ({ detailsOpen: !s.detailsOpen }))}
      />
      <Button size="small" type="text" onClick={() => useBench.setState({ helpOpen: true })}>
        Help
      </Button>
    </header>
  );
}

/** Undo or redo, with what it would take back or do again. */
function Travel({ command, name }: { readonly command: Command; readonly name: 'Undo' | 'Redo' }) {
  const label = useBench((s) => command.label(s));
  const some = useBench((s) => (name === 'Undo' ? s.undoable : s.redoable).length > 0);
  const { icon: Icon } = command;
  return (
    <Tooltip title={label}>
      <Button
        size="small"
        icon={<Icon size={16} />}
        aria-label={name}
        disabled={!some}
        onClick={() => command.act(useBench.getState())}
      />
    </Tooltip>
  );
}

/** Seconds for which something has run, from the second on. */
function Elapsed() {
  const [seconds, setSeconds] = useState(0);
  useEffect(() => {
    const timer = setInterval(() => setSeconds((s) => s + 1), 1000);
    return () => clearInterval(timer);
  }, []);
  return seconds > 1 ? <span className="bench-running-time">{seconds} s</span> : null;
}

/** What is running: its name, how far, the figure that falls, and Stop. */
function Running() {
  const running = useBench((s) => s.running);
  const proposing = useBench((s) => s.proposing);
  const { silent, broken } = useBench((s) => s.worker);
  if (silent !== undefined || broken !== undefined)
    return (
      <div className="bench-running" role="alert">
        <span>{broken ?? `No answer for ${silent} seconds.`}</span>
        <Button size="small" danger onClick={restart}>
          Start it again
        </Button>
      </div>
    );
  if (!running && proposing === undefined) return <span className="bench-running" />;
  const { doing, fraction, figure } = running ?? { doing: 'Looking for seams', fraction: proposing };
  return (
    <div className="bench-running" role="status" aria-label="Running">
      <span className="bench-running-name">{doing}…</span>
      {fraction !== undefined && (
        <Progress percent={Math.round(fraction * 100)} size="small" aria-label="Progress" />
      )}
      {figure !== undefined && <span data-testid="figure">{figure}</span>}
      <Elapsed key={doing} />
      <Button
        size="small"
        danger
        icon={<IconPlayerStop size={14} />}
        onClick={() => void (running ? stop() : stopProposing())}
      >
        Stop
      </Button>
    </div>
  );
}
