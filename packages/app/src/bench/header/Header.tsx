import {
  IconArrowBackUp,
  IconArrowForwardUp,
  IconLayoutSidebarRight,
  IconMoon,
  IconPlayerStop,
  IconSun,
} from '@tabler/icons-react';
import { Button, Progress, Tooltip } from 'antd';
import { Link } from 'react-router';
import { stop, travel } from '../../store/actions.ts';
import { useBench } from '../../store/benchStore.ts';

export function Header() {
  const name = useBench((s) => s.projectName);
  const state = useBench((s) => s.state);
  const saved = useBench((s) => s.saved);
  const dark = useBench((s) => s.dark);
  return (
    <header className="bench-header">
      <Link to="/" className="bench-home">
        Rack
      </Link>
      <h1>{name}</h1>
      <Tooltip title={state?.undoable[0] ? `Undo: ${state.undoable[0]}` : 'Nothing to undo'}>
        <Button
          size="small"
          icon={<IconArrowBackUp size={16} />}
          aria-label="Undo"
          disabled={!state?.undoable.length}
          onClick={() => void travel('undo')}
        />
      </Tooltip>
      <Tooltip title={state?.redoable[0] ? `Redo: ${state.redoable[0]}` : 'Nothing to redo'}>
        <Button
          size="small"
          icon={<IconArrowForwardUp size={16} />}
          aria-label="Redo"
          disabled={!state?.redoable.length}
          onClick={() => void travel('redo')}
        />
      </Tooltip>
      <span className="bench-last">{state?.undoable[0]}</span>
      <Running />
      <span className="bench-saved" role="status">
        {saved ? 'Saved' : 'Saving…'}
      </span>
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
      <Link to="/help" className="bench-help">
        Help
      </Link>
    </header>
  );
}

/** What is running: its name, how far, the figure that falls, and Stop. */
function Running() {
  const busy = useBench((s) => s.busy);
  if (!busy) return <span className="bench-running" />;
  return (
    <div className="bench-running" role="status" aria-label="Running">
      <span className="bench-running-name">{busy.label}</span>
      {busy.fraction !== undefined && (
        <Progress
          percent={Math.round(busy.fraction * 100)}
          size="small"
          showInfo={false}
          aria-label="Progress"
        />
      )}
      {busy.figure !== undefined && <span data-testid="figure">{busy.figure.toFixed(4)}</span>}
      <Button size="small" danger icon={<IconPlayerStop size={14} />} onClick={() => void stop()}>
        Stop
      </Button>
    </div>
  );
}
