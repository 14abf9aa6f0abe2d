import { Button, Popconfirm } from 'antd';
import { useState } from 'react';
import { KEPT_OFF } from '../storage/limits.ts';
import type { RackRow } from '../storage/rack.ts';
import { bench } from '../store/worker.ts';
import type { Answer } from '../worker/protocol.ts';

interface OffTheRackProps {
  readonly rows: readonly RackRow[];
  readonly attempt: (work: () => Promise<Answer<void>>) => void;
}

const day = (time: number) => new Date(time).toLocaleDateString('en-GB', { day: 'numeric', month: 'long' });

/** What was taken off the Rack: it can be put back for thirty days, or be deleted at once. */
export function OffTheRack({ rows, attempt }: OffTheRackProps) {
  const [open, setOpen] = useState(false);
  const count = rows.length === 1 ? 'One project is' : `${rows.length} projects are`;
  return (
    <section className="rack-off" aria-label="Off the Rack">
      <div className="rack-off-head">
        {count} off the Rack, kept for thirty days.
        <Button type="link" aria-expanded={open} onClick={() => setOpen(!open)}>
          {open ? 'Hide the list' : 'Show the list'}
        </Button>
        <Popconfirm
          title="Delete all that is off the Rack?"
          description="It cannot be put back after that."
          okText="Delete all of it"
          cancelText="Keep it"
          onConfirm={() => attempt(() => bench.emptyOff(true))}
        >
          <Button type="link" danger>
            Empty it now
          </Button>
        </Popconfirm>
      </div>
      {open && (
        <ul>
          {rows.map(({ id, name, deleted = 0 }) => (
            <li key={id}>
              <span className="rack-off-name">{name}</span>
              <span className="rack-facts">
                taken off {day(deleted)}, goes {day(deleted + KEPT_OFF)}
              </span>
              <Button onClick={() => attempt(() => bench.putBack(id))}>Put it back</Button>
              <Button danger type="text" onClick={() => attempt(() => bench.deleteForGood(id))}>
                Delete for good
              </Button>
            </li>
          ))}
        </ul>
      )}
    </section>
  );
}
