import { IconCheck, IconPinned, IconX } from '@tabler/icons-react';
import { Button, Checkbox, Tooltip, Typography } from 'antd';
import { useBench } from '../../store/bench.ts';
import { dropTrial, markCompared, nameTrial, takeTrial } from '../../store/trials.ts';
import type { TrialRow } from '../../worker/protocol.ts';
import { compare, keep, tryBoth } from '../commands/trying.ts';
import { decimal } from '../reading.ts';
import { CommandButton } from './CommandButton.tsx';

/** What unfolds and relaxes led to, the newest first. */
export function TrialsPanel() {
  const trials = useBench((s) => s.trials);
  return (
    <section className="trials" aria-label="Trials">
      <h2>Trials</h2>
      {trials.length === 0 ? (
        <p className="selection-hint">
          Every unfold and relax is kept here, also what you take back: return to any, or compare two.
        </p>
      ) : (
        <ul>
          {[...trials].reverse().map((trial) => (
            <Row key={trial.id} trial={trial} />
          ))}
        </ul>
      )}
      <div className="button-grid">
        {[keep, tryBoth, ...(trials.length > 1 ? [compare] : [])].map((command) => (
          <CommandButton key={command.name} command={command} />
        ))}
      </div>
    </section>
  );
}

function Row({ trial: { id, name, kept, set, figures, seconds } }: { readonly trial: TrialRow }) {
  const compared = useBench((s) => s.compared.includes(id));
  const sets = useBench((s) => s.uvSets);
  const of = sets.length > 1 ? sets.find((each) => each.id === set)?.name : undefined;
  return (
    <li>
      <Tooltip title="To be compared">
        <Checkbox checked={compared} aria-label={`Compare ${name}`} onChange={() => markCompared(id)} />
      </Tooltip>
      <div className="trials-words">
        <Typography.Text
          ellipsis
          editable={{
            text: name,
            maxLength: 60,
            tooltip: 'Rename, and keep',
            onChange: (to) => to.trim() && to.trim() !== name && void nameTrial(id, to.trim()),
          }}
        >
          {kept && <IconPinned size={13} aria-label="Kept" />} {name}
        </Typography.Text>
        <span>
          L2 {decimal(figures.l2, 3)} · {figures.angleMean.toFixed(1)}°{of && ` · ${of}`}
          {seconds !== undefined && ` · ${seconds < 10 ? seconds.toFixed(1) : seconds.toFixed(0)} s`}
        </span>
      </div>
      <Tooltip title="Lay it so">
        <Button
          size="small"
          type="text"
          icon={<IconCheck size={15} />}
          aria-label={`Use ${name}`}
          onClick={() => void takeTrial(id)}
        />
      </Tooltip>
      <Tooltip title="Let it go">
        <Button
          size="small"
          type="text"
          icon={<IconX size={14} />}
          aria-label={`Let ${name} go`}
          onClick={() => void dropTrial(id)}
        />
      </Tooltip>
    </li>
  );
}
