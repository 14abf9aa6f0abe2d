import { IconX } from '@tabler/icons-react';
import { Button, Radio, Tooltip, Typography } from 'antd';
import { perform } from '../../store/acts.ts';
import { useBench } from '../../store/bench.ts';
import type { SetName } from '../../worker/protocol.ts';

/** The UV sets of the model: the one that is worked on is marked. */
export function UvSetsPanel() {
  const sets = useBench((s) => s.uvSets);
  const names = sets.map(({ name }) => name);
  const add = (from: 'nothing' | 'copy', name: string) =>
    void perform('add-uv-set', { from, name: freeName(names, name) });
  return (
    <section className="trials" aria-label="UV sets">
      <h2>UV sets</h2>
      <ul className="patches">
        {sets.map((set) => (
          <SetRow key={set.id} set={set} />
        ))}
      </ul>
      <div className="button-grid">
        <Button size="small" onClick={() => add('nothing', 'UV')}>
          Add an empty one
        </Button>
        <Button size="small" onClick={() => add('copy', 'Copy')}>
          Copy this one
        </Button>
      </div>
    </section>
  );
}

function SetRow({ set: { id, name } }: { readonly set: SetName }) {
  const current = useBench((s) => s.currentUv === id);
  const isLast = useBench((s) => s.uvSets.length < 2);
  return (
    <li>
      <Radio
        checked={current}
        name="uv-set"
        aria-label={`Work on ${name}`}
        onChange={() => void perform('use-uv-set', { set: id })}
      />
      <Typography.Text
        ellipsis
        editable={{
          text: name,
          maxLength: 60,
          tooltip: 'Rename',
          onChange: (to) =>
            to.trim() && to.trim() !== name && void perform('rename-uv-set', { set: id, name: to.trim() }),
        }}
      >
        {name}
      </Typography.Text>
      <Tooltip title={isLast ? 'The last one stays' : 'Remove it, with its seams'}>
        <Button
          size="small"
          type="text"
          disabled={isLast}
          icon={<IconX size={14} />}
          aria-label={`Remove ${name}`}
          onClick={() => void perform('remove-uv-set', { set: id })}
        />
      </Tooltip>
    </li>
  );
}

/** A name that no set has: “UV”, “UV 2”, “UV 3”. */
export function freeName(names: readonly string[], wanted: string): string {
  for (let i = 1; ; i++) {
    const name = i === 1 ? wanted : `${wanted} ${i}`;
    if (!names.includes(name)) return name;
  }
}
